import { Box, Flex, Grid } from '@chakra-ui/react';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { api, data, sentenceOf, type Schemas } from '../shared/api/client';
import { wrongOf } from '../shared/edit/wrongOf';
import { useAccess } from '../shared/access/access';
import { useHousehold } from '../shared/api/queries';
import { useChecked } from '../shared/edit/useChecked';
import { benchSettings, type BenchSettings } from '../shared/bench/benchSettings';
import { LookAround } from '../shared/bench/LookAround';
import { useHouseholdChange } from '../shared/bench/useHouseholdChange';
import { AboutPanel } from './AboutPanel';
import { KeySettings } from './KeySettings';
import { LightSettings } from './LightSettings';
import * as schemas from './schemas';
import { SettingsTitle } from './SettingsTitle';
import { SchoolSettings } from './SchoolSettings';
import { SoundSettings } from './SoundSettings';
import { WordSettings } from './WordSettings';
import { NumberField } from '../shared/ui/NumberField';
import { Button, Field, Figure, H2, Input, Notice, Panel, Select, Waiting } from '../shared/ui/elements';
import { number, useUnits } from '../shared/units/units';
import { typedNumber } from '../shared/units/decimals';

/** Where the bench stands, which units it speaks, how shots are judged, and what this screen looks and sounds like. */
export default function SettingsPage() {
  const { data: household, error } = useHousehold();
  return (
    <>
      <SettingsTitle title="Settings" />
      {household ? <Form household={household} /> : <Waiting error={error} />}
    </>
  );
}

function Form({ household }: { household: Schemas['HouseholdView'] }) {
  const units = useUnits();
  const now = benchSettings(household);
  const { form, submit, problem, kept, set: type } = useChecked<BenchSettings>(schemas.bench, now, now);
  const { register, watch } = form;
  const { data: access } = useAccess();
  const save = useHouseholdChange(household, (next) => kept(benchSettings(next)));
  const set = (field: 'altitudeMetres' | 'ambientC', value: number) => {
    type(field, value);
    save.reset();
  };
  const fields = ['name', 'altitudeMetres', 'ambientC'] as const;
  const { wrong: refused, elsewhere } = wrongOf(save.error, fields);
  const wrong = (field: (typeof fields)[number]) => problem(field) ?? refused(field);
  const choice = (
    label: string,
    key: 'pressureUnit' | 'temperatureUnit' | 'forceUnit',
    options: Record<string, string>,
  ) => (
    <Field label={label}>
      {(ids) => (
        <Select {...ids} {...register(key, { onChange: save.reset })}>
          {Object.entries(options).map(([value, word]) => (
            <option key={value} value={value}>
              {word}
            </option>
          ))}
        </Select>
      )}
    </Field>
  );
  return (
    <Grid templateColumns={{ base: 'minmax(0,1fr)', lg: 'minmax(0,1fr) minmax(0,1fr)' }} gap="4" alignItems="start">
      <Grid gap="4">
        <Panel>
          <form onSubmit={submit((change) => save.mutate(change))}>
            <H2>The bench</H2>
            <Grid gap="3" templateColumns={{ base: 'minmax(0,1fr)', sm: 'minmax(0,1fr) minmax(0,1fr)' }}>
              <Field label="Name" problem={wrong('name')}>
                {(ids) => <Input {...ids} maxLength={80} {...register('name', { onChange: save.reset })} />}
              </Field>
              <NumberField
                label="Height above sea level"
                unit="m"
                step={10}
                digits={0}
                value={watch('altitudeMetres')}
                problem={wrong('altitudeMetres')}
                hint="The higher, the cooler water boils"
                onChange={(v) => set('altitudeMetres', v)}
              />
              <NumberField
                label="Usual room temperature"
                unit={units.temperature(0).unit}
                step={1}
                digits={0}
                value={units.of('degC').show(watch('ambientC'))}
                problem={wrong('ambientC')}
                onChange={(v) => set('ambientC', units.toCelsius(v))}
              />
              {choice('Pressure in', 'pressureUnit', { bar: 'bar', psi: 'psi', kPa: 'kPa' })}
              {choice('Temperature in', 'temperatureUnit', { degC: '\u00b0C', degF: '\u00b0F' })}
              {choice('Force in', 'forceUnit', { kgf: 'kgf', N: 'N' })}
            </Grid>
            <Box mt="4">
              <Button tone="strong" type="submit" disabled={save.isPending}>
                Save
              </Button>{' '}
              <Box as="span" role="status">
                {save.isSuccess ? 'Saved.' : ''}
              </Box>
            </Box>
            {elsewhere && <Notice role="alert">{elsewhere}</Notice>}
          </form>
        </Panel>
        <SchoolSettings />
        <WordSettings />
      </Grid>
      <Grid gap="4">
        <Panel>
          <H2>What that means</H2>
          <Grid templateColumns="minmax(0,1fr) minmax(0,1fr)" gap="4">
            <Figure
              label="Water boils at"
              value={units.temperature(household.boilingPointC, 1).value}
              unit={units.temperature(0).unit}
              colour="temperatureText"
            />
            <Figure label="Air pressure" value={number(household.atmosphereBar * 1000, 0)} unit="hPa" />
          </Grid>
          <BoilingPoint kept={(next) => kept(benchSettings(next))} />
        </Panel>
        {!household.madeUp && access?.atTheMachine && (
          <Panel>
            <H2>A sample household</H2>
            <Box mb="2">Made up, and kept apart: nothing you do there touches your own bench.</Box>
            <LookAround />
          </Panel>
        )}
        <KeySettings />
        <SoundSettings />
        <LightSettings />
        <AboutPanel />
      </Grid>
    </Grid>
  );
}

/** The height above sea level from a thermometer in a boiling kettle, for those who do not know it. */
function BoilingPoint({ kept }: { kept: (household: Schemas['HouseholdView']) => void }) {
  const queries = useQueryClient();
  const units = useUnits();
  const [text, setText] = useState('');
  const set = useMutation({
    mutationFn: (boilingC: number) => data(api.POST('/api/household/altitude', { body: { boilingC } })),
    onSuccess: async (next) => {
      setText('');
      queries.setQueryData(['household'], next);
      kept(next);
      await queries.invalidateQueries();
    },
  });
  const value = typedNumber(text);
  return (
    <form
      style={{ marginTop: 16 }}
      onSubmit={(e) => {
        e.preventDefault();
        if (value !== null) set.mutate(units.toCelsius(value));
      }}
    >
      <Field
        label="Or measure it: a thermometer in boiling water reads"
        unit={units.temperature(0).unit}
        problem={set.error ? sentenceOf(set.error) : undefined}
      >
        {(ids) => (
          <Flex gap="2">
            <Input
              {...ids}
              inputMode="decimal"
              value={text}
              onChange={(e) => setText(e.target.value)}
              maxWidth="140px"
            />
            <Button type="submit" disabled={set.isPending}>
              Set the height by it
            </Button>
          </Flex>
        )}
      </Field>
      <Box role="status" fontSize="14px" mt="1">
        {set.data ? `That is ${number(set.data.altitudeMetres, 0)} m above sea level.` : ''}
      </Box>
    </form>
  );
}
