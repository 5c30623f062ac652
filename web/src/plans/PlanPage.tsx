import { Box, Flex, Grid } from '@chakra-ui/react';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import { api, data, sentenceOf, type Schemas } from '../shared/api/client';
import { wrongOf } from '../shared/edit/wrongOf';
import { useBench } from '../shared/api/queries';
import { Column, Columns } from '../shared/ui/Columns';
import { NumberField } from '../shared/ui/NumberField';
import {
  Button,
  Field,
  Figure,
  H2,
  Input,
  Notice,
  PageTitle,
  Panel,
  Select,
  Textarea,
  Waiting,
} from '../shared/ui/elements';
import { number, useUnits } from '../shared/units/units';
import { useSheetEditor } from '../shared/sheet/useSheetEditor';
import { PhaseFields } from './PhaseFields';
import { PlanChart } from './PlanChart';
import { whole, type Plan } from './planWords';
import { usePlanPreview } from './usePlanPreview';
import { TextLink } from '../shared/ui/TextLink';

/** One plan: looked at as it would run, changed, kept, passed on. */
export default function PlanPage() {
  const { key } = useParams();
  const { data: bench, error } = useBench();
  const start = bench?.plans.find((p) => p.key === key);
  if (!bench) return <Waiting error={error} />;
  if (!start) return <Gone planKey={key!} />;
  return <Editor key={start.key} start={start} bench={bench} />;
}

function Gone({ planKey }: { planKey: string }) {
  const queries = useQueryClient();
  const own = /^own-(\d+)$/.exec(planKey)?.[1];
  const restore = useMutation({
    mutationFn: () => data(api.POST('/api/plans/{id}/restore', { params: { path: { id: Number(own) } } })),
    onSuccess: () => queries.invalidateQueries({ queryKey: ['bench'] }),
  });
  return (
    <>
      <PageTitle title="Pull plan" />
      <Notice role="status">{own ? 'This plan was deleted.' : 'There is no such plan.'}</Notice>
      <Flex gap="3" mt="3" align="center">
        {own && <Button onClick={() => restore.mutate()}>Restore</Button>}
        <TextLink to="/plans">All plans</TextLink>
      </Flex>
    </>
  );
}

function Editor({ start, bench }: { start: Plan; bench: Schemas['BenchView'] }) {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const units = useUnits();
  const own = /^own-(\d+)$/.exec(start.key)?.[1];
  const { sheet, change: changeSheet, settle } = useSheetEditor();
  const [plan, setPlan] = useState<Plan>(own ? start : { ...start, name: `${start.name}, mine` });
  const [selected, setSelected] = useState(0);
  const [otherKey, setOtherKey] = useState('');
  // the plan as it was opened: what another screen made of it since is told, not overwritten
  const [version] = useState(() => bench.planVersions.find((p) => p.id === Number(own))?.version ?? 0);
  const view = usePlanPreview(plan);
  const other = bench.plans.find((p) => p.key === otherKey) ?? null;
  const otherView = usePlanPreview(other);
  const changed = JSON.stringify(plan) !== JSON.stringify(start);
  const machine = bench.machines.find((m) => m.id === sheet?.machineId);

  const keep = useMutation({
    mutationFn: (copy: boolean) =>
      data(
        own && !copy
          ? api.PUT('/api/plans/{id}', { params: { path: { id: Number(own) }, query: { version } }, body: plan })
          : api.POST('/api/plans', {
              body: { ...plan, families: machine ? [machine.spec.family] : (plan.families ?? null) },
            }),
      ),
    onSuccess: async (kept) => {
      await queries.invalidateQueries();
      await navigate(`/plans/${kept.plan.key}`);
    },
  });
  const bin = useMutation({
    mutationFn: () => data(api.DELETE('/api/plans/{id}', { params: { path: { id: Number(own) } } })),
    onSuccess: () => queries.invalidateQueries(),
  });

  const fields = ['name', 'why', 'bandBar', 'lands'] as const;
  const [drawing, keeping] = [wrongOf(view.error, fields), wrongOf(keep.error, fields)];
  const wrong = (field: (typeof fields)[number]) => drawing.wrong(field) ?? keeping.wrong(field);
  const shown = view.data;
  const lands = plan.lands ?? shown?.lands ?? { low: 31, best: 37, high: 44 };
  const problems = view.error ? [] : (shown?.preview.problems ?? []);
  const set = (part: Partial<Plan>) => setPlan((now) => ({ ...now, ...part }));
  return (
    <>
      <PageTitle
        title="Pull plan"
        aside={
          <Flex gap="2" wrap="wrap" align="center">
            <TextLink to="/plans" padding="10px">
              All plans
            </TextLink>
            {machine?.planKeys.includes(start.key) && !changed && (
              <Button
                onClick={async () => {
                  changeSheet({ planKey: start.key });
                  if ((await settle()) !== null) await navigate('/prepare');
                }}
              >
                Use it
              </Button>
            )}
            <Button
              tone="strong"
              disabled={keep.isPending || view.error !== null || (own ? !changed : false)}
              onClick={() => keep.mutate(false)}
            >
              {own ? 'Save the changes' : 'Save as my own'}
            </Button>
          </Flex>
        }
      >
        {shown
          ? `As it would run on ${shown.machineName} with ${number(shown.doseGrams, 1)} g to ` +
            `${number(shown.yieldGrams, 0)} g, on the puck that is expected.`
          : 'As it would run with the sheet as it stands.'}
      </PageTitle>
      {keeping.elsewhere && <Notice role="alert">{keeping.elsewhere}</Notice>}
      <Columns widths={[7, 5]}>
        <Column>
          <Panel order={1}>
            {view.error && (
              <Box mb="2">
                <Notice role="alert">{sentenceOf(view.error)} What you typed is kept.</Notice>
              </Box>
            )}
            {!shown && !view.error && <Waiting />}
            {shown && (
              <>
                <PlanChart
                  plan={plan}
                  preview={shown.preview}
                  lands={lands}
                  other={
                    other && otherView.data?.plan.key === other.key
                      ? { name: other.name, preview: otherView.data.preview }
                      : null
                  }
                  yieldGrams={shown.yieldGrams}
                  selected={selected}
                  select={setSelected}
                  move={(i, phase) => set({ phases: plan.phases.map((p, n) => (n === i ? phase : whole(p))) })}
                />
                <Flex gap="6" wrap="wrap" mt="3" align="flex-end">
                  <Figure
                    label={shown.preview.reachedYield ? 'To the yield' : 'Given up after'}
                    value={number(shown.preview.seconds, 0)}
                    unit="s"
                    note={`lands between ${number(lands.low, 0)} and ${number(lands.high, 0)}`}
                  />
                  <Figure label="First drops" value={number(shown.preview.firstDropsSeconds, 0)} unit="s" />
                  <Box flex="1 1 200px">
                    <Field label="Compare with">
                      {(ids) => (
                        <Select {...ids} value={otherKey} onChange={(e) => setOtherKey(e.target.value)}>
                          <option value="">nothing</option>
                          {bench.plans
                            .filter((p) => p.key !== start.key)
                            .map((p) => (
                              <option key={p.key} value={p.key}>
                                {p.name}
                                {otherView.data?.plan.key === p.key && p.key === otherKey
                                  ? `, ${number(otherView.data.preview.seconds, 0)} s`
                                  : ''}
                              </option>
                            ))}
                        </Select>
                      )}
                    </Field>
                  </Box>
                </Flex>
              </>
            )}
          </Panel>
          <Panel order={3}>
            <H2>What it is</H2>
            <Grid gap="3">
              <Field label="Name" problem={wrong('name')}>
                {(ids) => (
                  <Input {...ids} maxLength={60} value={plan.name} onChange={(e) => set({ name: e.target.value })} />
                )}
              </Field>
              <Field label="Why you pull this way" problem={wrong('why')}>
                {(ids) => (
                  <Textarea
                    {...ids}
                    rows={3}
                    maxLength={400}
                    value={plan.why}
                    onChange={(e) => set({ why: e.target.value })}
                  />
                )}
              </Field>
              <Grid gap="3" templateColumns={{ base: 'minmax(0,1fr)', sm: 'repeat(2, minmax(0,1fr))' }}>
                <NumberField
                  label="On plan within"
                  unit={`\u00b1${units.pressureUnit}`}
                  step={0.1}
                  value={units.of('bar').show(plan.bandBar)}
                  problem={wrong('bandBar')}
                  onChange={(v) => set({ bandBar: units.of('bar').wire(v) })}
                />
                <NumberField
                  label="Lands from"
                  unit="s"
                  step={1}
                  value={lands.low}
                  problem={wrong('lands')}
                  onChange={(v) => set({ lands: { ...lands, low: v } })}
                />
                <NumberField
                  label="Best at"
                  unit="s"
                  step={1}
                  value={lands.best}
                  onChange={(v) => set({ lands: { ...lands, best: v } })}
                />
                <NumberField
                  label="Lands to"
                  unit="s"
                  step={1}
                  value={lands.high}
                  onChange={(v) => set({ lands: { ...lands, high: v } })}
                />
              </Grid>
            </Grid>
            <Flex gap="2" wrap="wrap" mt="3" align="center">
              <Button asChild tone="quiet">
                <a href={`/api/plans/${start.key}/file`} download>
                  Save as a file
                </a>
              </Button>
              {own && (
                <>
                  <Button tone="quiet" onClick={() => keep.mutate(true)}>
                    Copy it
                  </Button>
                  <Button tone="quiet" onClick={() => bin.mutate()}>
                    Delete the plan
                  </Button>
                </>
              )}
              {changed && own && (
                <Button tone="quiet" onClick={() => setPlan(start)}>
                  Cancel
                </Button>
              )}
            </Flex>
          </Panel>
        </Column>
        <Column>
          <Panel order={2}>
            <H2>What the arm does</H2>
            <PhaseFields
              plan={plan}
              hasBoiler={machine?.spec.boilerGaugeBar !== null && machine?.spec.boilerGaugeBar !== undefined}
              selected={selected}
              select={setSelected}
              change={(phases) => set({ phases })}
              arm={shown?.preview.arm ?? []}
              problem={(i) => problems.find((p) => p.phase === i)?.sentence}
            />
          </Panel>
        </Column>
      </Columns>
    </>
  );
}
