import * as z from 'zod/mini';
import { mostLetters } from './letters';

/** A name that must not be empty. */
export const name = (what: string) =>
  z.string().check(z.trim(), z.minLength(1, `${what} needs a name.`), z.maxLength(mostLetters));
