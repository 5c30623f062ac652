import { onceDrawn } from '../onceDrawn';

let shown: Promise<void> | undefined;
let done: (() => void) | undefined;

/** How long the first drawing stands before anything else is asked for, ms: the hand comes first. */
const moment = 150;

/** The longest that anything is held back, ms: a tab in the background paints nothing. */
const longest = 3000;

/** From now on what the first drawing does not need waits for it. */
export function drawingBegins() {
  if (document.hidden) return;
  shown = new Promise((resolve) => {
    done = resolve;
    setTimeout(resolve, longest);
  });
}

/** Said when the page is put together; a moment after it is laid out it can be used. */
export const drawn = () => onceDrawn(() => setTimeout(() => done?.(), moment));

/** Ends when the first drawing can be used. Answers that come sooner stand between it and whoever waits for it. */
export const untilShown = () => shown;
