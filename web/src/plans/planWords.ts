import type { Schemas } from '../shared/api/client';
import { ownPressure, withOwnPressure } from '../shared/units/cue';
import { toDecimals } from '../shared/units/decimals';

export type Plan = Schemas['PullPlan'];
export type Phase = Required<Schemas['PullPhase']>;

export const moves: Record<Phase['move'], string> = {
  Press: 'press',
  HoldFlow: 'hold the flow',
  Lift: 'lift, refill',
  Rest: 'rest',
};

export const endings: Record<Phase['ending'], string> = {
  FirstDrops: 'at first drops',
  Seconds: 'after seconds',
  YieldShare: 'at a share of the yield',
  Grams: 'at grams in the cup',
  Blonding: 'when the stream turns pale',
  Strokes: 'after strokes',
};

/** Whether a phase waits for something that has no number of its own. */
export const byEvent = (phase: Phase) => phase.ending === 'FirstDrops' || phase.ending === 'Blonding';

/** A phase with nothing left out. */
export const whole = (phase: Schemas['PullPhase']): Phase => ({
  ...phase,
  cue: withOwnPressure(phase),
  move: phase.move ?? 'Press',
  flowGramsPerS: phase.flowGramsPerS ?? 0,
});

const tenth = (value: number) => toDecimals(1, value);

const round = (value: number, to: number) => Math.round(value / to) * to;

/** How a phase ends, for a label or for those who cannot see the drawing. */
export function endsIn(phase: Phase, yieldGrams: number): string {
  switch (phase.ending) {
    case 'Seconds':
      return `after ${tenth(phase.endsAt)} s`;
    case 'YieldShare':
      return `at ${tenth(phase.endsAt * yieldGrams)} g`;
    case 'Grams':
      return `at ${tenth(phase.endsAt)} g`;
    case 'Strokes':
      return phase.endsAt === 0.5 ? 'after half a pull' : `after ${tenth(phase.endsAt)} strokes`;
    default:
      return endings[phase.ending];
  }
}

/**
 * A phase whose end was moved to a moment of the preview: its seconds, grams or share follow; what ends on an event or
 * a stroke stays.
 * Only where the point was put is worked out here; what comes of it the server says.
 */
export function endMovedTo(phase: Phase, began: number, seconds: number, grams: number, yieldGrams: number): Phase {
  switch (phase.ending) {
    case 'Seconds':
      return { ...phase, endsAt: Math.max(0.5, round(seconds - began, 0.5)) };
    case 'YieldShare':
      return { ...phase, endsAt: Math.min(1, Math.max(0.02, round(grams / yieldGrams, 0.01))) };
    case 'Grams':
      return { ...phase, endsAt: Math.max(0.5, round(grams, 0.5)) };
    default:
      return phase;
  }
}

/** A phase whose end was nudged by a key: half a second, a gram, a hundredth of the yield, half a stroke. */
export function endNudged(phase: Phase, by: number, yieldGrams: number): Phase {
  switch (phase.ending) {
    case 'Seconds':
      return { ...phase, endsAt: Math.max(0.5, phase.endsAt + by * 0.5) };
    case 'YieldShare':
      return { ...phase, endsAt: Math.min(1, Math.max(0.02, phase.endsAt + by / yieldGrams)) };
    case 'Grams':
      return { ...phase, endsAt: Math.max(0.5, phase.endsAt + by) };
    case 'Strokes':
      return { ...phase, endsAt: Math.max(0.5, phase.endsAt + by * 0.5) };
    default:
      return phase;
  }
}

/** The cue that goes with a move and a pressure, where the brewer has not written one. */
export function usualCue(phase: Phase): string {
  if (phase.move === 'HoldFlow') return `Ease so that the flow stays at ${Number(phase.flowGramsPerS.toFixed(1))} g/s`;
  if (phase.move === 'Lift') return 'Lever up, let the group fill';
  if (phase.move === 'Rest') return 'Rest';
  return `Press to ${ownPressure}`;
}

/** A further phase after another. */
export const phaseAfter = (last: Phase | undefined): Phase => ({
  name: 'ease',
  toBar: Math.max(2, (last?.toBar ?? 8) - 2),
  ending: 'YieldShare',
  endsAt: 1,
  leadSeconds: 0,
  atMostSeconds: 90,
  cue: `Press to ${ownPressure}`,
  move: 'Press',
  flowGramsPerS: 1.5,
});

/** Phases with one more at the end; what ended at the whole yield makes room for it. */
export function withOneMore(phases: readonly Phase[]): Phase[] {
  const shares = phases.filter((p) => p.ending === 'YieldShare');
  const before = shares.length > 1 ? shares[shares.length - 2]!.endsAt : 0;
  const made = phases.map((p) =>
    p.ending === 'YieldShare' && p.endsAt > 0.98 ? { ...p, endsAt: round((before + 1) / 2, 0.01) } : p,
  );
  return [...made, phaseAfter(made.at(-1))];
}
