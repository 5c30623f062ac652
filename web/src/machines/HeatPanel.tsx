import { Fold } from '../shared/ui/Fold';
import { Box, Flex, Grid } from '@chakra-ui/react';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { api, data, sentenceOf, type Schemas } from '../shared/api/client';
import { wrongOf } from '../shared/edit/wrongOf';
import { NumberField } from '../shared/ui/NumberField';
import { Button, Field, H2, Notice, Panel, Select } from '../shared/ui/elements';
import { Table } from '../shared/ui/Table';
import { useUnits } from '../shared/units/units';
import { FitChart } from './FitChart';
import { useKeepMachine, type Detail } from './useKeepMachine';
import { toFigures } from '../shared/units/decimals';

type Heat = Schemas['HeatConstants'];

const ofHeated: readonly (keyof Heat)[] = ['bandLowC', 'bandHighC', 'heaterWatts'];
const ofBoiler: readonly (keyof Heat)[] = [
  'boilerGroupWPerK',
  'boilerLossWPerK',
  'boilerVolumeMl',
  'boilerHeightMm',
  'fillGrams',
  'minimumGrams',
  'boilerMetalJPerK',
  'hysteresisBar',
  'steamGramsPerS',
  'passWPerK',
];

const tidy = (value: number) => toFigures(3, value);

/** What the machine's heat goes by, learned from its readings or its family's. */
export function HeatPanel({ machine }: { machine: Detail }) {
  const queries = useQueryClient();
  const units = useUnits();
  const keepMachine = useKeepMachine(machine);
  const [draft, setDraft] = useState<Heat | null>(null);
  const heat = draft ?? machine.heat;
  const one = { params: { path: { id: machine.id } } };
  const fresh = async () => {
    setDraft(null);
    await queries.invalidateQueries();
  };
  const fit = useMutation({
    mutationFn: (keep: boolean) =>
      data(keep ? api.POST('/api/machines/{id}/heat-fit', one) : api.GET('/api/machines/{id}/heat-fit', one)),
    onSuccess: async (view) => {
      if (view.kept) await fresh();
    },
  });
  const reset = useMutation({
    mutationFn: () => data(api.POST('/api/machines/{id}/heat-reset', one)),
    onSuccess: fresh,
  });
  const keep = useMutation({
    mutationFn: (body: Heat) =>
      data(
        api.PUT('/api/machines/{id}/heat', {
          params: { path: { id: machine.id }, query: { version: machine.version } },
          body,
        }),
      ),
    onSuccess: fresh,
  });
  const boiler = machine.spec.boilerGaugeBar !== null && machine.spec.boilerGaugeBar !== undefined;
  const heated = (machine.heat.heaterStepsC?.length ?? 0) > 0;
  const shown: (keyof Heat)[] = [
    'groupAmbientWPerK',
    ...(heated ? (['heaterStepsC'] as const) : []),
    ...(boiler || heated ? ofHeated : []),
    ...(boiler ? ofBoiler : []),
  ];
  const { wrong, elsewhere } = wrongOf(keep.error, shown);
  const set = (part: Partial<Heat>) => {
    keep.reset();
    setDraft({ ...heat, ...part });
  };
  const field = (label: string, wireUnit: string, key: keyof Heat, step: number, digits = 2) => {
    const { unit, show, wire } = units.of(wireUnit);
    return (
      <NumberField
        label={label}
        unit={unit}
        step={step}
        digits={digits}
        value={show(heat[key] as number)}
        problem={wrong(key)}
        onChange={(v) => set({ [key]: wire(v) })}
      />
    );
  };
  const view = fit.data;
  return (
    <Panel>
      <H2>Its heat</H2>
      <Box mb="3">
        {machine.heatIsFamily
          ? 'These are its family\u2019s constants, good to about ' +
            `${units.temperatureStep(machine.heat.spreadK ?? 4).value} ${units.temperature(0).unit}.`
          : machine.heat.fittedReadings
            ? `Learned from ${machine.heat.fittedReadings} readings; good to about ` +
              `${units.temperatureStep(machine.heat.spreadK ?? 4, 1).value} ` +
              `${units.temperature(0).unit}.`
            : 'Set by you.'}{' '}
        {machine.heatReadings > 0
          ? `Its sessions hold ${machine.heatReadings} readings.`
          : 'Every reading entered under Warm can be learned from; four are enough for a start.'}
      </Box>
      <Flex gap="2" wrap="wrap" mb="3">
        <Button onClick={() => fit.mutate(false)} disabled={fit.isPending || machine.heatReadings === 0}>
          Learn from its readings
        </Button>
        {!machine.heatIsFamily && (
          <Button onClick={() => reset.mutate()} disabled={reset.isPending}>
            Reset to its family
          </Button>
        )}
      </Flex>
      {fit.error && <Notice role="alert">{sentenceOf(fit.error)}</Notice>}
      {view && (
        <Box mb="4" aria-live="polite">
          <Box mb="2">{units.sentence(view.sentence)}</Box>
          <Table
            label="Fitted heat constants"
            head={['Constant', 'was', 'fits best', '90 % between']}
            rows={view.constants.map((c) => ({
              key: c.field,
              cells: [`${c.label}, ${c.unit}`, tidy(c.before), tidy(c.value), `${tidy(c.low)} and ${tidy(c.high)}`],
            }))}
          />
          {view.points.length > 1 && (
            <Box mt="3">
              <FitChart points={view.points} xLabel="since the session began, min" yLabel="group, degC" />
            </Box>
          )}
          {view.kept ? (
            <Notice role="status">Saved. The curve under Warm goes by these from now on.</Notice>
          ) : (
            <Button tone="strong" onClick={() => fit.mutate(true)} disabled={fit.isPending}>
              Save constants
            </Button>
          )}
        </Box>
      )}
      <Fold title="All constants">
        <form
          onSubmit={(e) => {
            e.preventDefault();
            if (draft) keep.mutate(draft);
          }}
        >
          <Grid gap="3" mt="3" templateColumns={{ base: 'minmax(0,1fr)', sm: 'minmax(0,1fr) minmax(0,1fr)' }}>
            {(boiler || heated) && field('Band of the group from', 'degC', 'bandLowC', 1, 0)}
            {(boiler || heated) && field('Band of the group to', 'degC', 'bandHighC', 1, 0)}
            {field(boiler ? 'Group to room' : 'Chamber to room', 'W/K', 'groupAmbientWPerK', 0.05)}
            {boiler && field('Boiler to group', 'W/K', 'boilerGroupWPerK', 0.05)}
            {boiler && field('Boiler to room', 'W/K', 'boilerLossWPerK', 0.1)}
            {(boiler || heated) && field('Element', 'W', 'heaterWatts', 50, 0)}
            {(machine.heat.heaterStepsC ?? []).map((_, i) => {
              const { unit, show, wire } = units.of('degC');
              const steps = heat.heaterStepsC ?? [];
              return (
                <NumberField
                  key={i}
                  label={`Heater step ${i + 1}`}
                  unit={unit}
                  step={1}
                  digits={0}
                  value={show(steps[i]!)}
                  problem={wrong('heaterStepsC')}
                  onChange={(v) => set({ heaterStepsC: steps.map((s, n) => (n === i ? wire(v) : s)) })}
                />
              );
            })}
            {boiler && field('Boiler volume', 'ml', 'boilerVolumeMl', 50, 0)}
            {boiler && field('Boiler height inside', 'mm', 'boilerHeightMm', 5, 0)}
            {boiler && field('Cold fill', 'g', 'fillGrams', 20, 0)}
            {boiler && field('Must stay over the element', 'g', 'minimumGrams', 20, 0)}
            {boiler && field('Metal of the boiler', 'J/K', 'boilerMetalJPerK', 100, 0)}
            {boiler && field('Pressurestat difference', 'bar', 'hysteresisBar', 0.01)}
            {boiler && field('Steam through the open valve', 'g/s', 'steamGramsPerS', 0.1)}
            {boiler && field('Passing water to group', 'W/K', 'passWPerK', 0.1)}
            {boiler && (
              <Field label="Joint between boiler and group">
                {(ids) => (
                  <Select
                    {...ids}
                    value={String(heat.insulatingJoint)}
                    onChange={(e) => set({ insulatingJoint: e.target.value === 'true' })}
                  >
                    <option value="false">metal on metal</option>
                    <option value="true">insulating</option>
                  </Select>
                )}
              </Field>
            )}
            {boiler && (
              <Field label="A lit lamp means">
                {(ids) => (
                  <Select
                    {...ids}
                    value={machine.spec.lamp}
                    onChange={(e) =>
                      keepMachine.mutate({
                        spec: { ...machine.spec, lamp: e.target.value as NonNullable<Detail['spec']['lamp']> },
                      })
                    }
                  >
                    <option value="Unknown">not said yet</option>
                    <option value="Heating">it heats</option>
                    <option value="Ready">it is ready</option>
                  </Select>
                )}
              </Field>
            )}
          </Grid>
          {elsewhere && <Notice role="alert">{elsewhere}</Notice>}
          {draft && (
            <Flex gap="2" mt="3">
              <Button tone="strong" type="submit" disabled={keep.isPending}>
                Save the constants
              </Button>
              <Button type="button" onClick={() => setDraft(null)}>
                Discard changes
              </Button>
            </Flex>
          )}
        </form>
      </Fold>
    </Panel>
  );
}
