import type { Schemas } from '../shared/api/client';

/** The server fills in what is left out, so what comes from it is always whole. */
export type Wants = Required<Schemas['SessionWants']>;
export type Request = Schemas['SessionRequest'];

/** What a form over the wants is given. */
export interface WantsProps {
  session: Schemas['SessionView'];
  request: Request;
  /** Changes a part of what is asked for, told from what is asked for by then. */
  change: (part: (now: Request) => Partial<Request>) => void;
  wrong: (field: string) => string | undefined;
}
