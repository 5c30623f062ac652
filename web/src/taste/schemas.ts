import * as z from 'zod/mini';
import type { Schemas } from '../shared/api/client';

export const longestNote = 500;

const degree = z.nullable(z.int());
const done = z.nullable(z.boolean());
const seconds = z.nullable(z.number());

/** Checked against the API's description by its types; the ranges are the server's to say. */
export const taste = z.object({
  sour: degree,
  bitter: degree,
  dry: degree,
  sweet: degree,
  body: degree,
  liking: degree,
  words: z.string().check(z.maxLength(longestNote)),
  seen: z.optional(z.nullable(z.array(z.custom<Schemas['Seen']>()))),
  strengthPercent: z.optional(z.nullable(z.number())),
  before: z.optional(z.nullable(z.object({ preheated: done, bled: done, purged: done, screenIn: done }))),
}) satisfies z.ZodMiniType<Schemas['TasteView'], Schemas['TasteView']>;

/** A moment that a person set, or null where it is found in the trace. */
export const moments = z.object({
  firstPressure: seconds,
  firstDrops: seconds,
  ramp: seconds,
  peak: seconds,
  ease: seconds,
  blonding: seconds,
  stop: seconds,
  start: z.optional(seconds),
}) satisfies z.ZodMiniType<Schemas['Moments'], Schemas['Moments']>;
