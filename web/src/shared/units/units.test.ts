import { describe, expect, it } from 'vitest';
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
