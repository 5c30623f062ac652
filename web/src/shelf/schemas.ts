import * as z from 'zod/mini';
import type { Schemas } from '../shared/api/client';
import { fewLetters, mostLetters, unitLetters } from '../shared/edit/letters';
import { name } from '../shared/edit/name';

const day = z.iso.date('Choose a day.');
const maybeDay = z.optional(z.nullable(day));
const maybeText = z.optional(z.nullable(z.string()));
const maybeNumber = z.optional(z.nullable(z.number()));

/** Checked against the API's description by its types; the ranges are the server's to say. */
export const bag = z.object({
  name: name('The coffee'),
  roaster: z.string().check(z.maxLength(mostLetters)),
  roastedOn: day,
  roastLevel: z.string(),
  finished: z.boolean(),
  process: z.string().check(z.maxLength(fewLetters)),
  openedOn: maybeDay,
  frozenOn: maybeDay,
  thawedOn: maybeDay,
  gramsLeft: maybeNumber,
  brewerId: maybeNumber,
}) satisfies z.ZodMiniType<Schemas['BagChange']>;

export const grinder = z.object({
  name: name('The grinder'),
  scaleUnit: z.string().check(z.minLength(1, 'Enter the name of a step, for example click.'), z.maxLength(unitLetters)),
  step: z.number(),
  finerIsLower: z.boolean(),
  zeroPoint: maybeNumber,
  retentionGrams: z.number(),
  purgeGrams: z.number(),
}) satisfies z.ZodMiniType<Schemas['GrinderChange']>;

export const brewer = z.object({
  name: name('The person'),
  school: maybeText,
  pressureUnit: maybeText,
  temperatureUnit: maybeText,
  forceUnit: maybeText,
}) satisfies z.ZodMiniType<Schemas['NewBrewer']>;

const dayFromRoast = z.int();

export const rest = z.object({
  usableFrom: dayFromRoast,
  bestFrom: dayFromRoast,
  bestTo: dayFromRoast,
  cremaTo: dayFromRoast,
}) satisfies z.ZodMiniType<Schemas['RestWindow']>;

/** A basket's name beside its numbers. */
export const basket = z.object({
  name: name('The basket'),
  diameterMm: z.number(),
  depthMm: z.number(),
  nominalDoseGrams: z.number(),
  ridged: z.boolean(),
  shape: z.enum(['Straight', 'Tapered']),
  restrictorBarS2PerMl2: z.number(),
  screenMm: z.number(),
}) satisfies z.ZodMiniType<Required<Schemas['Basket']>>;
