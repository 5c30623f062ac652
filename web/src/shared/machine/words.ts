import type { Schemas } from '../api/client';

/** What can be read on or beside a machine, in plain words. */
export const readsWords: Record<Schemas['Reads'], string> = {
  Gauge: 'a gauge of the brew pressure',
  Strip: 'a strip on the group',
  Probe: 'a thermometer',
  BoilerGauge: 'a gauge of the boiler',
  Lamp: 'the lamp of the element',
  Scale: 'a scale',
};

/** Where a number comes from. */
export const originWords: Record<Schemas['NumberOrigin'], string> = {
  Family: 'its family\u2019s',
  Owner: 'yours',
  Measured: 'measured',
};
