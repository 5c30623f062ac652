// @vitest-environment jsdom
import { describe, expect, it, test } from 'vitest';
import { makeUnits, number } from './units';

describe('display units', () => {
  it('shows bar, psi and kPa with sensible digits', () => {
    expect(makeUnits('bar', 'degC', 'kgf').pressure(8.04)).toEqual({ value: '8.0', unit: 'bar' });
    expect(makeUnits('psi', 'degC', 'kgf').pressure(9)).toEqual({ value: '131', unit: 'psi' }); // 9 bar = 130.5 psi (NIST SP 811)
    expect(makeUnits('kPa', 'degC', 'kgf').pressure(9)).toEqual({ value: '900', unit: 'kPa' });
  });

  it('shows temperatures and differences of temperature', () => {
    const f = makeUnits('bar', 'degF', 'N');
    expect(f.temperature(93, 0)).toEqual({ value: '199', unit: '\u00b0F' });
    expect(f.temperatureStep(5, 0)).toEqual({ value: '9', unit: '\u00b0F' });
    expect(f.force(18, 0)).toEqual({ value: '177', unit: 'N' });
  });

  it('has a dash for what nobody knows', () => {
    expect(number(null, 1)).toBe('\u2013');
    expect(number(Number.NaN, 1)).toBe('\u2013');
    expect(makeUnits('bar', 'degC', 'kgf').pressure(undefined).value).toBe('\u2013');
  });
});

test('sentences of the core are said in the units chosen, ranges too', () => {
  const us = makeUnits('psi', 'degF', 'N');
  expect(us.sentence('It boils at {94.5 degC} here, worth {3 K!} to {5 K}.')).toBe(
    'It boils at 202.1 \u00b0F here, worth 5 to 9 \u00b0F.',
  );
  expect(us.sentence('down to {0.80 bar} with {18.0 kgf}')).toBe('down to 11.6 psi with 177 N');
  expect(us.sentence('it must lie between {-10 degC!} and {150 degC}')).toBe('it must lie between 14 and 302 \u00b0F');
  const metric = makeUnits('bar', 'degC', 'kgf');
  expect(metric.sentence('between {20 degC!} and {101 degC}, {0.80 bar}')).toBe('between 20 and 101 \u00b0C, 0.80 bar');
});

test('a unit of the wire goes to the screen and back', () => {
  const us = makeUnits('kPa', 'degF', 'N');
  for (const unit of ['bar', 'kgf', 'degC', 'g']) expect(us.of(unit).wire(us.of(unit).show(7.3))).toBeCloseTo(7.3, 9);
  expect(us.of('bar').unit).toBe('kPa');
  expect(us.of('g')).toMatchObject({ unit: 'g' });
});

test('what rounds to zero has no sign', () => {
  expect(makeUnits('bar', 'degC', 'kgf').pressure(-0.03).value).toBe('0.0');
  expect(number(-0.004, 2)).toBe('0.00');
  expect(number(-0.006, 2)).toBe('-0.01');
  expect(makeUnits('psi', 'degC', 'kgf').sentence('It rests at {-0.004 bar}.')).toBe('It rests at -0.06 psi.');
});

test('every channel of an instrument has its own unit', () => {
  const here = makeUnits('bar', 'degC', 'kgf');
  expect(here.channel('Group', 21.94)).toBe('21.9 \u00b0C');
  expect(here.channel('Weight', 70)).toBe('70.0 g');
  const there = makeUnits('psi', 'degF', 'N');
  expect(there.channel('Group', 100)).toBe('212.0 \u00b0F');
  expect(there.channel('Pressure', 1)).toBe('14.5 psi');
});
