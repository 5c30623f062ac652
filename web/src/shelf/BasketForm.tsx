import { Grid } from '@chakra-ui/react';
import type { Schemas } from '../shared/api/client';
import { useChecked } from '../shared/edit/useChecked';
import { NumberField } from '../shared/ui/NumberField';
import { Field, Input, Select } from '../shared/ui/elements';
import { useUnits } from '../shared/units/units';
import * as schemas from './schemas';
import { Buttons, type FormProps } from './SmallForms';
import { mostLetters } from '../shared/edit/letters';

type Basket = Required<Schemas['Basket']>;
type Typed = Basket & { name: string };

type Props = FormProps<Schemas['BasketChange'], { name: string; spec: Schemas['Basket'] }>;

const usual: Typed = {
  name: '',
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
  const { form, submit, problem, set } = useChecked<Typed>(
    schemas.basket,
    start && { ...usual, ...start.spec, name: start.name },
    usual,
  );
  const { register, watch } = form;
  const at = (field: keyof Typed) => problem(field) ?? wrong(field);
  const restrictor = watch('restrictorBarS2PerMl2');
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
      value={watch(key)}
      problem={at(key)}
      onChange={(v) => set(key, v)}
    />
  );
  return (
    <form
      onSubmit={submit(({ name, ...spec }) => save({ ...(name === undefined ? {} : { name }), spec: spec as Basket }))}
    >
      <Grid templateColumns={{ base: 'minmax(0,1fr)', sm: 'minmax(0,1fr) minmax(0,1fr)' }} gap="3" my="2">
        <Field label="Name" problem={at('name')}>
          {(ids) => <Input {...ids} maxLength={mostLetters} {...register('name')} />}
        </Field>
        {size('Dose it is made for', 'nominalDoseGrams', 'g', 1)}
        {size('Inner diameter', 'diameterMm', 'mm', 0.5)}
        {size('Inner depth', 'depthMm', 'mm', 0.5)}
        <Field label="Wall">
          {(ids) => (
            <Select {...ids} {...register('shape')}>
              <option value="Straight">straight</option>
              <option value="Tapered">tapered</option>
            </Select>
          )}
        </Field>
        <Field label="Ridge">
          {(ids) => (
            <Select {...ids} value={String(watch('ridged'))} onChange={(e) => set('ridged', e.target.value === 'true')}>
              <option value="true">with a ridge</option>
              <option value="false">without</option>
            </Select>
          )}
        </Field>
        <Field label="Back-pressure">
          {(ids) => (
            <Select
              {...ids}
              value={String(restrictor > 0)}
              onChange={(e) => set('restrictorBarS2PerMl2', e.target.value === 'true' ? usualHole : 0)}
            >
              <option value="false">by the coffee</option>
              <option value="true">by a small hole</option>
            </Select>
          )}
        </Field>
        {size('Screen used with it', 'screenMm', 'mm', 0.1)}
        {restrictor > 0 && (
          <NumberField
            label="Hole"
            unit={hole.unit}
            step={hole.show(0.5)}
            value={hole.show(restrictor)}
            problem={at('restrictorBarS2PerMl2')}
            onChange={(v) => set('restrictorBarS2PerMl2', hole.wire(v))}
          />
        )}
      </Grid>
      <Buttons what="the basket" cancel={cancel} putAway={putAway} />
    </form>
  );
}
