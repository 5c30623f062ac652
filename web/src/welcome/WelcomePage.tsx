import { Box, chakra, Flex, Grid } from '@chakra-ui/react';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { api, data, sentenceOf, type Schemas } from '../shared/api/client';
import { useHousehold } from '../shared/api/queries';
import { LookAround } from '../shared/bench/LookAround';
import { KindCard } from '../shared/machine/KindCard';
import { ReadsChoice } from '../shared/machine/ReadsChoice';
import { Button, H2, Notice, PageTitle, Panel, Waiting } from '../shared/ui/elements';
import { TextLink } from '../shared/ui/TextLink';
import { CoffeeStep } from './CoffeeStep';
import { firstMorning, nothingYet, type Coffee } from './firstMorning';
import { WhereStep } from './WhereStep';

const steps = ['Your machine', 'Where it stands', 'What you can read', 'Coffee'];

const StepButton = chakra('button', {
  base: {
    display: 'flex',
    alignItems: 'center',
    gap: '2',
    minHeight: '44px',
    cursor: 'pointer',
    '& span': {
      width: '26px',
      height: '26px',
      lineHeight: '24px',
      textAlign: 'center',
      borderWidth: '1px',
      borderColor: 'text',
      borderRadius: '50%',
      fontSize: '14px',
      bg: 'text',
      color: 'panel',
    },
    _disabled: {
      color: 'quiet',
      cursor: 'default',
      '& span': { bg: 'transparent', color: 'quiet', borderColor: 'edge' },
    },
    '&[aria-current]': {
      color: 'text',
      fontWeight: 650,
      '& span': { bg: 'oxide', color: 'onOxide', borderColor: 'oxide' },
    },
  },
});

/** The first morning: four short steps from an empty bench to the first planned shot. */
export default function WelcomePage() {
  const { data: household } = useHousehold();
  const { data: starts, error } = useQuery({
    queryKey: ['starts'],
    queryFn: () => data(api.GET('/api/machines/starts')),
    staleTime: Infinity,
  });
  if (!household || !starts) {
    return (
      <>
        <PageTitle title="Welcome" />
        <Waiting error={error} />
      </>
    );
  }
  return <FirstMorning household={household} starts={starts} />;
}

interface Props {
  household: Schemas['HouseholdView'];
  starts: readonly Schemas['StartView'][];
}

function FirstMorning({ household, starts }: Props) {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const [step, setStep] = useState(0);
  const [machine, setMachine] = useState<Schemas['StartView'] | null>(null);
  const [altitude, setAltitude] = useState(household.altitudeMetres);
  const [reads, setReads] = useState<readonly Schemas['Reads'][]>([]);
  const [coffee, setCoffee] = useState<Coffee>(nothingYet);
  const keep = useMutation({
    mutationFn: () => firstMorning({ start: machine!.start, altitude, reads, coffee }),
    onSuccess: async () => {
      // what is not on the screen too: the next page decides by it
      await queries.invalidateQueries({ refetchType: 'all' });
      await navigate('/prepare');
    },
  });
  const next = () => setStep((s) => s + 1);
  return (
    <>
      <PageTitle title="Welcome" tight>
        Four short steps, and the first shot is planned. Everything can be changed later.
      </PageTitle>
      <Flex as="ol" listStyleType="none" columnGap="5" wrap="wrap" borderBottomWidth="1px" borderColor="hairline">
        {steps.map((name, i) => (
          <li key={name}>
            <StepButton
              type="button"
              disabled={i >= step}
              aria-current={i === step ? 'step' : undefined}
              onClick={() => setStep(i)}
            >
              <span>{i + 1}</span>
              {name}
            </StepButton>
          </li>
        ))}
      </Flex>
      {step === 0 && (
        <>
          <H2 mt="3">Which of these is yours? Look at how it makes pressure and where its hot water comes from.</H2>
          <Grid
            templateColumns={{
              base: 'repeat(2, minmax(0,1fr))',
              md: 'repeat(3, minmax(0,1fr))',
              lg: 'repeat(5, minmax(0,1fr))',
            }}
            gap="3"
          >
            {starts.map((s) => (
              <KindCard
                key={s.start.key}
                start={s}
                height={110}
                choose={() => {
                  setMachine(s);
                  setReads(s.start.defaults.reads ?? []);
                  next();
                }}
              />
            ))}
            <Panel>
              <Box fontWeight={650} mb="1">
                Not at the machine?
              </Box>
              <Flex direction="column" gap="2" align="flex-start">
                {!household.madeUp && <LookAround />}
                <TextLink to="/practice">Practise on a virtual lever</TextLink>
              </Flex>
            </Panel>
          </Grid>
        </>
      )}
      {machine && step > 0 && (
        <Panel maxWidth="760px" mt="3">
          {step === 1 && <WhereStep altitude={altitude} onChange={setAltitude} />}
          {step === 2 && (
            <>
              <ReadsChoice
                legend="What can you read?"
                boiler={machine.start.defaults.boilerGaugeBar !== null}
                value={reads}
                onChange={setReads}
              />
              <Box fontSize="14px" color="quiet" mt="2">
                Nothing at all is fine too: a clock and your eyes are enough.
              </Box>
            </>
          )}
          {step === 3 && <CoffeeStep coffee={coffee} onChange={(part) => setCoffee((now) => ({ ...now, ...part }))} />}
          {keep.error && (
            <Box mt="3">
              <Notice role="alert">{sentenceOf(keep.error)}</Notice>
            </Box>
          )}
          <Flex gap="2" mt="4" wrap="wrap">
            {step < 3 ? (
              <Button tone="strong" onClick={next}>
                Next
              </Button>
            ) : (
              <Button tone="strong" disabled={keep.isPending} onClick={() => keep.mutate()}>
                {coffee.name || coffee.grinder ? 'Plan the first shot' : 'Skip this and plan the first shot'}
              </Button>
            )}
            <Button onClick={() => setStep((s) => s - 1)}>Back</Button>
          </Flex>
        </Panel>
      )}
    </>
  );
}
