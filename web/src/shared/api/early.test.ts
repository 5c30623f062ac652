// @vitest-environment jsdom
import { beforeEach, describe, expect, it, vi } from 'vitest';

/** As first.js leaves them: two answers that are there, one that is still on its way. */
async function withAnswers() {
  vi.resetModules();
  const coming = Promise.resolve(undefined);
  Object.assign(window, {
    early: {
      '/a': { coming, text: '{"grams":15}' },
      '/b': { coming, text: '[1]' },
      '/late': { coming },
      '/page': { coming, text: '<html>' },
    },
  });
  return import('./early');
}

describe('answers that came with the scripts', () => {
  let early: Awaited<ReturnType<typeof withAnswers>>;
  beforeEach(async () => {
    early = await withAnswers();
  });

  it('are taken together, in the order asked for, and once', () => {
    expect(early.allEarly(['/b', '/a'])).toEqual([[1], { grams: 15 }]);
    expect(early.allEarly(['/b', '/a'])).toBeNull();
    expect(early.comingEarly('/a')).toBeUndefined();
  });

  it('are left where they are while one of them is still to come, or was never asked for', () => {
    expect(early.allEarly(['/a', '/late'])).toBeNull();
    expect(early.allEarly(['/a', '/elsewhere'])).toBeNull();
    expect(early.allEarly(['/a'])).toEqual([{ grams: 15 }]);
  });

  it('that cannot be read are asked for again, and the page is drawn all the same', () => {
    expect(early.allEarly(['/a', '/page'])).toBeNull();
    expect(early.comingEarly('/page')).toBeUndefined();
  });

  it('are waited for once; the next question goes to the server', () => {
    expect(early.comingEarly('/late')).toBeInstanceOf(Promise);
    expect(early.comingEarly('/late')).toBeUndefined();
  });
});
