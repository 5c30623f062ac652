import { Problem, sentenceOf } from '../api/client';

/**
 * An error as a form shows it: beside the field that it names where the form has that field, and else by itself, so that
 * none is lost.
 */
export function wrongOf<F extends string>(error: unknown, fields: readonly F[]) {
  const field = error instanceof Problem ? fields.find((f) => f === error.field) : undefined;
  return {
    /** What is wrong with a field. */
    wrong: (shown: F) => (field === shown ? sentenceOf(error) : undefined),
    /** What no field of the form shows; null for nothing. */
    elsewhere: error && field === undefined ? sentenceOf(error) : null,
  };
}
