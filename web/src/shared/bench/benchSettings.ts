import type { Schemas } from '../api/client';

/** What the bench is called, where it stands and which units it speaks. */
export type BenchSettings = Omit<Schemas['HouseholdChange'], 'school' | 'tasteWords'>;

/** Those of a household. */
export const benchSettings = (household: Schemas['HouseholdView']): BenchSettings => ({
  name: household.name,
  altitudeMetres: household.altitudeMetres,
  ambientC: household.ambientC,
  pressureUnit: household.pressureUnit,
  temperatureUnit: household.temperatureUnit,
  forceUnit: household.forceUnit,
});
