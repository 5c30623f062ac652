import { createContext, createElement, useContext, useEffect, useMemo, type ReactNode } from 'react';
import type { Schemas } from '../api/client';
import { useBench, useHousehold, useSheet } from '../api/queries';
import { withOurDecimals } from './decimals';
import { sayWith, withQuantities } from './marks';

/** A quantity as shown: number and unit apart, so that readings can be set in their own type. */
export interface Shown {
  value: string;
  unit: string;
}

export interface Units {
  pressure: (bar: number | null | undefined, digits?: number) => Shown;
  temperature: (degC: number | null | undefined, digits?: number) => Shown;
  temperatureStep: (kelvin: number | null | undefined, digits?: number) => Shown;
  force: (kgf: number | null | undefined, digits?: number) => Shown;
  /** Resistance of a puck, from bar s/ml. */
  resistance: (barSPerMl: number | null | undefined, digits?: number) => Shown;
  /** A value in a unit of the wire; a unit that is the same everywhere stays. */
  quantity: (value: number | null | undefined, wireUnit: string, digits?: number) => Shown;
  /** What an instrument says of a channel, with its unit. */
  channel: (channel: Schemas['Channel'], value: number) => string;
  /** A sentence of the core with the quantities that are marked in it said in the household's units. */
  sentence: (text: string) => string;
  /** A typed temperature back to degC. */
  toCelsius: (shown: number) => number;
  /** A unit of the wire as it is shown, with the way there and back; units that are the same everywhere stay. */
  of: (unit: string) => { unit: string; show: (value: number) => number; wire: (shown: number) => number };
  /** Factor from bar to the unit shown, for axes. */
  pressureFactor: number;
  pressureUnit: string;
}

const none = '\u2013';

/** Rounded; what rounds to zero has no sign. */
function fixed(value: number | null | undefined, digits: number): string {
  if (value === null || value === undefined || !Number.isFinite(value)) return none;
  const text = value.toFixed(digits);
  return withOurDecimals(Number(text) === 0 ? text.replace('-', '') : text);
}

const pressureFactors: Record<string, number> = { bar: 1, psi: 1 / 0.06894757293168361, kPa: 100 };

/** Display units; the core and the wire always speak bar, degC, g and kgf. */
export function makeUnits(pressureUnit: string, temperatureUnit: string, forceUnit: string): Units {
  const factor = pressureFactors[pressureUnit] ?? 1;
  const fewer = pressureUnit === 'bar' ? 0 : 1;
  const degree = temperatureUnit === 'degF' ? '\u00b0F' : '\u00b0C';
  const toTemperature = (c: number) => (temperatureUnit === 'degF' ? c * 1.8 + 32 : c);
  const scale = temperatureUnit === 'degF' ? 1.8 : 1;
  const toForce = (kgf: number) => (forceUnit === 'N' ? kgf * 9.80665 : kgf);
  const toCelsius = (shown: number) => (temperatureUnit === 'degF' ? (shown - 32) / 1.8 : shown);
  const map = (value: number | null | undefined, f: (v: number) => number) =>
    value === null || value === undefined ? value : f(value);
  const channels: Record<Schemas['Channel'], (value: number) => string> = {
    Pressure: (v) => said(v, 'bar', 2),
    Weight: (v) => `${fixed(v, 1)} g`,
    Temperature: (v) => said(v, 'degC', 1),
    Group: (v) => said(v, 'degC', 1),
    Force: (v) => said(v, 'kgf', 1),
    Flow: (v) => `${fixed(v, 2)} ml/s`,
  };
  const pressure: Units['pressure'] = (bar, digits = 1) => ({
    value: fixed(
      map(bar, (b) => b * factor),
      Math.max(0, digits - fewer),
    ),
    unit: pressureUnit,
  });
  const temperature: Units['temperature'] = (c, digits = 0) => ({
    value: fixed(map(c, toTemperature), digits),
    unit: degree,
  });
  const force: Units['force'] = (kgf, digits = 0) => ({
    value: fixed(map(kgf, toForce), forceUnit === 'N' ? Math.max(0, digits - 1) : digits),
    unit: forceUnit,
  });
  const resistance: Units['resistance'] = (r, digits = 1) => ({
    value: pressure(r, digits).value,
    unit: `${pressureUnit} s/ml`,
  });
  const quantity: Units['quantity'] = (value, unit, digits = 1) => {
    if (unit === 'bar') return pressure(value, digits);
    if (unit === 'bar s/ml') return resistance(value, digits);
    if (unit === 'degC') return temperature(value, digits);
    if (unit === 'K')
      return {
        value: fixed(
          map(value, (v) => v * scale),
          digits,
        ),
        unit: temperatureUnit === 'degF' ? degree : 'K',
      };
    if (unit === 'kgf') return force(value, digits);
    return { value: fixed(value, digits), unit };
  };
  const said = (value: number, unit: string, digits: number) => {
    const shown = quantity(value, unit, digits);
    return `${shown.value} ${shown.unit}`;
  };
  return {
    channel: (channel, value) => channels[channel](value),
    quantity,
    pressure,
    temperature,
    temperatureStep: (k, digits = 0) => ({
      value: fixed(
        map(k, (v) => v * scale),
        digits,
      ),
      unit: degree,
    }),
    resistance,
    force,
    sentence: (text) => withOurDecimals(withQuantities(text, quantity)),
    toCelsius,
    of: (unit) => {
      if (unit === 'bar') return { unit: pressureUnit, show: (v) => v * factor, wire: (v) => v / factor };
      if (unit.startsWith('bar s'))
        return { unit: unit.replace('bar', pressureUnit), show: (v) => v * factor, wire: (v) => v / factor };
      if (unit === '1/bar') return { unit: `1/${pressureUnit}`, show: (v) => v / factor, wire: (v) => v * factor };
      if (unit === 'kgf') return { unit: forceUnit, show: toForce, wire: (v) => v / toForce(1) };
      if (unit === 'degC') return { unit: degree, show: toTemperature, wire: toCelsius };
      return { unit, show: (v) => v, wire: (v) => v };
    },
    pressureFactor: factor,
    pressureUnit,
  };
}

const UnitsContext = createContext(makeUnits('bar', 'degC', 'kgf'));

/** Gives everything within the display units of whoever brews, or else the household's: worked out once a change. */
export function UnitsOfBrewer({ children }: { children: ReactNode }) {
  const { data: household } = useHousehold();
  const { data: sheet } = useSheet();
  const { data: bench } = useBench();
  const brewer = bench?.brewers.find((b) => b.id === sheet?.sheet.brewerId);
  const pressure = brewer?.pressureUnit ?? household?.pressureUnit ?? 'bar';
  const temperature = brewer?.temperatureUnit ?? household?.temperatureUnit ?? 'degC';
  const force = brewer?.forceUnit ?? household?.forceUnit ?? 'kgf';
  const units = useMemo(() => makeUnits(pressure, temperature, force), [pressure, temperature, force]);
  useEffect(() => sayWith(units.sentence), [units]);
  return createElement(UnitsContext.Provider, { value: units }, children);
}

/** The display units. */
export const useUnits = (): Units => useContext(UnitsContext);

/** A plain number with a dash for what nobody knows. */
export const number = fixed;
