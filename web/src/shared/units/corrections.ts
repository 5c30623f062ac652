import type { Schemas } from '../api/client';
import { number, type Units } from './units';

/** What was put right in a trace, in a sentence each. */
export function corrections(list: readonly Schemas['TraceCorrection'][], units: Units): string[] {
  const said: Record<Schemas['CorrectionKind'], (amount: number) => string> = {
    GaugeRest: (bar) => {
      const { value, unit } = units.pressure(bar, 1);
      return `The gauge rested at ${value} ${unit}; that is taken off.`;
    },
    IdleBefore: (s) => `The record began ${number(s, 0)} s before the lever moved; times count from the lever.`,
    CupLifted: (s) => `The cup was lifted off the scale at ${number(s, 0)} s; what the scale showed after is left out.`,
    Gap: (s) =>
      `For ${number(s, 1)} s gauge or scale showed nothing: bridged by a straight line, and not measured from.`,
    DrippedAfter: (g) => `${number(g, 1)} g dripped after the stop: counted in the cup, not in times and flow.`,
  };
  return list.map((c) => said[c.kind](c.amount));
}
