/** A note is free text; a word that is tapped is one of its parts between commas or line ends. */
const parts = (text: string) => text.split(/[,;\n]/).map((part) => part.trim());

const same = (a: string, b: string) => a.toLocaleLowerCase() === b.toLocaleLowerCase();

/** Whether a word stands in a note by itself. */
export const hasWord = (text: string, word: string) => parts(text).some((part) => same(part, word));

/** A note with a word more. */
export const withWord = (text: string, word: string) =>
  text.trim() === '' ? word : `${text.trimEnd().replace(/[,;]$/, '')}, ${word}`;

/** A note without a word; all else in it stays as it was written. */
export function withoutWord(text: string, word: string): string {
  const pieces = text.split(/([,;\n])/);
  const at = pieces.findIndex((piece, i) => i % 2 === 0 && same(piece.trim(), word));
  if (at < 0) return text;
  // its own comma goes with it: the one before, or of the first the one after
  pieces.splice(at === 0 ? 0 : at - 1, 2);
  return pieces.join('').trimStart();
}
