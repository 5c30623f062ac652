import type { Units } from './units';

/** Stands in the cue of a phase for the phase's own pressure. */
export const ownPressure = '{bar}';

interface CuedPhase {
  cue: string;
  toBar: number;
}

const shown = (phase: CuedPhase, units: Units) => {
  const { value, unit } = units.pressure(phase.toBar, Number.isInteger(Number(phase.toBar.toFixed(1))) ? 0 : 1);
  return `${value} ${unit}`;
};

/** A cue of old names the pressure as a number in bar. */
export const withOwnPressure = (phase: CuedPhase) =>
  phase.cue.replace(`${Number(phase.toBar.toFixed(1))} bar`, ownPressure);

/** The cue as it is said, with the phase's pressure in the household's unit. */
export const cueSaid = (phase: CuedPhase, units: Units) =>
  withOwnPressure(phase).replace(ownPressure, shown(phase, units));

/** The cue as it is kept, of what was typed. */
export const cueKept = (typed: string, phase: CuedPhase, units: Units) =>
  typed.replace(shown(phase, units), ownPressure);
