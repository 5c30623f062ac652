import * as z from 'zod/mini';
import type { Schemas } from '../shared/api/client';

/** What the bench is called, where it stands and which units it speaks. */
export type BenchSettings = Omit<Schemas['HouseholdChange'], 'school' | 'tasteWords'>;

/** Those of a household. */
export const benchOf = (household: Schemas['HouseholdView']): BenchSettings => ({
  name: household.name,
  altitudeMetres: household.altitudeMetres,
  ambientC: household.ambientC,
  pressureUnit: household.pressureUnit,
  temperatureUnit: household.temperatureUnit,
  forceUnit: household.forceUnit,
});

/** Checked against the API's description by its type; the ranges are the server's to say. */
export const bench = z.object({
  name: z.string().check(z.trim(), z.minLength(1, 'The bench needs a name.'), z.maxLength(80)),
  altitudeMetres: z.number(),
  ambientC: z.number(),
  pressureUnit: z.string(),
  temperatureUnit: z.string(),
  forceUnit: z.string(),
}) satisfies z.ZodMiniType<BenchSettings>;

/** Words to taste with, one to a line. */
export const words = z.object({ words: z.string() });
