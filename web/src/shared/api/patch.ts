import { api, data, type Schemas } from './client';

/** What a change needs to know of the thing it changes. */
interface Thing {
  id: number;
  version: number;
}

const of = ({ id, version }: Thing) => ({ params: { path: { id }, query: { version } } });

/**
 * Changes of things on the bench: only the members that change are sent, as a JSON merge patch. The generated types
 * know whole bodies only,
 * so this is the one place where a part is passed for the whole.
 */
export const patchMachine = (thing: Thing, change: { name?: string; spec?: Partial<Schemas['Machine']> }) =>
  data(api.PATCH('/api/bench/machines/{id}', { ...of(thing), body: change as Schemas['MachineChange'] }));

export const patchBag = (thing: Thing, change: Partial<Schemas['BagChange']>) =>
  data(api.PATCH('/api/bench/bags/{id}', { ...of(thing), body: change as Schemas['BagChange'] }));

export const patchGrinder = (thing: Thing, change: Partial<Schemas['GrinderChange']>) =>
  data(api.PATCH('/api/bench/grinders/{id}', { ...of(thing), body: change as Schemas['GrinderChange'] }));

export const patchBasket = (thing: Thing, change: Partial<Schemas['BasketChange']>) =>
  data(api.PATCH('/api/bench/baskets/{id}', { ...of(thing), body: change as Schemas['BasketChange'] }));

export const patchBrewer = (thing: Thing, change: Partial<Schemas['NewBrewer']>) =>
  data(api.PATCH('/api/bench/brewers/{id}', { ...of(thing), body: change as Schemas['NewBrewer'] }));
