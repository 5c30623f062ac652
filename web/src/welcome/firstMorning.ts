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
  start: Schemas['StartView']['start'];
  altitude: number;
  reads: readonly Schemas['Reads'][];
  coffee: Coffee;
}

/**
 * Keeps what was answered, and of what an earlier try kept already nothing twice: where the bench stands, its beans and grinder, and last its machine, which begins the first
 * sheet.
 */
export async function firstMorning({ start, altitude, reads, coffee }: Answers): Promise<void> {
  // as they are now: a measured boiling point, or a try that went half way, has changed them
  const household = await data(api.GET('/api/household'));
  const bench = await data(api.GET('/api/bench'));
  const isNew = (name: string, kept: readonly { name: string }[]) =>
    name.trim() !== '' && !kept.some((one) => one.name === name.trim());
  const { name, ambientC, pressureUnit, temperatureUnit, forceUnit } = household;
  if (altitude !== household.altitudeMetres) {
    await data(
      api.PUT('/api/household', {
        params: { query: { version: household.version } },
        body: { name, altitudeMetres: altitude, ambientC, pressureUnit, temperatureUnit, forceUnit },
      }),
    );
  }
  if (isNew(coffee.name, bench.bags)) {
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
  if (isNew(coffee.grinder, bench.grinders)) {
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
