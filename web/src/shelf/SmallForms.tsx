import { Flex, Grid } from '@chakra-ui/react';
import { useState } from 'react';
import type { Schemas } from '../shared/api/client';
import { useDraft } from '../shared/edit/useDraft';
import { NumberField } from '../shared/ui/NumberField';
import { Button, Field, Input, Select } from '../shared/ui/elements';
import { Check } from '../shared/ui/Check';

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
    <Flex gap="2" my="3" wrap="wrap">
      <Button tone="strong" type="submit">
        Save {what}
      </Button>
      <Button type="button" onClick={cancel}>
        Not now
      </Button>
      {putAway && (
        <Button type="button" tone="quiet" ms="auto" onClick={putAway}>
          Put it away
        </Button>
      )}
    </Flex>
  );
}

const today = () => new Date().toLocaleDateString('sv-SE');

const newBag = (): Schemas['BagChange'] => ({
  name: '',
  roaster: '',
  roastedOn: today(),
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

/** A bag of beans. */
export function BagForm({ start, save, cancel, wrong, putAway }: FormProps<Schemas['BagChange'], Schemas['BagView']>) {
  const { value: bag, typed, set } = useDraft<Schemas['BagChange']>(start ?? newBag());
  const date = (label: string, key: 'openedOn' | 'frozenOn' | 'thawedOn', hint?: string) => (
    <Field label={label} problem={wrong(key)} hint={hint}>
      {(ids) => (
        <Input
          {...ids}
          type="date"
          value={bag[key] ?? ''}
          max={today()}
          onChange={(e) => set({ [key]: e.target.value || null })}
        />
      )}
    </Field>
  );
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        save(start ? typed : bag);
      }}
    >
      <Grid templateColumns={{ base: 'minmax(0,1fr)', sm: 'minmax(0,1fr) minmax(0,1fr)' }} gap="3">
        <Field label="Coffee" problem={wrong('name')}>
          {(ids) => (
            <Input {...ids} value={bag.name} required maxLength={80} onChange={(e) => set({ name: e.target.value })} />
          )}
        </Field>
        <Field label="Roaster" problem={wrong('roaster')}>
          {(ids) => (
            <Input {...ids} value={bag.roaster} maxLength={80} onChange={(e) => set({ roaster: e.target.value })} />
          )}
        </Field>
        <Field label="Roasted on" problem={wrong('roastedOn')}>
          {(ids) => (
            <Input
              {...ids}
              type="date"
              value={bag.roastedOn}
              required
              max={today()}
              onChange={(e) => set({ roastedOn: e.target.value })}
            />
          )}
        </Field>
        <Field label="Roast" problem={wrong('roastLevel')}>
          {(ids) => (
            <Select {...ids} value={bag.roastLevel} onChange={(e) => set({ roastLevel: e.target.value })}>
              {['light', 'medium', 'dark'].map((r) => (
                <option key={r}>{r}</option>
              ))}
            </Select>
          )}
        </Field>
        <Field label="Process" problem={wrong('process')}>
          {(ids) => (
            <Input
              {...ids}
              value={bag.process ?? ''}
              maxLength={40}
              placeholder="washed, natural"
              onChange={(e) => set({ process: e.target.value })}
            />
          )}
        </Field>
        <NumberField
          label="Left in the bag"
          unit="g"
          step={5}
          digits={1}
          value={bag.gramsLeft ?? null}
          problem={wrong('gramsLeft')}
          hint="Each shot takes its dose off; empty if you do not weigh"
          onChange={(gramsLeft) => set({ gramsLeft })}
          onClear={() => set({ gramsLeft: null })}
        />
        {date('Opened on', 'openedOn')}
        {date('Into the freezer on', 'frozenOn', 'Freezing stops the clock')}
        {date('Out of the freezer on', 'thawedOn')}
        {start && (
          <Check checked={bag.finished} onChange={(on) => set({ finished: on })}>
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
  const { value: grinder, typed, set } = useDraft<Schemas['GrinderChange']>(start ?? newGrinder);
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        save(start ? typed : grinder);
      }}
    >
      <Grid templateColumns={{ base: 'minmax(0,1fr)', sm: 'minmax(0,1fr) minmax(0,1fr)' }} gap="3">
        <Field label="What you call it" problem={wrong('name')}>
          {(ids) => (
            <Input
              {...ids}
              value={grinder.name}
              required
              maxLength={80}
              onChange={(e) => set({ name: e.target.value })}
            />
          )}
        </Field>
        <Field label="A step is called" problem={wrong('scaleUnit')}>
          {(ids) => (
            <Input
              {...ids}
              value={grinder.scaleUnit}
              required
              maxLength={20}
              onChange={(e) => set({ scaleUnit: e.target.value })}
            />
          )}
        </Field>
        <NumberField
          label="Smallest step"
          value={grinder.step}
          step={0.1}
          digits={2}
          problem={wrong('step')}
          onChange={(v) => set({ step: v })}
        />
        <Field label="Finer is">
          {(ids) => (
            <Select
              {...ids}
              value={grinder.finerIsLower ? 'lower' : 'higher'}
              onChange={(e) => set({ finerIsLower: e.target.value === 'lower' })}
            >
              <option value="lower">a smaller number</option>
              <option value="higher">a larger number</option>
            </Select>
          )}
        </Field>
        <NumberField
          label="Zero point"
          unit={grinder.scaleUnit}
          step={grinder.step || 1}
          digits={2}
          value={grinder.zeroPoint ?? null}
          problem={wrong('zeroPoint')}
          hint="Where the burrs just touch"
          onChange={(zeroPoint) => set({ zeroPoint })}
          onClear={() => set({ zeroPoint: null })}
        />
        <NumberField
          label="Holds back"
          unit="g"
          step={0.1}
          value={grinder.retentionGrams ?? 0}
          problem={wrong('retentionGrams')}
          onChange={(v) => set({ retentionGrams: v })}
        />
        <NumberField
          label="Purge after another coffee"
          unit="g"
          step={0.5}
          value={grinder.purgeGrams ?? 0}
          problem={wrong('purgeGrams')}
          onChange={(v) => set({ purgeGrams: v })}
        />
      </Grid>
      <Buttons what="the grinder" cancel={cancel} putAway={putAway} />
    </form>
  );
}

/** A person who brews. */
export function BrewerForm({ start, save, cancel, wrong }: FormProps<Schemas['NewBrewer'], Schemas['BrewerView']>) {
  const [name, setName] = useState(start?.name ?? '');
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        save({ name });
      }}
    >
      <Field label="Name" problem={wrong('name')}>
        {(ids) => <Input {...ids} value={name} required maxLength={80} onChange={(e) => setName(e.target.value)} />}
      </Field>
      <Buttons what="the name" cancel={cancel} />
    </form>
  );
}
