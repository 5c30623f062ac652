import type { Schemas } from '../api/client';
import { live, type LiveFrame } from '../live/live';

/** What the instruments on screen need to know of a pull, and where its frames come from. */
export interface Instrument {
  frame: LiveFrame;
  plan: Schemas['PullPlan'];
  planCourse: readonly Schemas['PlanPoint'][];
  planSeconds: number;
  yieldGrams: number;
  maxHandForceKgf: number | null;
  pressureBy: Schemas['PressureBy'];
  strokeMl: number;
  /** Which of the plan's phases the hand eases into. */
  easing: readonly boolean[];
  reach: readonly Schemas['StrokeReach'][];
  listen: (listener: (frame: LiveFrame) => void) => () => void;
}

/** The instruments of a real pull. */
export const instrumentOf = (view: Schemas['PullView']): Instrument => ({
  ...view,
  yieldGrams: view.sheet.yieldGrams,
  listen: (listener) => live.onFrame(view.frame.pullId, listener),
});
