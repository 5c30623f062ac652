/** The one type family, as a font's name in CSS. */
export const family = "'Archivo Variable'";

/** The same family's letters beyond those of most languages (see letters.css). */
export const beyond = "'Archivo Variable Beyond'";

/**
 * The cuts of the one type family. Each pair of width and weight that a page draws is an instance of the variable font,
 * which a slow machine takes its time to make, so there are few of them: text and strong text, wide headings, and
 * condensed readings, plain and strong.
 */
export const strong = 650;

/** Headings and names of places. */
export const wide = { fontStretch: '115%', fontWeight: strong } as const;

/** Readings and what stands at an axis. */
export const condensed = '78%';
