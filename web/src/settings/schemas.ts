import * as z from 'zod/mini';
import type { BenchSettings } from '../shared/bench/benchSettings';

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
