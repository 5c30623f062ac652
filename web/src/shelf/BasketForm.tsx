import { Grid } from '@chakra-ui/react';
import { useState } from 'react';
import type { Schemas } from '../shared/api/client';
import { useDraft } from '../shared/edit/useDraft';
import { NumberField } from '../shared/ui/NumberField';
import { Field, Input, Select } from '../shared/ui/elements';
import { useUnits } from '../shared/units/units';
import { Buttons, type FormProps } from './SmallForms';

type Basket = Required<Schemas['Basket']>;

type Props = FormProps<Schemas['BasketChange'], { name: string; spec: Schemas['Basket'] }>;

const usual: Basket = {
  diameterMm: 51,
  depthMm: 20,
  nominalDoseGrams: 16,
  ridged: true,
  shape: 'Straight',
  restrictorBarS2PerMl2: 0,
  screenMm: 1,
};

// a hole that takes 6 bar at about 1.5 ml/s; its owner can set it otherwise
const usualHole = 2.5;

/** A basket: its sizes, its wall, and whether a small hole gives the back-pressure. */
export function BasketForm({ start, save, cancel, wrong, putAway }: Props) {
  const hole = useUnits().of('bar s\u00b2/ml\u00b2');
  const [name, setName] = useState(start?.name ?? '');
  const { value: spec, typed, set } = useDraft<Basket>({ ...usual, ...start?.spec });
  const size = (
    label: string,
    key: 'diameterMm' | 'depthMm' | 'nominalDoseGrams' | 'screenMm',
    unit: string,
    step: number,
  ) => (
    <NumberField
      label={label}
      unit={unit}
      step={step}
      value={spec[key]}
      problem={wrong(key)}
      onChange={(v) => set({ [key]: v })}
    />
  );
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        save(start ? { ...(name === start.name ? {} : { name }), spec: typed as Basket } : { name, spec });
      }}
    >
      <Grid templateColumns={{ base: 'minmax(0,1fr)', sm: 'minmax(0,1fr) minmax(0,1fr)' }} gap="3" my="2">
        <Field label="Name" problem={wrong('name')}>
          {(ids) => <Input {...ids} maxLength={80} value={name} onChange={(e) => setName(e.target.value)} />}
        </Field>
        {size('Dose it is made for', 'nominalDoseGrams', 'g', 1)}
        {size('Inner diameter', 'diameterMm', 'mm', 0.5)}
        {size('Inner depth', 'depthMm', 'mm', 0.5)}
        <Field label="Wall">
          {(ids) => (
            <Select {...ids} value={spec.shape} onChange={(e) => set({ shape: e.target.value as Basket['shape'] })}>
              <option value="Straight">straight</option>
              <option value="Tapered">tapered</option>
            </Select>
          )}
        </Field>
        <Field label="Ridge">
          {(ids) => (
            <Select {...ids} value={String(spec.ridged)} onChange={(e) => set({ ridged: e.target.value === 'true' })}>
              <option value="true">with a ridge</option>
              <option value="false">without</option>
            </Select>
          )}
        </Field>
        <Field label="Back-pressure">
          {(ids) => (
            <Select
              {...ids}
              value={String(spec.restrictorBarS2PerMl2 > 0)}
              onChange={(e) => set({ restrictorBarS2PerMl2: e.target.value === 'true' ? usualHole : 0 })}
            >
              <option value="false">by the coffee</option>
              <option value="true">by a small hole</option>
            </Select>
          )}
        </Field>
        {size('Screen used with it', 'screenMm', 'mm', 0.1)}
        {spec.restrictorBarS2PerMl2 > 0 && (
          <NumberField
            label="Hole"
            unit={hole.unit}
            step={hole.show(0.5)}
            value={hole.show(spec.restrictorBarS2PerMl2)}
            problem={wrong('restrictorBarS2PerMl2')}
            onChange={(v) => set({ restrictorBarS2PerMl2: hole.wire(v) })}
          />
        )}
      </Grid>
      <Buttons what="the basket" cancel={cancel} putAway={putAway} />
    </form>
  );
}
