/**
 * Runs something once what was just put into the page is laid out, which is when the frame after the next one begins.
 * Gives back how to stop it.
 */
export function onceDrawn(run: () => void): () => void {
  let frame = requestAnimationFrame(() => {
    frame = requestAnimationFrame(run);
  });
  return () => cancelAnimationFrame(frame);
}
