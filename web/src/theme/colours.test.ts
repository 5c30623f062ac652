import { describe, expect, it } from 'vitest';
import { colours, hatchGround } from './system';

/** Contrast ratio of WCAG 2.2 (relative luminance, definition in the standard). */
function contrast(a: string, b: string): number {
  const luminance = (hex: string) => {
    const [r, g, bl] = [1, 3, 5].map((i) => {
      const c = parseInt(hex.slice(i, i + 2), 16) / 255;
      return c <= 0.03928 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4;
    }) as [number, number, number];
    return 0.2126 * r + 0.7152 * g + 0.0722 * bl;
  };
  const [high, low] = [luminance(a), luminance(b)].sort((x, y) => y - x) as [number, number];
  return (high + 0.05) / (low + 0.05);
}

/** One colour over another, as a browser blends them. */
const blend = (over: string, under: string, share: number) =>
  '#' +
  [1, 3, 5]
    .map((i) => [over, under].map((hex) => parseInt(hex.slice(i, i + 2), 16)) as [number, number])
    .map(([o, u]) =>
      Math.round(o * share + u * (1 - share))
        .toString(16)
        .padStart(2, '0'),
    )
    .join('');

describe.each(['light', 'dark'] as const)('colours, %s', (theme) => {
  const of = (name: keyof typeof colours) => colours[name][theme];

  it.each(['text', 'quiet', 'oxide', 'pressure', 'flow', 'grams', 'temperatureText', 'resistance'] as const)(
    '%s reads as text',
    (name) => {
      expect(contrast(of(name), of('page'))).toBeGreaterThanOrEqual(4.5);
      expect(contrast(of(name), of('panel'))).toBeGreaterThanOrEqual(4.5);
    },
  );

  it.each(['pressure', 'flow', 'grams', 'temperature', 'resistance', 'plan', 'edge'] as const)(
    '%s shows as a line',
    (name) => {
      expect(contrast(of(name), of('panel'))).toBeGreaterThanOrEqual(3);
    },
  );

  it.each(['page', 'panel'] as const)(
    'the plan\u2019s hatching shows on the %s as it is drawn, line on ground',
    (under) => {
      const ground = blend(of('plan'), of(under), hatchGround);
      expect(contrast(of('plan'), ground)).toBeGreaterThanOrEqual(3);
    },
  );

  it('writes on oxide', () => {
    expect(contrast(of('onOxide'), of('oxide'))).toBeGreaterThanOrEqual(4.5);
  });

  it('has figures for two metres', () => {
    expect(contrast(of('text'), of('page'))).toBeGreaterThanOrEqual(7);
  });
});

describe('the contrast formula', () => {
  it('gives 21 for black on white and 6.6 for white on oxide', () => {
    expect(contrast('#000000', '#FFFFFF')).toBeCloseTo(21, 5);
    expect(contrast('#FFFFFF', '#A8341C')).toBeCloseTo(6.6, 1);
  });
});
