import { Flex } from '@chakra-ui/react';
import type { Schemas } from '../api/client';
import { useUnits } from '../units/units';
import { NumberField } from './NumberField';
import { Field, Select } from './elements';
import { Check } from './Check';

export type Preparation = Required<Schemas['Preparation']>;

const none: Preparation = {
  misted: false,
  stirred: false,
  tapped: false,
  tampKgf: null,
  cover: 'Nothing',
  bottomless: false,
};

/** A preparation with what nobody said as it is usual. */
export const wholePreparation = (preparation: Schemas['Preparation'] | null) =>
  ({ ...none, ...preparation }) as Preparation;

interface Props {
  preparation: Preparation;
  change: (preparation: Preparation) => void;
  tampProblem?: string;
  /** Whether the machine has a holder with a spout or without. */
  withHolder: boolean;
}

/** How a puck was prepared; cells of the grid that it stands in. */
export function PreparationFields({ preparation: prep, change, tampProblem, withHolder }: Props) {
  const force = useUnits().of('kgf');
  const set = (part: Partial<Preparation>) => change({ ...prep, ...part });
  const tick = (label: string, key: 'misted' | 'stirred' | 'tapped') => (
    <Check checked={prep[key]} onChange={(on) => set({ [key]: on })}>
      {label}
    </Check>
  );
  return (
    <>
      <Field label="On the puck">
        {(ids) => (
          <Select {...ids} value={prep.cover} onChange={(e) => set({ cover: e.target.value as Preparation['cover'] })}>
            <option value="Nothing">nothing</option>
            <option value="Screen">metal screen</option>
            <option value="Paper">paper disc</option>
          </Select>
        )}
      </Field>
      <NumberField
        label="Tamp"
        unit={force.unit}
        step={0.5}
        value={prep.tampKgf === null ? null : force.show(prep.tampKgf)}
        problem={tampProblem}
        hint={prep.tampKgf === null ? 'empty where nobody weighs it' : undefined}
        onChange={(v) => set({ tampKgf: force.wire(v) })}
        onClear={() => set({ tampKgf: null })}
      />
      {withHolder && (
        <Field label="Holder">
          {(ids) => (
            <Select
              {...ids}
              value={String(prep.bottomless)}
              onChange={(e) => set({ bottomless: e.target.value === 'true' })}
            >
              <option value="false">with a spout</option>
              <option value="true">bottomless</option>
            </Select>
          )}
        </Field>
      )}
      <Flex gap="4" rowGap="0" wrap="wrap" gridColumn="1 / -1">
        {tick('misted', 'misted')}
        {tick('stirred', 'stirred')}
        {tick('tapped', 'tapped')}
      </Flex>
    </>
  );
}
