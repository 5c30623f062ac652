import { api, data, type Schemas } from '../api/client';

type Start = Schemas['StartView']['start'];
type Spec = Start['defaults'];

/** Puts a machine on the bench and on the sheet, with what is known of it in the place of its family's; its number. */
export async function addMachine(start: Start, name: string, doseGrams: number, known: Partial<Spec>): Promise<number> {
  const spec = { ...start.defaults, ...known };
  const bench = await data(api.POST('/api/bench/machines', { body: { name: name.trim() || start.name, spec } }));
  const id = Math.max(...bench.machines.map((m) => m.id));
  const sheet = await data(api.GET('/api/prepare'));
  const machine = bench.machines.find((m) => m.id === id)!;
  await data(
    api.PUT('/api/prepare', {
      params: { query: { version: sheet.version } },
      body: {
        // nothing of another machine's sheet goes along but who brews and with what
        ...machine.start,
        brewerId: sheet.sheet.brewerId,
        bagId: sheet.sheet.bagId,
        grinderId: sheet.sheet.grinderId,
        doseGrams,
        yieldGrams: Math.round((doseGrams * start.yieldGrams) / start.doseGrams),
      },
    }),
  );
  return id;
}
