import { Box, Flex, Grid } from '@chakra-ui/react';
import { memo } from 'react';
import { Link } from 'react-router';
import type { Schemas } from '../shared/api/client';
import { Choice } from '../shared/ui/Choice';
import { NumberField } from '../shared/ui/NumberField';
import { Field, H2, Panel, Select } from '../shared/ui/elements';
import { useUnits } from '../shared/units/units';
import { PuckSection } from './PuckSection';
import { wrongIn } from './wrongIn';

type Sheet = Schemas['Sheet'];
type Preparation = Required<Schemas['Preparation']>;

interface Props {
  family: Schemas['MachineFamily'] | undefined;
  baskets: Schemas['BenchView']['baskets'];
  basketId: number | null;
  preparation: Schemas['Preparation'] | null;
  fit: Schemas['PuckFit'] | null;
  holderWord: string;
  problems: readonly Schemas['SheetProblem'][];
  change: (part: Partial<Sheet>) => void;
}

const none: Preparation = { misted: false, stirred: false, tapped: false, tampKgf: null, cover: 'Nothing', bottomless: false };

/** Basket, headspace, and how the puck is prepared. Drawn anew only when one of them changes. */
export const PuckPanel = memo(function PuckPanel(props: Props) {
  const { family, baskets, basketId, preparation, fit, holderWord, problems, change } = props;
  const units = useUnits();
  const prep = { ...none, ...preparation } as Preparation;
  const set = (part: Partial<Preparation>) => change({ preparation: { ...prep, ...part } });
  const force = units.of('kgf');
  const withHolder = family !== 'TwinArmBasket' && family !== 'HandPump';
  const tick = (label: string, key: 'misted' | 'stirred' | 'tapped') => (
    <label style={{ display: 'flex', gap: 8, alignItems: 'center', minHeight: 44 }}>
      <input
        type="checkbox"
        checked={prep[key]}
        onChange={(e) => set({ [key]: e.target.checked })}
        style={{ width: 20, height: 20 }}
      />
      {label}
    </label>
  );
  return (
    <Panel order={3}>
      <H2>Puck</H2>
      <Grid gap="3" templateColumns={{ base: 'minmax(0,1fr)', sm: 'minmax(0,1fr) minmax(0,1fr)' }}>
        <Choice
          label="Basket"
          none={'the machine\u2019s own'}
          options={baskets}
          value={basketId}
          onChange={(basketId) => change({ basketId })}
        />
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
          problem={wrongIn(problems, 'tampKgf')}
          hint={prep.tampKgf === null ? 'empty where nobody weighs it' : undefined}
          onChange={(v) => set({ tampKgf: force.wire(v) })}
          onClear={() => set({ tampKgf: null })}
        />
        {withHolder && (
          <Field label="Holder">
            {(ids) => (
              <Select {...ids} value={String(prep.bottomless)} onChange={(e) => set({ bottomless: e.target.value === 'true' })}>
                <option value="false">with a spout</option>
                <option value="true">bottomless</option>
              </Select>
            )}
          </Field>
        )}
      </Grid>
      <Flex gap="4" rowGap="0" wrap="wrap" mt="2">
        {tick('misted', 'misted')}
        {tick('stirred', 'stirred')}
        {tick('tapped', 'tapped')}
      </Flex>
      {fit && (
        <Flex gap="4" align="center" mt="2">
          <PuckSection fit={fit} cover={prep.cover} />
          <Box flex="1" color={fit.headspace === 'TooMuch' ? 'oxide' : 'text'} role="status">
            {fit.sentence}
          </Box>
        </Flex>
      )}
      <Box fontSize="14px" color="quiet" mt="2">
        {withHolder ? `${holderWord} ` : ''}Schools differ on the tamp; what all agree on is doing it the same each time.{' '}
        {baskets.length === 0 && (
          <Link to="/shelf" style={{ textDecoration: 'underline' }}>
            Add your baskets
          </Link>
        )}
      </Box>
    </Panel>
  );
});
