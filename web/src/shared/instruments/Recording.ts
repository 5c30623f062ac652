import { useEffect, useMemo } from 'react';
import type { Point } from '../plot/scale';
import type { LiveFrame } from '../live/live';
import type { Instrument } from './instrument';

const points = (samples: readonly (readonly number[])[]) => samples.map((s) => [s[0]!, s[1]!] as Point);

/**
 * All that has been seen of a pull, for whatever is drawn of it; s since the lever moved against bar, g, g/s and ml.
 */
export class Recording {
  readonly pressure: Point[];
  readonly weight: Point[];
  readonly flow: Point[];
  readonly stroke: Point[];
  readonly targets: Point[] = [];
  readonly phaseBegan = new Map<number, number>();
  last: LiveFrame;

  constructor(first: LiveFrame) {
    this.last = first;
    this.pressure = points(first.pressure);
    this.weight = points(first.weight);
    this.flow = points(first.flow);
    this.stroke = points(first.stroke);
    this.hearPlan(first);
  }

  hear(frame: LiveFrame) {
    this.last = frame;
    this.pressure.push(...points(frame.pressure));
    this.weight.push(...points(frame.weight));
    this.flow.push(...points(frame.flow));
    this.stroke.push(...points(frame.stroke));
    this.hearPlan(frame);
  }

  /** What the plan wanted, as it was played: it stays, also for a page that comes later. */
  private hearPlan(frame: LiveFrame) {
    for (const [seconds, bar, phase] of frame.plan as [number, number, number][]) {
      if (!this.phaseBegan.has(phase)) this.phaseBegan.set(phase, seconds);
      this.targets.push([seconds, bar]);
    }
  }
}

/** The recording of a pull, which goes on whatever is drawn. */
export function useRecording(view: Instrument): Recording {
  const recording = useMemo(() => new Recording(view.frame), [view]);
  useEffect(() => view.listen((frame) => recording.hear(frame)), [view, recording]);
  return recording;
}
