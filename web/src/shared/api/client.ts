import createClient from 'openapi-fetch';
import type { components, paths } from './generated/schema';
import { untilShown } from './firstPaint';
import { markSignedOut } from '../access/signedOut';
import { inOurUnits } from '../units/marks';

export type Schemas = components['schemas'];

/** What the server said was wrong: one sentence, and the field if there is one. */
export class Problem extends Error {
  constructor(
    sentence: string,
    readonly status: number,
    readonly field?: string,
  ) {
    super(sentence);
  }
}

async function ask(request: Request) {
  await untilShown();
  return fetch(request);
}

export const api = createClient<paths>({ baseUrl: '', fetch: ask });

interface Answer<T> {
  data?: T;
  error?: unknown;
  response: Response;
}

/** The data of an answer, or a Problem thrown. */
export async function data<T>(answer: Promise<Answer<T>>): Promise<T> {
  let got: Answer<T>;
  try {
    got = await answer;
  } catch {
    throw new Problem('The server does not answer. Is ./run still running?', 0);
  }
  if (got.response.ok) return got.data as T;
  if (got.response.status === 401) markSignedOut();
  const said = got.error as { said?: string; detail?: string; title?: string; field?: string } | undefined;
  const sentence = said?.said ?? said?.detail ?? said?.title ?? 'The server could not do that. Try again.';
  throw new Problem(sentence, got.response.status, said?.field);
}

/**
 * The sentence of anything that was thrown: the server's own, or that the page is at fault; never what a program says
 * to programmers.
 */
export function sentenceOf(error: unknown): string {
  if (error instanceof Problem) return inOurUnits(error.message);
  console.error(error);
  return 'Something in this page went wrong. Load it again; nothing that was stored is lost.';
}
