import { Flex, Grid } from '@chakra-ui/react';
import { useState } from 'react';
import type { Schemas } from '../shared/api/client';
import { NumberField } from '../shared/ui/NumberField';
import { Button, Field, Input, Select } from '../shared/ui/elements';
import { familyNames } from './families';

type Machine = Schemas['Machine'];
interface Props {
  families: readonly Schemas['FamilyView'][];
  start?: Schemas['MachineView'];
  save: (change: Schemas['MachineChange']) => void;
  cancel: () => void;
  wrong: (field: string) => string | undefined;
}

/** A machine: its family and its own numbers, each with the family's as a start. */
export function MachineForm({ families, start, save, cancel, wrong }: Props) {
  const [name, setName] = useState(start?.name ?? '');
  const [spec, setSpec] = useState<Machine>(start?.spec ?? families.find((f) => f.family === 'PortableLever')!.defaults);
  const set = (part: Partial<Machine>) => setSpec((now) => ({ ...now, ...part }));
  const numeric = (label: string, unit: string, key: keyof Machine & string, step: number, digits = 1) => (
    <NumberField
      label={label}
      unit={unit}
      step={step}
      digits={digits}
      value={(spec[key] as number | null) ?? null}
      problem={wrong(key)}
      onChange={(v) => set({ [key]: v ?? 0 })}
    />
  );
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        save({ name, spec });
      }}
    >
      <Grid templateColumns={{ base: 'minmax(0,1fr)', sm: 'minmax(0,1fr) minmax(0,1fr)' }} gap="3">
        <Field label="Family">
          {(ids) => (
            <Select
              {...ids}
              value={spec.family}
              onChange={(e) => setSpec(families.find((f) => f.family === e.target.value)!.defaults)}
            >
              {families.map((f) => (
                <option key={f.family} value={f.family}>
                  {familyNames[f.family]}
                </option>
              ))}
            </Select>
          )}
        </Field>
        <Field label="What you call it" problem={wrong('name')}>
          {(ids) => <Input {...ids} value={name} onChange={(e) => setName(e.target.value)} required maxLength={80} />}
        </Field>
        {numeric('Basket diameter', 'mm', 'basketDiameterMm', 0.5)}
        {numeric(spec.boilerGaugeBar ? 'Water of one stroke' : 'Chamber up to its line', 'ml', 'chamberMl', 1, 0)}
        {numeric('Piston diameter', 'mm', 'pistonDiameterMm', 0.5)}
        {spec.family !== 'HandPump' && numeric('Lever ratio', '', 'leverRatio', 0.1)}
        {spec.family !== 'BoilerSpring' &&
          spec.family !== 'HandPump' &&
          numeric('Force you are willing to use', 'kgf', 'willingForceKgf', 1, 0)}
        {numeric('Water that stays behind', 'g', 'deadWaterGrams', 0.5)}
        {spec.boilerGaugeBar !== null && numeric('Boiler pressure', 'bar', 'boilerGaugeBar', 0.05, 2)}
        {spec.springTopBar !== null && numeric('Spring at the top of its stroke', 'bar', 'springTopBar', 0.1)}
        {spec.springEndBar !== null && numeric('Spring at the end of its stroke', 'bar', 'springEndBar', 0.1)}
        {numeric(
          spec.boilerGaugeBar ? 'Heat capacity of the group' : 'Heat capacity of chamber and piston',
          'J/K',
          'metalHeatCapacity',
          10,
          0,
        )}
      </Grid>
      <Flex gap="2" mt="4">
        <Button tone="strong" type="submit">
          Keep the machine
        </Button>
        <Button type="button" onClick={cancel}>
          Not now
        </Button>
      </Flex>
    </form>
  );
}
