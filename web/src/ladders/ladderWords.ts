import type { Schemas } from '../shared/api/client';

export type LadderOf = Schemas['LadderOf'];

interface Words {
  name: string;
  unit: string;
  step: number;
  /** Ends to begin with. */
  from: [number, number];
}

/** What a ladder may go by, with ends that people begin with. */
export const ladderWords: Record<LadderOf, Words> = {
  Temperature: { name: 'Temperature of the water', unit: '', step: 1, from: [86, 95] },
  Ratio: { name: 'Ratio', unit: '1 to', step: 0.1, from: [1.5, 3] },
  Rest: { name: 'Rest', unit: 'days', step: 1, from: [5, 20] },
  Grind: { name: 'Grind', unit: 'setting', step: 1, from: [18, 24] },
};

/** A ladder in a few words. */
export const ladderName = (ladder: Schemas['LadderView']) =>
  `${ladderWords[ladder.of].name}, ${ladder.letters.length} cups`;
