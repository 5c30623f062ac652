import { expect, test } from 'vitest';
import { fieldDay, minutes, timeOfDay } from './clock';

test('minutes and seconds, hours where there are any', () => {
  expect(minutes(0)).toBe('0:00');
  expect(minutes(65.4)).toBe('1:05');
  expect(minutes(3725)).toBe('1:02:05');
  expect(minutes(-3)).toBe('0:00');
});

test('the time of day and the day of a field, as the person has them', () => {
  const morning = new Date(2026, 1, 3, 7, 5);
  expect(timeOfDay(morning.getTime())).toBe('07:05');
  expect(fieldDay(morning)).toBe('2026-02-03');
  expect(fieldDay(new Date(new Date(0).setFullYear(12, 0, 1)))).toBe('0012-01-01');
});
