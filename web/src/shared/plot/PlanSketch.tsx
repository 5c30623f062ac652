import { useId } from 'react';
import type { Schemas } from '../api/client';
import { Hatch } from './Frame';
import { bandPath, linear, type Point } from './scale';
import { ink } from '../../theme/system';

interface Props {
  points: readonly Schemas['SketchPoint'][];
  bandBar: number;
  width?: number;
  height?: number;
}

/** A plan as its hatched band, phases at their usual length: a picture to choose by, not a forecast. */
export function PlanSketch({ points: corners, bandBar, width = 200, height = 72 }: Props) {
  const hatch = useId();
  const points: Point[] = corners.map((c) => [c.seconds, c.bar]);
  const at = corners.at(-1)?.seconds ?? 1;
  const x = linear([0, at], [2, width - 2]);
  const y = linear([0, 10], [height - 2, 2]);
  return (
    <svg width={width} height={height} aria-hidden="true" style={{ maxWidth: '100%' }}>
      <defs>
        <Hatch id={hatch} />
      </defs>
      <path d={bandPath(points, bandBar, x, y)} fill={`url(#${hatch})`} stroke={ink('plan')} strokeWidth="0.8" />
      <line x1="0" x2={width} y1={height - 1} y2={height - 1} stroke={ink('edge')} />
    </svg>
  );
}
