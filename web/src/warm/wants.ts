import type { Schemas } from '../shared/api/client';

/** The server fills in what is left out, so what comes from it is always whole. */
export type Wants = Required<Schemas['SessionWants']>;
export type Request = Schemas['SessionRequest'];

/** What is asked in the line at the top of the page. */
export const inTheLine = ['drinks', 'readyAt'] as const;

/** What is asked in its drawer. */
export const ofTheWorks = [
  'grindSeconds',
  'spareBaskets',
  'cupsAPull',
  'preheat',
  'heaterStepC',
  'times',
  'bloomSeconds',
  'kettleGrams',
  'doseGrams',
  'yieldGrams',
] as const;

/** What a form over the wants is given. */
export interface WantsProps {
  session: Schemas['SessionView'];
  request: Request;
  /** Changes a part of what is asked for, told from what is asked for by then. */
  change: (part: (now: Request) => Partial<Request>) => void;
  wrong: (field: (typeof inTheLine | typeof ofTheWorks)[number]) => string | undefined;
}
