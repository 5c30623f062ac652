import { Box, Flex, Grid } from '@chakra-ui/react';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { api, data, type Schemas } from '../shared/api/client';
import { wrongOf } from '../shared/edit/wrongOf';
import { momentOf } from '../shared/clock';
import { NumberField } from '../shared/ui/NumberField';
import { TextLink } from '../shared/ui/TextLink';
import { Button, Field, H2, Notice, PageTitle, Panel, Select, Waiting } from '../shared/ui/elements';
import { useUnits } from '../shared/units/units';
import { ladderName, ladderWords, type LadderOf } from './ladderWords';

/** Blind ladders: one coffee in some cups that differ in one thing, tasted without knowing which is which. */
export default function LaddersPage() {
  const { data: ladders, error } = useQuery({ queryKey: ['ladders'], queryFn: () => data(api.GET('/api/ladders')) });
  return (
    <>
      <PageTitle title="Blind ladders">
        One coffee in a few cups that differ in one thing. You put them in order by taste, without knowing; then the app
        says how well, and whether luck would have done as well.
      </PageTitle>
      <Grid templateColumns={{ base: 'minmax(0,1fr)', lg: 'minmax(0,5fr) minmax(0,6fr)' }} gap="4" alignItems="start">
        <PlanLadder />
        <Panel>
          <H2>Ladders so far</H2>
          {!ladders ? (
            <Waiting error={error} />
          ) : ladders.length === 0 ? (
            <Box color="quiet">The first one you plan appears here, with its result.</Box>
          ) : (
            <Grid as="ul" gap="2" listStyleType="none" p="0" m="0">
              {ladders.map((ladder) => (
                <Box as="li" key={ladder.id}>
                  <TextLink to={`/ladders/${ladder.id}`}>{ladderName(ladder)}</TextLink>
                  <Box fontSize="14px" color="quiet">
                    {momentOf(ladder.createdAt)}. {ladder.score ? ladder.score.sentence : 'Not uncovered yet.'}
                  </Box>
                </Box>
              ))}
            </Grid>
          )}
        </Panel>
      </Grid>
    </>
  );
}

function PlanLadder() {
  const units = useUnits();
  const queries = useQueryClient();
  const navigate = useNavigate();
  const [of, setOf] = useState<LadderOf>('Temperature');
  const words = ladderWords[of];
  const [ends, setEnds] = useState<[number, number]>(words.from);
  const [cups, setCups] = useState(4);
  const isHeat = of === 'Temperature';
  const shown = (value: number) => (isHeat ? Math.round(units.of('degC').show(value)) : value);
  const read = (value: number) => (isHeat ? units.toCelsius(value) : value);
  const plan = useMutation({
    mutationFn: () => data(api.POST('/api/ladders', { body: { of, from: ends[0], to: ends[1], cups } })),
    onSuccess: async (ladder: Schemas['LadderView']) => {
      await queries.invalidateQueries({ queryKey: ['ladders'] });
      await navigate(`/ladders/${ladder.id}`);
    },
  });
  const { wrong, elsewhere } = wrongOf(plan.error, ['from', 'to', 'cups']);
  const unit = isHeat ? units.temperature(0).unit : words.unit;
  return (
    <Panel>
      <H2 mb="2">Plan one</H2>
      <Grid gap="3">
        <Field label="What differs">
          {(ids) => (
            <Select
              {...ids}
              value={of}
              onChange={(e) => {
                const next = e.target.value as LadderOf;
                setOf(next);
                setEnds(ladderWords[next].from);
                plan.reset();
              }}
            >
              {(Object.keys(ladderWords) as LadderOf[]).map((key) => (
                <option key={key} value={key}>
                  {ladderWords[key].name}
                </option>
              ))}
            </Select>
          )}
        </Field>
        <Grid templateColumns="repeat(2, minmax(0,1fr))" gap="3">
          <NumberField
            label="From"
            unit={unit}
            step={words.step}
            digits={2}
            value={shown(ends[0])}
            problem={wrong('from')}
            onChange={(value) => setEnds([read(value), ends[1]])}
          />
          <NumberField
            label="To"
            unit={unit}
            step={words.step}
            digits={2}
            value={shown(ends[1])}
            problem={wrong('to')}
            onChange={(value) => setEnds([ends[0], read(value)])}
          />
        </Grid>
        <NumberField label="Cups" step={1} digits={0} value={cups} problem={wrong('cups')} onChange={setCups} />
        <Flex gap="3" align="center">
          <Button tone="strong" disabled={plan.isPending} onClick={() => plan.mutate()}>
            Plan the ladder
          </Button>
        </Flex>
        {elsewhere && <Notice role="alert">{elsewhere}</Notice>}
      </Grid>
    </Panel>
  );
}
