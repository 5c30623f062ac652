import { Box, Flex, Grid } from '@chakra-ui/react';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState, type ReactNode } from 'react';
import { api, data, Problem, type Schemas } from '../shared/api/client';
import { wrongOf } from '../shared/edit/wrongOf';
import { keepBench, useBench } from '../shared/api/queries';
import { Button, H2, Notice, PageTitle, Panel, Waiting } from '../shared/ui/elements';
import { number } from '../shared/units/units';
import { SidePanel } from '../shared/ui/SidePanel';
import { PutAway } from '../shared/bench/PutAway';
import { RestBar } from './RestBar';
import { Editor } from './Editor';
import * as schemas from './schemas';
import { ownText } from '../shared/units/decimals';
import { inOurUnits } from '../shared/units/marks';

type Bench = Schemas['BenchView'];
export type Editing = { kind: 'bag' | 'grinder' | 'basket' | 'brewer' | 'rest'; id: number | null };

/** What stands on the bench and lies in the cupboard. */
export default function ShelfPage() {
  const queries = useQueryClient();
  const { data: bench, error } = useBench();
  const { data: learned, isFetched: hasLearned } = useQuery({
    queryKey: ['learned'],
    queryFn: () => data(api.GET('/api/bench/learned')),
  });
  const [editing, setEditing] = useState<Editing | null>(null);
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
  const { wrong, elsewhere } = wrongOf(save.error, editing ? fieldsOf(editing.kind) : []);
  const open = (next: Editing | null) => {
    save.reset();
    setEditing(next);
  };
  const form = { wrong, cancel: () => open(null) };

  // what was learned makes rows longer: it comes with them, so that none moves under the finger
  if (!bench || !hasLearned) {
    return (
      <>
        <PageTitle title="Shelf" />
        <Waiting error={error} />
      </>
    );
  }
  return (
    <>
      <PageTitle title="Shelf">Beans, grinders, baskets and people. Prepare takes from here.</PageTitle>
      <Grid templateColumns={{ base: 'minmax(0,1fr)', lg: 'minmax(0,1fr) minmax(0,1fr)' }} gap="4" alignItems="start">
        <Panel>
          <Heading title="Beans" add="Add a bag" onAdd={() => open({ kind: 'bag', id: null })} />
          <Flex fontSize="14px" color="quiet" align="center" gap="2" wrap="wrap">
            <Box flex="1">
              Rested to be best from day {bench.rest.bestFrom} to {bench.rest.bestTo}, as you have set it.
            </Box>
            <Button tone="quiet" onClick={() => open({ kind: 'rest', id: null })}>
              Change the window
            </Button>
          </Flex>
          {bench.bags.length === 0 && <Empty>No beans yet. Add the bag you are drinking.</Empty>}
          {bench.bags.map((b) => (
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
                <Box>{inOurUnits(learned.bags.find((l) => l.bagId === b.id)!.sentence)}</Box>
              )}
              {!b.finished && (
                <Box mt="1">
                  <RestBar
                    rest={bench.rest}
                    days={b.daysFromRoast}
                    id={b.id}
                    label={
                      `${b.daysFromRoast} days of rest; best from day ${bench.rest.bestFrom} to ` +
                      `${bench.rest.bestTo}`
                    }
                  />
                </Box>
              )}
            </Row>
          ))}
        </Panel>
        <Grid gap="4">
          <Panel>
            <Heading title="Grinders" add="Add a grinder" onAdd={() => open({ kind: 'grinder', id: null })} />
            {bench.grinders.length === 0 && <Empty>No grinder yet.</Empty>}
            {bench.grinders.map((g) => (
              <Row key={g.id} title={g.name} onChange={() => open({ kind: 'grinder', id: g.id })}>
                In {g.scaleUnit}, smallest step {ownText(g.step)}; {g.finerIsLower ? 'smaller' : 'larger'} is finer
                {g.zeroPoint === null ? '' : `; burrs touch at ${ownText(g.zeroPoint)}`}
                {g.retentionGrams > 0 ? `; holds back ${ownText(g.retentionGrams)} g` : ''}
                {g.purgeGrams > 0 ? `, purge ${ownText(g.purgeGrams)} g after another coffee` : ''}.
              </Row>
            ))}
          </Panel>
          <Panel>
            <Heading title="Baskets" add="Add a basket" onAdd={() => open({ kind: 'basket', id: null })} />
            {bench.baskets.length === 0 && (
              <Empty>None yet; each machine is taken to have a basket that suits its usual dose.</Empty>
            )}
            {bench.baskets.map((b) => (
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
            ))}
          </Panel>
          <Panel>
            <Heading title="People" add="Add a person" onAdd={() => open({ kind: 'brewer', id: null })} />
            {bench.brewers.length === 0 ? (
              <Empty>Nobody yet; shots can do without.</Empty>
            ) : (
              bench.brewers.map((b) => (
                <Row key={b.id} title={b.name} onChange={() => open({ kind: 'brewer', id: b.id })}>
                  {[
                    b.pressureUnit,
                    b.temperatureUnit === null ? null : b.temperatureUnit === 'degF' ? '\u00b0F' : '\u00b0C',
                    b.forceUnit,
                  ]
                    .filter(Boolean)
                    .join(', ')}
                </Row>
              ))
            )}
          </Panel>
          <PutAway things={bench.putAway.filter((t) => t.kind !== 'Machines')} />
        </Grid>
      </Grid>
      {editing && (
        <SidePanel title={titleOf(editing)} close={() => open(null)} foot={null}>
          {elsewhere && <Notice role="alert">{elsewhere}</Notice>}
          <Editor bench={bench} editing={editing} save={(call) => save.mutate(call)} form={form} />
        </SidePanel>
      )}
    </>
  );
}

/** What the form of a kind shows. */
const fieldsOf = (kind: Editing['kind']) => Object.keys(schemas[kind].shape);

const names: Record<Editing['kind'], string> = {
  bag: 'bag',
  grinder: 'grinder',
  basket: 'basket',
  brewer: 'person',
  rest: 'Rest window',
};

const titleOf = ({ kind, id }: Editing) =>
  kind === 'rest' ? names.rest : `${id === null ? 'Add a' : 'Change the'} ${names[kind]}`;

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
