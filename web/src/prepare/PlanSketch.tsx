import { useId } from 'react';
import type { Schemas } from '../shared/api/client';
import { Hatch } from '../shared/plot/Frame';
import { bandPath, linear, type Point } from '../shared/plot/scale';
import { ink } from '../theme/system';

/** Usual length of a phase in s, for a picture; a whole cup is taken to flow for 26 s and to weigh 32 g. */
const secondsOf = (phase: Schemas['PullPhase'], before: number) => {
  switch (phase.ending) {
    case 'Seconds':
      return phase.endsAt;
    case 'YieldShare':
      return (phase.endsAt - before) * 26;
    case 'Grams':
      return Math.max(1, (phase.endsAt / 32 - before) * 26);
    case 'Strokes':
      return Math.min(8, phase.atMostSeconds);
    default:
      return 6;
  }
};

/** A plan as its hatched band, phases at their usual length: a picture to choose by, not a forecast. */
export function PlanSketch({ plan, width = 200, height = 72 }: { plan: Schemas['PullPlan']; width?: number; height?: number }) {
  const hatch = useId();
  const points: Point[] = [[0, 0]];
  let at = 0;
  let share = 0;
  for (const phase of plan.phases) {
    if (phase.leadSeconds > 0 && phase.ending !== 'Seconds') points.push([at + phase.leadSeconds, phase.toBar]);
    at += secondsOf(phase, share);
    if (phase.ending === 'YieldShare') share = phase.endsAt;
    if (phase.ending === 'Grams') share = phase.endsAt / 32;
    // a flow is held by easing: to about half of the most pressure at the end
    points.push([at, phase.move === 'HoldFlow' ? phase.toBar / 2 : phase.toBar]);
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
