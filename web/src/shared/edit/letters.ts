/** The longest name of anything, in letters; the server says the same. */
export const mostLetters = 80;

/** The longest word for how something is made or grown. */
export const fewLetters = 40;

/** The longest word for a step of a grinder. */
export const unitLetters = 20;
