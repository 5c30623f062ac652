import { Grid } from '@chakra-ui/react';
import { memo } from 'react';
import type { Schemas } from '../shared/api/client';
import { useBench } from '../shared/api/queries';
import { Choice } from '../shared/ui/Choice';
import { Field, Input } from '../shared/ui/elements';
import { Fold } from '../shared/ui/Fold';
import { MoreFilters } from './MoreFilters';
import { moreSet, type LedgerView } from './useLedgerView';

interface Props {
  view: LedgerView;
  change: (part: Partial<LedgerView>) => void;
}

const likings = [2, 3, 4, 5].map((n) => ({ id: n, name: `${n} of 5` }));

/** What shots are looked for by. Drawn apart from the list, so that another page of it does not draw these again. */
export const LedgerFilters = memo(function LedgerFilters({ view, change }: Props) {
  const { data: bench } = useBench();
  // what was put away still has its shots
  const ever = (kind: Schemas['BenchKind'], there: readonly { id: number; name: string }[] = []) => [
    ...there,
    ...(bench?.putAway.filter((t) => t.kind === kind) ?? []),
  ];
  const more = moreSet(view);
  return (
    <>
      <Grid
        templateColumns={{ base: 'minmax(0,1fr) minmax(0,1fr)', md: 'minmax(0,2fr) repeat(3, minmax(0,1fr))' }}
        gap="3"
        mb="3"
      >
        <Field label="Search words, people, coffees">
          {(ids) => (
            <Input {...ids} type="search" value={view.search} onChange={(e) => change({ search: e.target.value })} />
          )}
        </Field>
        <Choice
          label="Machine"
          none="all"
          options={ever('Machines', bench?.machines)}
          value={view.machineId}
          onChange={(id) => change({ machineId: id })}
        />
        <Choice
          label="Beans"
          none="all"
          options={ever('Bags', bench?.bags)}
          value={view.bagId}
          onChange={(id) => change({ bagId: id })}
        />
        <Choice
          label="Liked at least"
          none="any"
          options={likings}
          value={view.minLiking}
          onChange={(id) => change({ minLiking: id })}
        />
      </Grid>
      <Fold title="More filters" note={more > 0 ? `${more} set` : undefined} open={more > 0}>
        <MoreFilters
          view={view}
          change={change}
          brewers={bench?.brewers ?? []}
          grinders={ever('Grinders', bench?.grinders)}
          baskets={ever('Baskets', bench?.baskets)}
        />
      </Fold>
    </>
  );
});
