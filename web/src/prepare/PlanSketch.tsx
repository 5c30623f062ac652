import { useId } from 'react';
import type { Schemas } from '../shared/api/client';
import { Hatch } from '../shared/plot/Frame';
import { bandPath, linear, type Point } from '../shared/plot/scale';
import { ink } from '../theme/system';

const secondsOf = (phase: Schemas['PullPhase'], before: number) =>
  phase.ending === 'FirstDrops' ? 6 : phase.ending === 'Seconds' ? phase.endsAt : (phase.endsAt - before) * 26;

/** A plan as its hatched band, phases at their usual length: a picture to choose by, not a forecast. */
export function PlanSketch({ plan, width = 200, height = 72 }: { plan: Schemas['PullPlan']; width?: number; height?: number }) {
  const hatch = useId();
  const points: Point[] = [[0, 0]];
  let at = 0;
  let share = 0;
  for (const phase of plan.phases) {
    if (phase.ending === 'FirstDrops') points.push([at + phase.leadSeconds, phase.toBar]);
    at += secondsOf(phase, share);
    if (phase.ending === 'YieldShare') share = phase.endsAt;
    points.push([at, phase.toBar]);
  }
  const x = linear([0, at], [2, width - 2]);
  const y = linear([0, 10], [height - 2, 2]);
  return (
    <svg width={width} height={height} aria-hidden="true" style={{ display: 'block', maxWidth: '100%' }}>
      <defs>
        <Hatch id={hatch} />
      </defs>
      <path d={bandPath(points, plan.bandBar, x, y)} fill={`url(#${hatch})`} stroke={ink('plan')} strokeWidth="0.8" />
      <line x1="0" x2={width} y1={height - 1} y2={height - 1} stroke={ink('edge')} />
    </svg>
  );
}
