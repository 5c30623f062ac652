import { Box, Flex, Grid } from '@chakra-ui/react';
import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { api, data, sentenceOf, type Schemas } from '../shared/api/client';
import { wrongOf } from '../shared/edit/wrongOf';
import { useBench } from '../shared/api/queries';
import { useSettled } from '../shared/edit/useSettled';
import { PredictedChart } from '../shared/plot/PredictedChart';
import { NumberField } from '../shared/ui/NumberField';
import { Button, Field, Figure, Notice, Select, Waiting } from '../shared/ui/elements';
import { number, useUnits } from '../shared/units/units';
import { typedNumber } from '../shared/units/decimals';

type Way = Schemas['AnotherWay'];

const seconds = (value: number) => number(value, 0);

const nothing: Way = { planKey: null, waterC: null, doseGrams: null, yieldGrams: null, grindSetting: null };

/** The puck that was just read, pulled another way: what would come of it, beside what did. */
export function PullAgain({ view }: { view: Schemas['ShotView'] }) {
  const { shot, plan, curves } = view;
  const units = useUnits();
  const queries = useQueryClient();
  const navigate = useNavigate();
  const [way, setWay] = useState<Way>(nothing);
  const asked = useSettled(way, 150);
  const { data: bench } = useBench();
  const { data: answer, error } = useQuery({
    queryKey: ['shot', shot.id, 'again', asked],
    queryFn: () => data(api.POST('/api/shots/{id}/again', { params: { path: { id: shot.id } }, body: asked })),
    placeholderData: keepPreviousData,
    retry: false,
  });
  // what came last stays on the page while a number is out of range
  const [again, setAgain] = useState(answer);
  if (answer && answer !== again) setAgain(answer);
  const use = useMutation({
    mutationFn: () =>
      data(
        api.POST('/api/shots/{id}/again/use', { params: { path: { id: shot.id } }, body: { ...way, waterC: null } }),
      ),
    onSuccess: async (sheet) => {
      queries.setQueryData(['prepare'], sheet);
      await navigate('/prepare');
    },
  });
  const { wrong, elsewhere } = wrongOf(error, [
    'doseGrams',
    'yieldGrams',
    'waterC',
    ...(shot.grindSetting === null ? [] : ['grindSetting']),
  ]);
  const set = (part: Partial<Way>) => setWay((before) => ({ ...before, ...part }));
  const changed = Object.values(way).some((v) => v !== null);
  const temperature = units.temperature(way.waterC ?? shot.waterC ?? 93);
  const keys = bench?.machines.find((m) => m.name === shot.machine)?.planKeys ?? [];
  const suited = bench?.plans.filter((p) => keys.includes(p.key)) ?? [];
  return (
    <Grid gap="3">
      <Grid templateColumns={{ base: 'repeat(2, minmax(0,1fr))', sm: 'repeat(4, minmax(0,1fr))' }} gap="3">
        <NumberField
          label="Dose"
          unit="g"
          step={0.5}
          value={way.doseGrams ?? shot.doseGrams}
          problem={wrong('doseGrams')}
          onChange={(doseGrams) => set({ doseGrams })}
        />
        <NumberField
          label="Yield"
          unit="g"
          step={1}
          value={way.yieldGrams ?? shot.yieldGrams}
          problem={wrong('yieldGrams')}
          onChange={(yieldGrams) => set({ yieldGrams })}
        />
        {shot.grindSetting !== null && (
          <NumberField
            label="Grind"
            unit={shot.scaleUnit}
            step={1}
            value={way.grindSetting ?? shot.grindSetting}
            problem={wrong('grindSetting')}
            onChange={(grindSetting) => set({ grindSetting })}
          />
        )}
        <NumberField
          label="Water at the puck"
          unit={temperature.unit}
          step={1}
          value={typedNumber(temperature.value)}
          problem={wrong('waterC')}
          onChange={(shown) => set({ waterC: units.toCelsius(shown) })}
        />
        <Box gridColumn="span 2">
          <Field label="Plan">
            {(ids) => (
              <Select
                {...ids}
                value={way.planKey ?? plan.key}
                onChange={(e) => set({ planKey: e.target.value === plan.key ? null : e.target.value })}
              >
                {!suited.some((p) => p.key === plan.key) && <option value={plan.key}>{plan.name}</option>}
                {suited.map((p) => (
                  <option key={p.key} value={p.key}>
                    {p.name}
                  </option>
                ))}
              </Select>
            )}
          </Field>
        </Box>
      </Grid>
      {!again ? (
        <Waiting error={error} />
      ) : (
        <>
          <PredictedChart shot={again.shot} yieldGrams={way.yieldGrams ?? shot.yieldGrams} beside={curves} />
          <Box fontSize="13px" color="quiet">
            Thin grey: the shot as it was. {again.shot.reachesYield ? '' : 'This way it falls short of the yield.'}
          </Box>
          <Flex gap="5" wrap="wrap" align="end">
            <Figure
              label="Time (eight in ten)"
              size={22}
              value={`${seconds(again.shot.seconds)} (${seconds(again.shot.secondsLow)}\u2013${seconds(again.shot.secondsHigh)})`}
              unit="s"
            />
            <Figure label="Strength" size={22} value={number(again.shot.strength * 100, 1)} unit="%" />
            <Figure label="Extraction" size={22} value={number(again.shot.extractionShare * 100, 1)} unit="%" />
            <Button tone="strong" disabled={!changed || use.isPending || error !== null} onClick={() => use.mutate()}>
              Use this for the next shot
            </Button>
            <Button disabled={!changed} onClick={() => setWay(nothing)}>
              Reset
            </Button>
          </Flex>
          {way.waterC !== null && (
            <Box fontSize="14px" color="quiet">
              The water is set in Warm, so the next sheet takes all but its temperature.
            </Box>
          )}
        </>
      )}
      {again && elsewhere && <Notice role="alert">{elsewhere}</Notice>}
      {use.error && <Notice role="alert">{sentenceOf(use.error)}</Notice>}
    </Grid>
  );
}
