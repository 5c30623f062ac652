/**
 * Runs something once what was just put into the page is laid out: the frame after the next one begins then. Gives back how
 * to take it back.
 */
export function onceDrawn(run: () => void): () => void {
  let frame = requestAnimationFrame(() => {
    frame = requestAnimationFrame(run);
  });
  return () => cancelAnimationFrame(frame);
}
