import { Box, Flex, Grid } from '@chakra-ui/react';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { Link } from 'react-router';
import { api, data, sentenceOf, type Schemas } from '../shared/api/client';
import { useWarm } from '../shared/api/queries';
import { Button, Caution, Figure, H2, Notice, PageTitle, Panel, Waiting } from '../shared/ui/elements';
import { number, useUnits } from '../shared/units/units';
import { WarmCurve } from './WarmCurve';

const clock = (seconds: number) => {
  const s = Math.max(0, Math.round(seconds));
  return `${Math.floor(s / 60)}:${String(s % 60).padStart(2, '0')}`;
};

/** How warm it is and how long it takes: honest estimates with their uncertainty. */
export default function WarmPage() {
  const { data: view, error } = useWarm();
  const queries = useQueryClient();
  const units = useUnits();
  const elapsed = useElapsed(view);
  const act = useMutation({
    mutationFn: (what: { start: Schemas['PreheatMethod'] } | 'done' | 'reset') =>
      data(
        what === 'done'
          ? api.POST('/api/warm/done')
          : what === 'reset'
            ? api.POST('/api/warm/reset')
            : api.POST('/api/warm/start', { body: { method: what.start } }),
      ),
    onSuccess: async (next) => {
      queries.setQueryData(['warm'], next);
      await queries.invalidateQueries({ queryKey: ['prepare'] });
    },
  });

  // while it warms the estimate moves, so it is asked for again now and then
  const going = view?.state !== null && view?.state !== undefined && view.state.doneAt === null;
  useEffect(() => {
    if (!going) return;
    const timer = setInterval(() => void queries.invalidateQueries({ queryKey: ['warm'] }), 5000);
    return () => clearInterval(timer);
  }, [going, queries]);

  if (!view) {
    return (
      <>
        <PageTitle title="Warm" />
        <Waiting error={error} />
      </>
    );
  }

  const degree = units.temperature(0).unit;
  const left = view.readyAfterSeconds === null ? null : view.readyAfterSeconds - (elapsed ?? 0);
  const chosen = view.choices.find((c) => c.method === view.state?.method);
  return (
    <>
      <PageTitle title="Warm">
        {view.machineName}, at {number(view.altitudeMetres, 0)} m.{' '}
        <Link to="/prepare" style={{ textDecoration: 'underline' }}>
          Another machine
        </Link>
      </PageTitle>
      <Grid templateColumns={{ base: 'minmax(0,1fr)', lg: 'minmax(0,7fr) minmax(0,5fr)' }} gap="4" alignItems="start">
        <Grid gap="4">
          <Panel>
            <Grid templateColumns={{ base: 'minmax(0,1fr) minmax(0,1fr)', sm: 'repeat(3, minmax(0,1fr))' }} gap="4">
              <Figure
                label="Water boils here at"
                value={units.temperature(view.boilingPointC, 1).value}
                unit={degree}
                colour="temperatureText"
                note={`${number(view.altitudeMetres, 0)} m above the sea`}
              />
              {view.boilerC !== null && (
                <Figure
                  label="Boiler at its set pressure"
                  value={units.temperature(view.boilerC, 1).value}
                  unit={degree}
                  colour="temperatureText"
                  note={`${units.pressure(view.boilerGaugeBar, 2).value} ${units.pressureUnit} on the gauge, no air in it`}
                />
              )}
              <Figure
                label="Water at the puck"
                value={units.temperature(view.waterC).value}
                unit={`\u00b1${units.temperatureStep(view.waterPlusMinusC).value} ${degree}`}
                colour="temperatureText"
                note={`${view.state ? 'if you pull now' : view.hasBoiler ? 'after 25 min' : 'after a steam bath'}; narrowed by ${view.narrowedBy}`}
              />
            </Grid>
          </Panel>

          {view.hasBoiler ? (
            <Panel>
              <H2>Warming up</H2>
              {view.readyAfterSeconds === null && (
                <Notice>At this boiler pressure the group does not reach its band by itself; blank fills bring it up.</Notice>
              )}
              <WarmCurve view={view} nowMinutes={elapsed === null ? null : elapsed / 60} />
            </Panel>
          ) : (
            <Panel>
              <H2>Ways to warm it</H2>
              <Grid gap="2">
                {view.choices.map((choice) => (
                  <Flex
                    key={choice.method}
                    gap="3"
                    align="center"
                    wrap="wrap"
                    p="3"
                    borderWidth="1px"
                    borderRadius="small"
                    borderColor={choice.method === view.state?.method ? 'text' : 'hairline'}
                  >
                    <Box flex="1" minWidth="200px">
                      <Box fontWeight={650}>{choice.name}</Box>
                      <Box fontSize="14px" color="quiet">
                        {choice.how}
                      </Box>
                    </Box>
                    <Box width="150px">
                      <Figure
                        label="water at the puck"
                        size={28}
                        value={units.temperature(choice.waterC).value}
                        unit={`\u00b1${units.temperatureStep(choice.plusMinusC).value} ${degree}`}
                        colour="temperatureText"
                      />
                    </Box>
                    {choice.seconds > 0 && (
                      <Button onClick={() => act.mutate({ start: choice.method })} width="150px">
                        Start {clock(choice.seconds)}
                      </Button>
                    )}
                    {choice.seconds === 0 && (
                      <Button onClick={() => act.mutate({ start: choice.method })} width="150px">
                        Go without
                      </Button>
                    )}
                  </Flex>
                ))}
              </Grid>
            </Panel>
          )}
        </Grid>

        <Grid gap="4">
          <Panel>
            <H2>{view.state ? (going ? 'Under way' : 'Done') : 'In this order'}</H2>
            {view.state && (
              <Box mb="4">
                <Figure
                  label={!going ? 'it took' : left === null ? 'since switch-on' : left > 0 ? 'still to go' : 'ready since'}
                  size={72}
                  value={clock(going ? Math.abs(left ?? elapsed ?? 0) : (view.elapsedSeconds ?? 0))}
                  unit="min"
                  note={
                    view.groupC !== null
                      ? `Group about ${units.temperature(view.groupC).value} ${degree}, band ${units.temperature(view.bandLowC).value} to ${units.temperature(view.bandHighC).value}`
                      : chosen?.name
                  }
                />
                {chosen && going && (
                  <Box mt="3">
                    <Caution>{chosen.caution}</Caution>
                  </Box>
                )}
                <Flex gap="2" mt="4" wrap="wrap">
                  {going && (
                    <Button tone="strong" onClick={() => act.mutate('done')}>
                      It is warm
                    </Button>
                  )}
                  <Button onClick={() => act.mutate('reset')}>Start again</Button>
                </Flex>
              </Box>
            )}
            <Box as="ol" ps="5" style={{ listStyle: 'decimal' }}>
              {view.steps.map((step) => (
                <Box as="li" key={step} mb="2">
                  {step}
                </Box>
              ))}
            </Box>
            {view.hasBoiler && !view.state && (
              <Button tone="strong" size="big" width="100%" mt="2" onClick={() => act.mutate({ start: 'None' })}>
                I have switched it on
              </Button>
            )}
          </Panel>
          <Panel>
            <Grid gap="2">
              {view.cautions.map((caution) => (
                <Caution key={caution}>{caution}</Caution>
              ))}
            </Grid>
          </Panel>
          {act.error && <Notice role="alert">{sentenceOf(act.error)}</Notice>}
        </Grid>
      </Grid>
    </>
  );
}

/** Seconds since the warm-up began, ticking; null when none is under way. */
function useElapsed(view: Schemas['WarmView'] | undefined): number | null {
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), 500);
    return () => clearInterval(timer);
  }, []);
  if (!view?.state) return null;
  const start = Date.parse(view.state.startedAt);
  return ((view.state.doneAt ? Date.parse(view.state.doneAt) : now) - start) / 1000;
}
