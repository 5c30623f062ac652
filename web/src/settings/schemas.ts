import * as z from 'zod/mini';
import type { BenchSettings } from '../shared/bench/benchSettings';
import { name } from '../shared/edit/name';

/** Checked against the API's description by its type; the ranges are the server's to say. */
export const bench = z.object({
  name: name('The bench'),
  altitudeMetres: z.number(),
  ambientC: z.number(),
  pressureUnit: z.string(),
  temperatureUnit: z.string(),
  forceUnit: z.string(),
}) satisfies z.ZodMiniType<BenchSettings>;

/** Words to taste with, one to a line. */
export const words = z.object({ words: z.string() });
