import { fieldDay } from '../shared/clock';
import { api, data, type Schemas } from '../shared/api/client';
import { addMachine } from '../shared/bench/addMachine';

/** First beans and grinder; both can be left out. */
export interface Coffee {
  name: string;
  roastedOn: string;
  roastLevel: string;
  grinder: string;
  scaleUnit: string;
  finerIsLower: boolean;
}

export const nothingYet: Coffee = {
  name: '',
  roastedOn: '',
  roastLevel: 'medium',
  grinder: '',
  scaleUnit: 'clicks',
  finerIsLower: true,
};

interface Answers {
  household: Schemas['HouseholdView'];
  start: Schemas['StartView']['start'];
  altitude: number;
  reads: readonly Schemas['Reads'][];
  coffee: Coffee;
}

/**
 * Keeps what was answered: where the bench stands, its beans and grinder, and last its machine, which begins the first
 * sheet.
 */
export async function firstMorning({ household, start, altitude, reads, coffee }: Answers): Promise<void> {
  const { name, ambientC, pressureUnit, temperatureUnit, forceUnit } = household;
  if (altitude !== household.altitudeMetres) {
    await data(
      api.PUT('/api/household', {
        params: { query: { version: household.version } },
        body: { name, altitudeMetres: altitude, ambientC, pressureUnit, temperatureUnit, forceUnit },
      }),
    );
  }
  if (coffee.name.trim() !== '') {
    await data(
      api.POST('/api/bench/bags', {
        body: {
          name: coffee.name,
          roaster: '',
          roastedOn: coffee.roastedOn || fieldDay(),
          roastLevel: coffee.roastLevel,
          finished: false,
          process: '',
        },
      }),
    );
  }
  if (coffee.grinder.trim() !== '') {
    await data(
      api.POST('/api/bench/grinders', {
        body: {
          name: coffee.grinder,
          scaleUnit: coffee.scaleUnit || 'clicks',
          step: 1,
          finerIsLower: coffee.finerIsLower,
          retentionGrams: 0,
          purgeGrams: 0,
        },
      }),
    );
  }
  await addMachine(start, '', start.doseGrams, { reads: [...reads] });
}
