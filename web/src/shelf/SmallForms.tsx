import { fieldDay } from '../shared/clock';
import { Flex, Grid } from '@chakra-ui/react';
import type { Schemas } from '../shared/api/client';
import { useBench, useSchools } from '../shared/api/queries';
import { useChecked } from '../shared/edit/useChecked';
import { NumberField } from '../shared/ui/NumberField';
import { Button, Field, Input, Select } from '../shared/ui/elements';
import { Check } from '../shared/ui/Check';
import * as schemas from './schemas';
import { fewLetters, mostLetters, unitLetters } from '../shared/edit/letters';

const two = { base: 'minmax(0,1fr)', sm: 'minmax(0,1fr) minmax(0,1fr)' };

export interface FormProps<Change, View> {
  start?: View;
  /** What is to be kept: of something new all of it, of something kept what was typed. */
  save: (change: Partial<Change>) => void;
  cancel: () => void;
  wrong: (field: string) => string | undefined;
  /** Takes what is being changed off the shelf. */
  putAway?: () => void;
}

export function Buttons({ what, cancel, putAway }: { what: string; cancel: () => void; putAway?: () => void }) {
  return (
    <Flex gap="2" mt="5" wrap="wrap">
      <Button tone="strong" type="submit">
        Save {what}
      </Button>
      <Button type="button" onClick={cancel}>
        Cancel
      </Button>
      {putAway && (
        <Button type="button" tone="quiet" ms="auto" onClick={putAway}>
          Archive
        </Button>
      )}
    </Flex>
  );
}

const newBag = (): Schemas['BagChange'] => ({
  name: '',
  roaster: '',
  roastedOn: fieldDay(),
  roastLevel: 'medium',
  finished: false,
  process: '',
});

const newGrinder: Schemas['GrinderChange'] = {
  name: '',
  scaleUnit: 'clicks',
  step: 1,
  finerIsLower: true,
  retentionGrams: 0,
  purgeGrams: 0,
};

/** What can be changed of a bag. */
const bagOf = (b: Schemas['BagView']): Schemas['BagChange'] => ({
  name: b.name,
  roaster: b.roaster,
  roastedOn: b.roastedOn,
  roastLevel: b.roastLevel,
  finished: b.finished,
  process: b.process,
  openedOn: b.openedOn,
  frozenOn: b.frozenOn,
  thawedOn: b.thawedOn,
  gramsLeft: b.gramsLeft,
  brewerId: b.brewerId,
});

/** What can be changed of a grinder. */
const grinderOf = (g: Schemas['GrinderView']): Schemas['GrinderChange'] => ({
  name: g.name,
  scaleUnit: g.scaleUnit,
  step: g.step,
  finerIsLower: g.finerIsLower,
  zeroPoint: g.zeroPoint,
  retentionGrams: g.retentionGrams,
  purgeGrams: g.purgeGrams,
});

/** A bag of beans. */
export function BagForm({ start, save, cancel, wrong, putAway }: FormProps<Schemas['BagChange'], Schemas['BagView']>) {
  const { form, submit, problem, set } = useChecked<Schemas['BagChange']>(schemas.bag, start && bagOf(start), newBag());
  const { register, watch } = form;
  const brewers = useBench().data?.brewers ?? [];
  const at = (field: keyof Schemas['BagChange']) => problem(field) ?? wrong(field);
  const date = (label: string, key: 'openedOn' | 'frozenOn' | 'thawedOn', hint?: string) => (
    <Field label={label} problem={at(key)} hint={hint}>
      {(ids) => <Input {...ids} type="date" max={fieldDay()} {...register(key, { setValueAs: (v) => v || null })} />}
    </Field>
  );
  return (
    <form onSubmit={submit(save)}>
      <Grid templateColumns={two} gap="3">
        <Field label="Coffee" problem={at('name')}>
          {(ids) => <Input {...ids} maxLength={mostLetters} {...register('name')} />}
        </Field>
        <Field label="Roaster" problem={at('roaster')}>
          {(ids) => <Input {...ids} maxLength={mostLetters} {...register('roaster')} />}
        </Field>
        {(brewers.length > 1 || at('brewerId')) && (
          <Field label="Belongs to" problem={at('brewerId')}>
            {(ids) => (
              <Select
                {...ids}
                value={watch('brewerId') ?? ''}
                onChange={(e) => set('brewerId', Number(e.target.value) || null)}
              >
                <option value="">everybody&rsquo;s</option>
                {brewers.map((b) => (
                  <option key={b.id} value={b.id}>
                    {b.name}
                  </option>
                ))}
              </Select>
            )}
          </Field>
        )}
        <Field label="Roasted on" problem={at('roastedOn')}>
          {(ids) => <Input {...ids} type="date" max={fieldDay()} {...register('roastedOn')} />}
        </Field>
        <Field label="Roast" problem={at('roastLevel')}>
          {(ids) => (
            <Select {...ids} {...register('roastLevel')}>
              {['light', 'medium', 'dark'].map((r) => (
                <option key={r}>{r}</option>
              ))}
            </Select>
          )}
        </Field>
        <Field label="Process" problem={at('process')}>
          {(ids) => <Input {...ids} maxLength={fewLetters} placeholder="washed, natural" {...register('process')} />}
        </Field>
        <NumberField
          label="Left in the bag"
          unit="g"
          step={5}
          digits={1}
          value={watch('gramsLeft') ?? null}
          problem={at('gramsLeft')}
          hint="Each shot takes its dose off; empty if you do not weigh"
          onChange={(grams) => set('gramsLeft', grams)}
          onClear={() => set('gramsLeft', null)}
        />
        {date('Opened on', 'openedOn')}
        {date('Into the freezer on', 'frozenOn', 'Freezing stops the clock')}
        {date('Out of the freezer on', 'thawedOn')}
        {start && (
          <Check checked={watch('finished')} onChange={(on) => set('finished', on)}>
            Used up
          </Check>
        )}
      </Grid>
      <Buttons what="the bag" cancel={cancel} putAway={putAway} />
    </form>
  );
}

/** A grinder and its scale. */
export function GrinderForm({
  start,
  save,
  cancel,
  wrong,
  putAway,
}: FormProps<Schemas['GrinderChange'], Schemas['GrinderView']>) {
  const { form, submit, problem, set } = useChecked<Schemas['GrinderChange']>(
    schemas.grinder,
    start && grinderOf(start),
    newGrinder,
  );
  const { register, watch } = form;
  const at = (field: keyof Schemas['GrinderChange']) => problem(field) ?? wrong(field);
  return (
    <form onSubmit={submit(save)}>
      <Grid templateColumns={two} gap="3">
        <Field label="Name" problem={at('name')}>
          {(ids) => <Input {...ids} maxLength={mostLetters} {...register('name')} />}
        </Field>
        <Field label="Name of a step" problem={at('scaleUnit')}>
          {(ids) => <Input {...ids} maxLength={unitLetters} {...register('scaleUnit')} />}
        </Field>
        <NumberField
          label="Smallest step"
          value={watch('step')}
          step={0.1}
          digits={2}
          problem={at('step')}
          onChange={(v) => set('step', v)}
        />
        <Field label="Finer is">
          {(ids) => (
            <Select
              {...ids}
              value={watch('finerIsLower') ? 'lower' : 'higher'}
              onChange={(e) => set('finerIsLower', e.target.value === 'lower')}
            >
              <option value="lower">a smaller number</option>
              <option value="higher">a larger number</option>
            </Select>
          )}
        </Field>
        <NumberField
          label="Zero point"
          unit={watch('scaleUnit')}
          step={watch('step') || 1}
          digits={2}
          value={watch('zeroPoint') ?? null}
          problem={at('zeroPoint')}
          hint="Where the burrs just touch"
          onChange={(v) => set('zeroPoint', v)}
          onClear={() => set('zeroPoint', null)}
        />
        <NumberField
          label="Holds back"
          unit="g"
          step={0.1}
          value={watch('retentionGrams')}
          problem={at('retentionGrams')}
          onChange={(v) => set('retentionGrams', v)}
        />
        <NumberField
          label="Purge after another coffee"
          unit="g"
          step={0.5}
          value={watch('purgeGrams')}
          problem={at('purgeGrams')}
          onChange={(v) => set('purgeGrams', v)}
        />
      </Grid>
      <Buttons what="the grinder" cancel={cancel} putAway={putAway} />
    </form>
  );
}

const brewerOf = (b: Schemas['BrewerView']): Schemas['NewBrewer'] => ({
  name: b.name,
  school: b.school,
  pressureUnit: b.pressureUnit,
  temperatureUnit: b.temperatureUnit,
  forceUnit: b.forceUnit,
});

const ownUnits = [
  ['pressureUnit', 'Pressure in', ['bar', 'psi', 'kPa']],
  ['temperatureUnit', 'Temperature in', ['degC', 'degF']],
  ['forceUnit', 'Force in', ['kgf', 'N']],
] as const;

const degrees: Record<string, string> = { degC: '\u00b0C', degF: '\u00b0F' };

/** Somebody who brews, with a school and units of their own where they want them. */
export function BrewerForm({ start, save, cancel, wrong }: FormProps<Schemas['NewBrewer'], Schemas['BrewerView']>) {
  const { data: schools = [] } = useSchools();
  const { form, submit, problem } = useChecked<Schemas['NewBrewer']>(schemas.brewer, start && brewerOf(start), {
    name: '',
  });
  const maybe = { setValueAs: (v: string | null) => v || null };
  return (
    <form onSubmit={submit(save)}>
      <Grid templateColumns={two} gap="3">
        <Field label="Name" problem={problem('name') ?? wrong('name')}>
          {(ids) => <Input {...ids} maxLength={mostLetters} {...form.register('name')} />}
        </Field>
        <Field label="Judges shots by" problem={wrong('school')}>
          {(ids) => (
            <Select {...ids} {...form.register('school', maybe)}>
              <option value="">the household&rsquo;s school</option>
              {schools.map((s) => (
                <option key={s.key} value={s.key}>
                  {s.name}
                </option>
              ))}
            </Select>
          )}
        </Field>
        {ownUnits.map(([key, label, units]) => (
          <Field key={key} label={label} problem={wrong(key)}>
            {(ids) => (
              <Select {...ids} {...form.register(key, maybe)}>
                <option value="">the household&rsquo;s unit</option>
                {units.map((u) => (
                  <option key={u} value={u}>
                    {degrees[u] ?? u}
                  </option>
                ))}
              </Select>
            )}
          </Field>
        ))}
      </Grid>
      <Buttons what="the person" cancel={cancel} />
    </form>
  );
}
