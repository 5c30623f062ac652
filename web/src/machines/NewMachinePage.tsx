import { Box, Flex, Grid } from '@chakra-ui/react';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { api, data, type Schemas } from '../shared/api/client';
import { wrongOf } from '../shared/edit/wrongOf';
import { NumberField } from '../shared/ui/NumberField';
import { Button, Field, H2, Input, Notice, PageTitle, Panel, Waiting } from '../shared/ui/elements';
import { addMachine } from '../shared/bench/addMachine';
import { CutawayDrawing } from '../shared/machine/CutawayDrawing';
import { KindCard } from '../shared/machine/KindCard';
import { ReadsChoice } from '../shared/machine/ReadsChoice';
import { mostLetters } from '../shared/edit/letters';

type Start = Schemas['StartView'];
type Reads = Schemas['Reads'];

/** Adding a machine: pick how it works from the drawings, answer three questions, use it. */
export default function NewMachinePage() {
  const { data: starts, error } = useQuery({
    queryKey: ['starts'],
    queryFn: () => data(api.GET('/api/machines/starts')),
    staleTime: Infinity,
  });
  const [chosen, setChosen] = useState<Start | null>(null);
  if (!starts) {
    return (
      <>
        <PageTitle title="Add a machine" />
        <Waiting error={error} />
      </>
    );
  }
  if (chosen) return <Questions key={chosen.start.key} chosen={chosen} back={() => setChosen(null)} />;
  return (
    <>
      <PageTitle title="Add a machine">
        Which of these is yours? Look at how it makes pressure and where its hot water comes from. The numbers to begin
        with are rounded figures of the family, common practice and no single machine&rsquo;s; measure yours later.
      </PageTitle>
      <Grid templateColumns={{ base: 'repeat(2, minmax(0,1fr))', lg: 'repeat(3, minmax(0,1fr))' }} gap="3">
        {starts.map((s) => (
          <KindCard key={s.start.key} start={s} height={170} choose={() => setChosen(s)} />
        ))}
      </Grid>
    </>
  );
}

function Questions({ chosen, back }: { chosen: Start; back: () => void }) {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const { start } = chosen;
  const boiler = start.defaults.boilerGaugeBar !== null;
  const [name, setName] = useState('');
  const [basket, setBasket] = useState<number | null>(start.defaults.basketDiameterMm);
  const [dose, setDose] = useState<number | null>(start.doseGrams);
  const [water, setWater] = useState<number | null>(start.defaults.chamberMl);
  const [reads, setReads] = useState<readonly Reads[]>(start.defaults.reads ?? []);
  const keep = useMutation({
    mutationFn: () =>
      addMachine(start, name, dose ?? start.doseGrams, {
        basketDiameterMm: basket ?? 0,
        chamberMl: water ?? 0,
        reads: [...reads],
      }),
    onSuccess: async (id) => {
      await queries.invalidateQueries();
      await navigate(`/machines/${id}`);
    },
  });
  const { wrong, elsewhere } = wrongOf(keep.error, ['name', 'basketDiameterMm', 'doseGrams', 'chamberMl']);
  return (
    <>
      <PageTitle title="Add a machine">
        Three questions; every other number starts from its family and can be changed or measured later.
      </PageTitle>
      <Grid templateColumns={{ base: 'minmax(0,1fr)', lg: 'minmax(0,5fr) minmax(0,7fr)' }} gap="4" alignItems="start">
        <Panel>
          <CutawayDrawing
            family={start.defaults.family}
            cut={chosen.cutaway}
            restricted={(start.defaults.restrictorBarS2PerMl2 ?? 0) > 0}
            height={300}
            label={`Section: ${start.name}`}
          />
          <Box fontWeight={650} mt="3">
            {start.name}
          </Box>
          <Box fontSize="14px" color="quiet">
            {start.pressure} {start.water}
          </Box>
        </Panel>
        <Panel>
          <form
            onSubmit={(e) => {
              e.preventDefault();
              keep.mutate();
            }}
          >
            <Grid gap="4">
              <Field label="Name" problem={wrong('name')}>
                {(ids) => (
                  <Input
                    {...ids}
                    value={name}
                    maxLength={mostLetters}
                    placeholder={start.name}
                    onChange={(e) => setName(e.target.value)}
                  />
                )}
              </Field>
              <Box>
                <H2>1. Which basket, and how much coffee?</H2>
                <Grid templateColumns={{ base: 'minmax(0,1fr)', sm: 'minmax(0,1fr) minmax(0,1fr)' }} gap="3">
                  <NumberField
                    label="Basket diameter"
                    unit="mm"
                    step={0.5}
                    value={basket}
                    problem={wrong('basketDiameterMm')}
                    hint={`its family: ${start.defaults.basketDiameterMm} mm`}
                    onChange={setBasket}
                  />
                  <NumberField
                    label="Usual dose"
                    unit="g"
                    step={0.5}
                    value={dose}
                    problem={wrong('doseGrams')}
                    onChange={setDose}
                  />
                </Grid>
              </Box>
              <Box>
                <H2>2. How much water does it take?</H2>
                <NumberField
                  label={boiler ? 'Water that one full stroke moves' : 'Chamber up to its line'}
                  unit="ml"
                  step={1}
                  digits={0}
                  value={water}
                  problem={wrong('chamberMl')}
                  hint={`its family: ${start.defaults.chamberMl} ml. If you do not know, leave it and weigh it later.`}
                  onChange={setWater}
                />
              </Box>
              <ReadsChoice legend="3. What can you read?" boiler={boiler} value={reads} onChange={setReads} />
              {elsewhere && <Notice role="alert">{elsewhere}</Notice>}
              <Flex gap="2" wrap="wrap">
                <Button tone="strong" type="submit" disabled={keep.isPending}>
                  Add the machine
                </Button>
                <Button type="button" onClick={back}>
                  Another kind
                </Button>
              </Flex>
            </Grid>
          </form>
        </Panel>
      </Grid>
    </>
  );
}
