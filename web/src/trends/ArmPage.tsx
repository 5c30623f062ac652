import { Box, Flex, Grid } from '@chakra-ui/react';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { api, data, type Schemas } from '../shared/api/client';
import { useBench } from '../shared/api/queries';
import { Pane } from '../shared/plot/Pane';
import { quantity } from '../shared/plot/quantity';
import { lineRows } from '../shared/plot/rows';
import { path, roundUp } from '../shared/plot/scale';
import { Choice } from '../shared/ui/Choice';
import { EmptyState } from '../shared/ui/EmptyState';
import { Table } from '../shared/ui/Table';
import { Button, Field, H2, PageTitle, Panel, Select, Waiting } from '../shared/ui/elements';
import { number, useUnits } from '../shared/units/units';
import { ink } from '../theme/system';
import { ControlPanel } from './ControlPanel';
import { useFilter } from './useFilter';
import { typedNumber, withMinus } from '../shared/units/decimals';

const named = (c: Schemas['ArmChoice']) => `${c.planName}, ${c.machine}`;

/** A number as said, with the sign that it has; what rounds to zero, or is not known, has none. */
function signed(said: string): string {
  const value = typedNumber(said);
  if (!value) return said;
  return value > 0 ? `+${said}` : withMinus(said);
}

/** How repeatable the arm is: plan by plan, phase by phase, and what to practise. */
export default function ArmPage() {
  const filter = useFilter();
  const units = useUnits();
  const { data: bench } = useBench();
  const query = {
    machineId: filter.machineId ?? undefined,
    planName: filter.text('plan', '') || undefined,
    brewerId: filter.brewerId ?? undefined,
  };
  const { data: view, error } = useQuery({
    queryKey: ['shots', 'arm', query],
    queryFn: () => data(api.GET('/api/trends/arm', { params: { query } })),
    placeholderData: keepPreviousData,
  });
  const arm = view?.arm;
  return (
    <>
      <PageTitle
        title="The arm"
        tight
        aside={
          <Flex gap="2">
            <Button asChild>
              <Link to="/ledger/trends">Trends</Link>
            </Button>
            <Button asChild>
              <Link to="/ledger">Ledger</Link>
            </Button>
          </Flex>
        }
      >
        How consistent the last thirty pulls of a plan were.
      </PageTitle>
      {!view ? (
        <Waiting error={error} />
      ) : view.choices.length === 0 ? (
        <EmptyState
          title="Too few pulls yet"
          action={
            <Button tone="strong" asChild>
              <Link to="/prepare">Prepare a pull</Link>
            </Button>
          }
        >
          Three pulls of one plan on one machine, with a gauge that was read, and the arm is shown here.
        </EmptyState>
      ) : (
        <>
          <Grid templateColumns={{ base: 'minmax(0,1fr)', md: 'minmax(0,2fr) minmax(0,1fr)' }} gap="3" mb="3">
            <Field label="Plan and machine">
              {(ids) => (
                <Select
                  {...ids}
                  value={view.of ? named(view.of) : ''}
                  onChange={(e) => {
                    const to = view.choices.find((c) => named(c) === e.target.value);
                    if (!to) return;
                    filter.set({ machine: to.machineId, plan: to.planName });
                  }}
                >
                  {!view.of && <option value="">choose</option>}
                  {view.choices.map((c) => (
                    <option key={named(c)} value={named(c)}>
                      {named(c)}: {c.pulls} pulls
                    </option>
                  ))}
                </Select>
              )}
            </Field>
            <Choice
              label="Who"
              none="all"
              options={bench?.brewers ?? []}
              value={filter.brewerId}
              onChange={(id) => filter.set({ brewer: id })}
            />
          </Grid>
          {!arm ? (
            <Panel>Fewer than three of these pulls have a pressure that was read.</Panel>
          ) : (
            <Grid
              templateColumns={{ base: 'minmax(0,1fr)', lg: 'minmax(0,1fr) minmax(0,1fr)' }}
              gap="3"
              alignItems="start"
            >
              <Panel aria-label="Pull by pull">
                <Box fontSize="19px" fontWeight={650} lineHeight={1.25} mb="2">
                  {units.sentence(arm.sentence)}
                </Box>
                {arm.lessonKey && (
                  <Button tone="strong" asChild mb="3">
                    <Link to={`/practice/${arm.lessonKey}`}>Practise it</Link>
                  </Button>
                )}
                <BandChart band={arm.band} />
                <H2 mt="3" mb="1">
                  Phase by phase
                </H2>
                <Table
                  label="Phase by phase"
                  head={[
                    'Phase',
                    `Off the plan, ${units.pressureUnit}`,
                    'From pull to pull',
                    'In the band',
                    'Earlier, later',
                  ]}
                  rows={arm.phases.map((p, i) => ({
                    key: String(i),
                    cells: [
                      p.name,
                      signed(units.pressure(p.offBar, 1).value),
                      `\u00b1 ${units.pressure(p.spreadBar, 1).value}`,
                      `${number(p.insideShare * 100, 0)} %`,
                      `${units.pressure(p.earlierOffBar, 1).value}, ${units.pressure(p.laterOffBar, 1).value}`,
                    ],
                  }))}
                />
              </Panel>
              <Grid gap="3">
                {view.off && <ControlPanel title="Off the plan, pull by pull" unit="bar" digits={2} chart={view.off} />}
                {view.cup && <ControlPanel title="Cup minus yield" unit="g" digits={1} chart={view.cup} />}
                {!view.off && <Panel>Eight pulls of one plan, and their control charts are here.</Panel>}
              </Grid>
            </Grid>
          )}
        </>
      )}
    </>
  );
}

/** The pressure of eight pulls in ten, and the middle one. */
function BandChart({ band }: { band: readonly Schemas['PressureBand'][] }) {
  const units = useUnits();
  const f = units.pressureFactor;
  const points = (of: (b: Schemas['PressureBand']) => number) => band.map((b) => [b.seconds, of(b) * f] as const);
  const [low, middle, high] = [points((b) => b.lowBar), points((b) => b.middleBar), points((b) => b.highBar)];
  if (band.length < 2) return null;
  return (
    <Pane
      label="Pressure of the last pulls: the middle one, and eight in ten"
      height={200}
      xDomain={[0, roundUp(band.at(-1)!.seconds, 5, 10)]}
      yDomain={[0, roundUp(Math.max(...high.map((p) => p[1])), f, 6 * f)]}
      xLabel="seconds from lever"
      yLabel={`Pressure, ${units.pressureUnit} (shade: eight in ten)`}
      yColour={quantity.pressure.text}
      table={lineRows('Seconds', 1, [
        { name: 'One in ten below', line: low, digits: 1 },
        { name: 'Middle', line: middle, digits: 1 },
        { name: 'One in ten above', line: high, digits: 1 },
      ])}
    >
      {({ x, y }) => (
        <>
          <path
            d={`${path(high, x, y)}${path(low.toReversed(), x, y).replace('M', 'L')}Z`}
            fill={ink('pressure')}
            opacity="0.18"
          />
          <path
            d={path(middle, x, y)}
            fill="none"
            stroke={quantity.pressure.stroke}
            strokeWidth={quantity.pressure.width}
          />
        </>
      )}
    </Pane>
  );
}
