import { Box, Flex, Grid } from '@chakra-ui/react';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState, type ReactNode } from 'react';
import { api, data, Problem, sentenceOf, type Schemas } from '../shared/api/client';
import { patchBag, patchBasket, patchBrewer, patchGrinder } from '../shared/api/patch';
import { keepBench, useBench } from '../shared/api/queries';
import { Button, H2, Notice, PageTitle, Panel, Waiting } from '../shared/ui/elements';
import { number } from '../shared/units/units';
import { BasketForm } from './BasketForm';
import { putAway, PutAway } from '../shared/bench/PutAway';
import { RestBar } from './RestBar';
import { RestForm } from './RestForm';
import { BagForm, BrewerForm, GrinderForm } from './SmallForms';

type Bench = Schemas['BenchView'];
type Editing = { kind: 'bag' | 'grinder' | 'basket' | 'brewer' | 'rest'; id: number | null } | null;

/** What stands on the bench and lies in the cupboard. */
export default function ShelfPage() {
  const queries = useQueryClient();
  const { data: bench, error } = useBench();
  const learned = useQuery({ queryKey: ['learned'], queryFn: () => data(api.GET('/api/bench/learned')) }).data;
  const [editing, setEditing] = useState<Editing>(null);
  const save = useMutation({
    mutationFn: (call: () => Promise<Bench>) => call(),
    // somebody else was first: what they did is shown under what was typed here
    onError: (error) =>
      error instanceof Problem && error.status === 409 && queries.invalidateQueries({ queryKey: ['bench'] }),
    onSuccess: async (next) => {
      setEditing(null);
      await keepBench(queries, next);
    },
  });
  const wrong = (field: string) => {
    const problem = save.error;
    return problem instanceof Problem && problem.field === field ? problem.message : undefined;
  };
  const open = (next: Editing) => {
    save.reset();
    setEditing(next);
  };
  const form = { wrong, cancel: () => open(null) };
  const is = (kind: NonNullable<Editing>['kind'], id: number | null) => editing?.kind === kind && editing.id === id;

  if (!bench) {
    return (
      <>
        <PageTitle title="Shelf" />
        <Waiting error={error} />
      </>
    );
  }
  const away = (kind: Schemas['BenchKind'], id: number) => save.mutate(() => putAway(kind, id));
  return (
    <>
      <PageTitle title="Shelf">Beans, grinders, baskets and people. Prepare takes from here.</PageTitle>
      {save.error && !(save.error instanceof Problem && save.error.field) && (
        <Notice role="alert">{sentenceOf(save.error)}</Notice>
      )}
      <Grid templateColumns={{ base: 'minmax(0,1fr)', lg: 'minmax(0,1fr) minmax(0,1fr)' }} gap="4" alignItems="start">
        <Panel>
          <Heading title="Beans" add="Add a bag" onAdd={() => open({ kind: 'bag', id: null })} />
          {is('bag', null) && (
            <BagForm
              {...form}
              save={(bag) =>
                save.mutate(() => data(api.POST('/api/bench/bags', { body: bag as Schemas['BagChange'] })))
              }
            />
          )}
          {is('rest', null) ? (
            <RestForm
              {...form}
              start={bench.rest}
              schools={bench.restSchools}
              save={(body) =>
                save.mutate(() =>
                  data(api.PUT('/api/bench/rest', { params: { query: { version: bench.householdVersion } }, body })),
                )
              }
            />
          ) : (
            <Flex fontSize="14px" color="quiet" align="center" gap="2" wrap="wrap">
              <Box flex="1">
                Rested to be best from day {bench.rest.bestFrom} to {bench.rest.bestTo}, as you have set it.
              </Box>
              <Button tone="quiet" onClick={() => open({ kind: 'rest', id: null })}>
                Change the window
              </Button>
            </Flex>
          )}
          {bench.bags.length === 0 && !is('bag', null) && <Empty>No beans yet. Add the bag you are drinking.</Empty>}
          {bench.bags.map((b) =>
            is('bag', b.id) ? (
              <BagForm
                key={b.id}
                {...form}
                start={b}
                save={(change) => save.mutate(() => patchBag(b, change))}
                putAway={() => away('Bags', b.id)}
              />
            ) : (
              <Row
                key={b.id}
                title={`${b.name}${b.finished ? ' (used up)' : ''}`}
                onChange={() => open({ kind: 'bag', id: b.id })}
              >
                {[
                  b.roaster,
                  `${b.roastLevel} roast`,
                  b.process,
                  b.gramsLeft === null ? '' : `${number(b.gramsLeft, 0)} g left`,
                ]
                  .filter(Boolean)
                  .join(', ')}
                . {b.meaning}
                {!b.finished && learned?.bags.find((l) => l.bagId === b.id) && (
                  <Box>{learned.bags.find((l) => l.bagId === b.id)!.sentence}</Box>
                )}
                {!b.finished && (
                  <Box mt="1">
                    <RestBar
                      rest={bench.rest}
                      days={b.daysFromRoast}
                      id={b.id}
                      label={`${b.daysFromRoast} days of rest; best from day ${bench.rest.bestFrom} to ${bench.rest.bestTo}`}
                    />
                  </Box>
                )}
              </Row>
            ),
          )}
        </Panel>
        <Grid gap="4">
          <Panel>
            <Heading title="Grinders" add="Add a grinder" onAdd={() => open({ kind: 'grinder', id: null })} />
            {is('grinder', null) && (
              <GrinderForm
                {...form}
                save={(grinder) =>
                  save.mutate(() =>
                    data(api.POST('/api/bench/grinders', { body: grinder as Schemas['GrinderChange'] })),
                  )
                }
              />
            )}
            {bench.grinders.length === 0 && !is('grinder', null) && <Empty>No grinder yet.</Empty>}
            {bench.grinders.map((g) =>
              is('grinder', g.id) ? (
                <GrinderForm
                  key={g.id}
                  {...form}
                  start={g}
                  save={(change) => save.mutate(() => patchGrinder(g, change))}
                  putAway={() => away('Grinders', g.id)}
                />
              ) : (
                <Row key={g.id} title={g.name} onChange={() => open({ kind: 'grinder', id: g.id })}>
                  In {g.scaleUnit}, smallest step {g.step}; {g.finerIsLower ? 'smaller' : 'larger'} is finer
                  {g.zeroPoint === null ? '' : `; burrs touch at ${g.zeroPoint}`}
                  {g.retentionGrams > 0 ? `; holds back ${g.retentionGrams} g` : ''}
                  {g.purgeGrams > 0 ? `, purge ${g.purgeGrams} g after another coffee` : ''}.
                </Row>
              ),
            )}
          </Panel>
          <Panel>
            <Heading title="Baskets" add="Add a basket" onAdd={() => open({ kind: 'basket', id: null })} />
            {is('basket', null) && (
              <BasketForm
                {...form}
                save={(basket) =>
                  save.mutate(() => data(api.POST('/api/bench/baskets', { body: basket as Schemas['BasketChange'] })))
                }
              />
            )}
            {bench.baskets.length === 0 && !is('basket', null) && (
              <Empty>None yet; each machine is taken to have a basket that suits its usual dose.</Empty>
            )}
            {bench.baskets.map((b) =>
              is('basket', b.id) ? (
                <BasketForm
                  key={b.id}
                  {...form}
                  start={b}
                  save={(change) => save.mutate(() => patchBasket(b, change))}
                  putAway={() => away('Baskets', b.id)}
                />
              ) : (
                <Row key={b.id} title={b.name} onChange={() => open({ kind: 'basket', id: b.id })}>
                  {number(b.spec.diameterMm, 1)} mm wide, {number(b.spec.depthMm, 1)} deep, for{' '}
                  {number(b.spec.nominalDoseGrams, 0)} g; {b.spec.shape === 'Tapered' ? 'tapered' : 'straight'},{' '}
                  {b.spec.ridged ? 'with a ridge' : 'no ridge'}
                  {(b.spec.restrictorBarS2PerMl2 ?? 0) > 0 ? ', a small hole gives the back-pressure' : ''}.
                  {learned?.baskets
                    .filter((l) => l.basketId === b.id)
                    .map((l) => (
                      <Box key={l.grinderId}>
                        {l.factor < 1 ? 'Flows faster' : 'Flows slower'} than the machine&rsquo;s own:{' '}
                        {number(Math.abs(l.factor - 1) * 100, 0)} % in resistance, from {l.shots}{' '}
                        {l.shots === 1 ? 'shot' : 'shots'}.
                      </Box>
                    ))}
                </Row>
              ),
            )}
          </Panel>
          <Panel>
            <Heading title="People" add="Add a person" onAdd={() => open({ kind: 'brewer', id: null })} />
            {is('brewer', null) && (
              <BrewerForm
                {...form}
                save={(person) =>
                  save.mutate(() => data(api.POST('/api/bench/brewers', { body: person as Schemas['NewBrewer'] })))
                }
              />
            )}
            {bench.brewers.length === 0 ? (
              <Empty>Nobody yet; shots can do without.</Empty>
            ) : (
              bench.brewers.map((b) =>
                is('brewer', b.id) ? (
                  <BrewerForm
                    key={b.id}
                    {...form}
                    start={b}
                    save={(change) => save.mutate(() => patchBrewer(b, change))}
                  />
                ) : (
                  <Row key={b.id} title={b.name} onChange={() => open({ kind: 'brewer', id: b.id })} />
                ),
              )
            )}
          </Panel>
          <PutAway things={bench.putAway.filter((t) => t.kind !== 'Machines')} />
        </Grid>
      </Grid>
    </>
  );
}

const Empty = ({ children }: { children: ReactNode }) => <Box color="quiet">{children}</Box>;

function Heading({ title, add, onAdd }: { title: string; add: string; onAdd: () => void }) {
  return (
    <Flex justify="space-between" align="center" mb="2">
      <H2 mb="0">{title}</H2>
      <Button onClick={onAdd}>{add}</Button>
    </Flex>
  );
}

function Row({ title, children, onChange }: { title: string; children?: ReactNode; onChange: () => void }) {
  return (
    <Flex gap="3" py="2" borderTopWidth="1px" borderColor="hairline" align="center">
      <Box flex="1" minWidth={0}>
        <Box fontWeight={650}>{title}</Box>
        <Box fontSize="14px" color="quiet">
          {children}
        </Box>
      </Box>
      <Button tone="quiet" onClick={onChange} aria-label={`Change ${title}`}>
        Change
      </Button>
    </Flex>
  );
}
