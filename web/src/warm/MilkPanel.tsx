import { Box, chakra, Grid } from '@chakra-ui/react';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { api, data, sentenceOf, type Schemas } from '../shared/api/client';
import { useSettled } from '../shared/edit/useSettled';
import { Caution, Field, Figure, H2, Notice, Select } from '../shared/ui/elements';
import { NumberField } from '../shared/ui/NumberField';
import { SidePanel } from '../shared/ui/SidePanel';
import { inOurUnits } from '../shared/units/marks';
import { number, useUnits } from '../shared/units/units';
import type { Wants } from './wants';

type DrinkWish = Wants['drinks'][number];

interface Props {
  drinks: readonly DrinkWish[];
  setDrink: (at: number, part: Partial<DrinkWish>) => void;
  close: () => void;
}

const kinds: Record<Schemas['MilkKind'], string> = {
  Whole: 'whole milk',
  Skimmed: 'skimmed milk',
  Oat: 'oat drink',
  Soy: 'soy drink',
  Almond: 'almond drink',
};

const stretches: Record<Schemas['MilkStretch'], string> = {
  None: 'none, hot milk',
  Silky: 'silky, by a third',
  Foamy: 'foamy, by two thirds',
};

const settleMs = 250;

/** The milk of a drink: how much of which, how foamy, and what that takes of this machine. */
export default function MilkPanel({ drinks, setDrink, close }: Props) {
  const units = useUnits();
  const withMilk = drinks.flatMap((d, at) => (d.milkGrams > 0 ? [at] : []));
  const [chosen, setChosen] = useState(withMilk[0] ?? 0);
  const drink = drinks[chosen];
  const order = {
    grams: drink?.milkGrams ?? 0,
    kind: drink?.milk ?? 'Whole',
    stretch: drink?.stretch ?? 'Silky',
    fromC: drink?.milkFromC ?? 4,
    toC: drink?.milkToC ?? null,
  } satisfies Schemas['MilkOrder'];
  // as text, which is equal where the order is
  const settled = useSettled(JSON.stringify(order), settleMs);
  const { data: milk, error } = useQuery({
    queryKey: ['milk', settled],
    queryFn: () => data(api.POST('/api/warm/milk', { body: JSON.parse(settled) as Schemas['MilkOrder'] })),
    placeholderData: keepPreviousData,
    retry: false,
  });
  const degrees = units.of('degC');
  const unit = units.temperature(0).unit;
  const steaming = milk?.steaming;
  return (
    <SidePanel title="Milk" close={close}>
      {withMilk.length > 1 && (
        <Box mb="3">
          <Field label="Drink">
            {(ids) => (
              <Select {...ids} value={chosen} onChange={(e) => setChosen(Number(e.target.value))}>
                {withMilk.map((at) => (
                  <option key={at} value={at}>
                    {drinks[at]!.for || `drink ${at + 1}`}
                  </option>
                ))}
              </Select>
            )}
          </Field>
        </Box>
      )}
      <Grid templateColumns="minmax(0,1fr) minmax(0,1fr)" gap="3">
        <NumberField
          label="Amount"
          unit="g"
          step={10}
          digits={0}
          value={order.grams}
          onChange={(milkGrams) => setDrink(chosen, { milkGrams })}
        />
        <Field label="Which">
          {(ids) => (
            <Select
              {...ids}
              value={order.kind}
              onChange={(e) => setDrink(chosen, { milk: e.target.value as Schemas['MilkKind'] })}
            >
              {Object.entries(kinds).map(([kind, word]) => (
                <option key={kind} value={kind}>
                  {word}
                </option>
              ))}
            </Select>
          )}
        </Field>
        <Field label="Stretch">
          {(ids) => (
            <Select
              {...ids}
              value={order.stretch}
              onChange={(e) => setDrink(chosen, { stretch: e.target.value as Schemas['MilkStretch'] })}
            >
              {Object.entries(stretches).map(([stretch, word]) => (
                <option key={stretch} value={stretch}>
                  {word}
                </option>
              ))}
            </Select>
          )}
        </Field>
        <NumberField
          label="Milk at the start"
          unit={unit}
          step={1}
          digits={0}
          value={degrees.show(order.fromC)}
          onChange={(v) => setDrink(chosen, { milkFromC: units.toCelsius(v) })}
        />
        <NumberField
          label="Milk when ready"
          unit={unit}
          step={1}
          digits={0}
          value={milk ? degrees.show(order.toC ?? milk.endC) : null}
          onChange={(v) => setDrink(chosen, { milkToC: units.toCelsius(v) })}
        />
      </Grid>
      {error && <Notice role="alert">{sentenceOf(error)}</Notice>}
      {milk && (
        <Box mt="4">
          {steaming ? (
            <>
              <H2>What it takes</H2>
              <Grid templateColumns="repeat(3, minmax(0,1fr))" gap="3" mb="2">
                <Figure
                  label="Steam open"
                  value={steaming.seconds === null ? 'too long' : number(steaming.seconds, 0)}
                  unit={steaming.seconds === null ? undefined : 's'}
                  size={24}
                />
                <Figure label="Steam" value={number(steaming.steamGrams, 0)} unit="g" size={24} />
                <Figure label="Heat" value={number(steaming.heatKilojoules, 0)} unit="kJ" size={24} />
                <Figure label="In the jug before" value={number(steaming.volumeMl, 0)} unit="ml" size={24} />
                <Figure label="with its foam" value={number(steaming.stretchedMl, 0)} unit="ml" size={24} />
                <Figure
                  label="Boiler ready again after"
                  value={number(steaming.recoverSeconds, 0)}
                  unit="s"
                  size={24}
                />
              </Grid>
              <Box mb="3">{inOurUnits(steaming.sentence)}</Box>
              <H2>How</H2>
              <chakra.ol ps="5" mb="2" listStyleType="decimal">
                {[...milk.steps, milk.wipe].map((step) => (
                  <chakra.li key={step} mb="1">
                    {inOurUnits(step)}
                  </chakra.li>
                ))}
              </chakra.ol>
              <Caution>{milk.caution}</Caution>
            </>
          ) : (
            <Notice>This machine gives no steam: froth the milk in a separate frother, to the same temperature.</Notice>
          )}
          {milk.about && <Box mt="3">{milk.about}</Box>}
        </Box>
      )}
    </SidePanel>
  );
}
