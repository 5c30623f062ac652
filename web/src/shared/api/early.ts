/** An answer that first.js asked for while the scripts came. */
interface Early {
  /** Nothing where the server did not answer. */
  coming: Promise<Response | undefined>;
  /** Once it is there, and good. */
  text?: string;
}

/** Each is good for one question. */
const early = (window as { early?: Record<string, Early | undefined> }).early ?? {};

/** The answer to this path that is on its way, if one is. */
export function comingEarly(path: string): Promise<Response | undefined> | undefined {
  const answer = early[path]?.coming;
  delete early[path];
  return answer;
}

/**
 * What these paths answered, if all of it is there already and can be read; what is still to come is left to be waited
 * for, and what cannot be read to be asked for again.
 */
export function allEarly(paths: readonly string[]): unknown[] | null {
  const texts = paths.map((path) => early[path]?.text);
  if (texts.includes(undefined)) return null;
  for (const path of paths) delete early[path];
  try {
    return texts.map((text) => JSON.parse(text!) as unknown);
  } catch {
    return null;
  }
}
