import { api, data, type Schemas } from '../shared/api/client';
import { patchBag, patchBasket, patchBrewer, patchGrinder } from '../shared/api/patch';
import { putAway } from '../shared/bench/PutAway';
import { BasketForm } from './BasketForm';
import { RestForm } from './RestForm';
import type { Editing } from './ShelfPage';
import { BagForm, BrewerForm, GrinderForm } from './SmallForms';

type Bench = Schemas['BenchView'];

interface Props {
  bench: Bench;
  editing: Editing;
  save: (call: () => Promise<Bench>) => void;
  form: { wrong: (field: string) => string | undefined; cancel: () => void };
}

/** The form of what is added or changed. */
export function Editor({ bench, editing: { kind, id }, save, form }: Props) {
  const away = (of: Schemas['BenchKind']) => (id === null ? undefined : () => save(() => putAway(of, id)));
  const of = <T extends { id: number }>(list: readonly T[]) => list.find((one) => one.id === id);
  if (kind === 'bag') {
    const start = of(bench.bags);
    return (
      <BagForm
        {...form}
        start={start}
        save={(change) =>
          save(() =>
            start
              ? patchBag(start, change)
              : data(api.POST('/api/bench/bags', { body: change as Schemas['BagChange'] })),
          )
        }
        putAway={away('Bags')}
      />
    );
  }
  if (kind === 'grinder') {
    const start = of(bench.grinders);
    return (
      <GrinderForm
        {...form}
        start={start}
        save={(change) =>
          save(() =>
            start
              ? patchGrinder(start, change)
              : data(api.POST('/api/bench/grinders', { body: change as Schemas['GrinderChange'] })),
          )
        }
        putAway={away('Grinders')}
      />
    );
  }
  if (kind === 'basket') {
    const start = of(bench.baskets);
    return (
      <BasketForm
        {...form}
        start={start}
        save={(change) =>
          save(() =>
            start
              ? patchBasket(start, change)
              : data(api.POST('/api/bench/baskets', { body: change as Schemas['BasketChange'] })),
          )
        }
        putAway={away('Baskets')}
      />
    );
  }
  if (kind === 'brewer') {
    const start = of(bench.brewers);
    return (
      <BrewerForm
        {...form}
        start={start}
        save={(change) =>
          save(() =>
            start
              ? patchBrewer(start, change)
              : data(api.POST('/api/bench/brewers', { body: change as Schemas['NewBrewer'] })),
          )
        }
      />
    );
  }
  return (
    <RestForm
      {...form}
      start={bench.rest}
      schools={bench.restSchools}
      save={(body) =>
        save(() => data(api.PUT('/api/bench/rest', { params: { query: { version: bench.householdVersion } }, body })))
      }
    />
  );
}
