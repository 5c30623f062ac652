import { Box, Flex, Grid } from '@chakra-ui/react';
import { useMemo } from 'react';
import { mostLetters } from '../shared/edit/letters';
import { wrongOf } from '../shared/edit/wrongOf';
import { useChecked } from '../shared/edit/useChecked';
import { NumberField } from '../shared/ui/NumberField';
import { Fold } from '../shared/ui/Fold';
import { Button, Field, H2, Input, Notice, Panel } from '../shared/ui/elements';
import { useUnits } from '../shared/units/units';
import { machine as schemaOf, type TypedMachine } from './schemas';
import { useKeepMachine, type Detail } from './useKeepMachine';
import { ReadsChoice } from '../shared/machine/ReadsChoice';
import { originWords } from '../shared/machine/words';
import { toFigures } from '../shared/units/decimals';

const tidy = (value: number) => toFigures(4, value);

const groups: [Detail['numbers'][number]['group'], string][] = [
  ['CoffeeAndWater', 'Coffee and water'],
  ['Pressure', 'How pressure is made'],
];

/** Every number of the machine with where it comes from, its family's value and its range. */
export function NumbersPanel({ machine }: { machine: Detail }) {
  const now: TypedMachine = { ...machine.spec, name: machine.name };
  const schema = useMemo(() => schemaOf(machine.numbers), [machine.numbers]);
  const { form, submit, changed: typedAny, problem, kept, keptAs, set } = useChecked<TypedMachine>(schema, now, now);
  const spec = form.watch();
  const keep = useKeepMachine(machine);
  const units = useUnits();
  const changed = typedAny || machine.problem !== null;
  const { wrong: refused, elsewhere } = wrongOf(keep.error, ['name', ...machine.numbers.map((n) => n.field)]);
  const wrong = (field: string) => problem(field as keyof TypedMachine) ?? refused(field);
  const reads = spec.reads ?? [];
  const boiler = machine.spec.boilerGaugeBar !== null && machine.spec.boilerGaugeBar !== undefined;
  const numberField = (n: Detail['numbers'][number]) => {
    const { unit, show, wire } = units.of(n.unit);
    return (
      <NumberField
        key={n.field}
        label={n.label}
        unit={unit || undefined}
        step={stepOf(show(Math.max(Math.abs(n.familyValue), (n.max - n.min) / 100)))}
        digits={show(n.max) <= 2 ? 3 : 2}
        value={show((spec[n.field as keyof TypedMachine] as number | null) ?? 0)}
        problem={wrong(n.field)}
        hint={whence(n, show)}
        onChange={(v) => set(n.field as keyof TypedMachine, wire(v))}
      />
    );
  };
  const grid = (these: readonly Detail['numbers'][number][]) => (
    <Grid gap="3" templateColumns={{ base: 'minmax(0,1fr)', sm: 'repeat(3, minmax(0,1fr))' }}>
      {these.map(numberField)}
    </Grid>
  );
  return (
    <Panel>
      <form
        onSubmit={submit((change, all) => {
          // what cannot be read is set again as a whole
          const { name, ...spec } = machine.problem === null ? change : all;
          keep.mutate({ ...(name === undefined ? {} : { name }), spec }, { onSuccess: () => keptAs(all) });
        })}
      >
        <H2 srOnly>Its numbers</H2>
        <Grid gap="3" templateColumns={{ base: 'minmax(0,1fr)', sm: 'minmax(0,1fr) minmax(0,1fr)' }}>
          <Box gridColumn={{ sm: '1 / -1' }}>
            <Field label="Name" problem={wrong('name')}>
              {(ids) => <Input {...ids} maxLength={mostLetters} {...form.register('name')} />}
            </Field>
          </Box>
        </Grid>
        {groups.map(([group, title]) => {
          const these = machine.numbers.filter((n) => n.group === group);
          return these.length === 0 ? null : (
            <Box key={group} mt="4">
              <Box fontWeight={650} mb="2">
                {title}
              </Box>
              {grid(these)}
            </Box>
          );
        })}
        <Fold
          title="Rarely changed"
          open={machine.numbers.some((n) => n.group === 'Rare' && wrong(n.field) !== undefined)}
        >
          {grid(machine.numbers.filter((n) => n.group === 'Rare'))}
        </Fold>
        <Box mt="4">
          <ReadsChoice
            legend="What you can read"
            boiler={boiler}
            value={reads}
            onChange={(reads) => set('reads', reads)}
          />
        </Box>
        {elsewhere && <Notice role="alert">{elsewhere}</Notice>}
        <Flex gap="2" mt="3">
          <Button tone={changed ? 'strong' : 'plain'} type="submit" disabled={!changed || keep.isPending}>
            Save the numbers
          </Button>
          {changed && (
            <Button
              type="button"
              onClick={() => {
                kept(now);
                keep.reset();
              }}
            >
              Cancel
            </Button>
          )}
        </Flex>
      </form>
    </Panel>
  );
}

/** A step of a field: about a fiftieth of its usual size, in round numbers. */
function stepOf(size: number): number {
  return 10 ** Math.round(Math.log10(size / 50));
}

/** Where a number comes from, what its family has, and how far it may go. */
function whence(n: Detail['numbers'][number], show: (value: number) => number): string {
  const sure = n.plusMinus === null ? '' : `, \u00b1${tidy(show(n.plusMinus))}`;
  const origin = n.origin === 'Measured' ? `measured by ${n.way}${sure}` : originWords[n.origin];
  const family = n.origin === 'Family' ? '' : `; its family ${tidy(show(n.familyValue))}`;
  return `${origin}${family}; ${tidy(show(n.min))} to ${tidy(show(n.max))}`;
}
