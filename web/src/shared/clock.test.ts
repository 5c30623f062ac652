import { expect, test } from 'vitest';
import { minutes } from './clock';

test('minutes and seconds, hours where there are any', () => {
  expect(minutes(0)).toBe('0:00');
  expect(minutes(65.4)).toBe('1:05');
  expect(minutes(3725)).toBe('1:02:05');
  expect(minutes(-3)).toBe('0:00');
});
