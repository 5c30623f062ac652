// @vitest-environment jsdom
import { beforeEach, expect, it, vi } from 'vitest';

/** Whether something that waits for the first drawing would go on now. */
async function goesOn(waited: Promise<void> | undefined) {
  return Promise.race([Promise.resolve(waited).then(() => true), Promise.resolve().then(async () => false)]);
}

const fresh = () => import('./firstPaint');
let paint: Awaited<ReturnType<typeof fresh>>;
beforeEach(async () => {
  vi.resetModules();
  vi.useFakeTimers();
  paint = await fresh();
});

it('nothing waits before the drawing begins', async () => {
  expect(paint.untilShown()).toBeUndefined();
});

it('what is asked for while the page is drawn goes on once it is on the screen', async () => {
  paint.drawingBegins();
  const waits = paint.untilShown();
  expect(await goesOn(waits)).toBe(false);
  paint.drawn();
  await vi.advanceTimersByTimeAsync(250);
  await expect(waits).resolves.toBeUndefined();
});

it('a page that never gets to be painted is not waited for without end', async () => {
  paint.drawingBegins();
  const waits = paint.untilShown();
  await vi.advanceTimersByTimeAsync(2900);
  expect(await goesOn(waits)).toBe(false);
  await vi.advanceTimersByTimeAsync(250);
  await expect(waits).resolves.toBeUndefined();
});
