import type { Schemas } from '../shared/api/client';

/** What is still to be done. */
export const openSteps = (session: Schemas['SessionView']) =>
  session.steps.filter((s) => s.state === 'Due' || s.state === 'UnderWay');
