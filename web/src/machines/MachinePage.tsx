import { Box, Flex, Grid, Tabs } from '@chakra-ui/react';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useNavigate, useParams, useSearchParams } from 'react-router';
import { machineChooser, useSheetEditor } from '../shared/sheet/useSheetEditor';
import { sentenceOf } from '../shared/api/client';
import { keepBench, useBench, useMachine } from '../shared/api/queries';
import { Fold } from '../shared/ui/Fold';
import { Button, Figure, Notice, PageTitle, Panel, Waiting } from '../shared/ui/elements';
import { Table } from '../shared/ui/Table';
import { toFigures } from '../shared/units/decimals';
import { number, useUnits } from '../shared/units/units';
import { ForceChart, SpringChart } from './CanDoCharts';
import { putAway } from '../shared/bench/PutAway';
import { CutawayDrawing } from '../shared/machine/CutawayDrawing';
import { HeatPanel } from './HeatPanel';
import { LearnedPanel } from './LearnedPanel';
import { MeasurePanel } from './MeasurePanel';
import { NumbersPanel } from './NumbersPanel';
import type { Detail } from './useKeepMachine';
import { TextLink } from '../shared/ui/TextLink';

const views = [
  ['can', 'What it can do'],
  ['numbers', 'Its numbers'],
  ['measure', 'Measure it'],
  ['heat', 'Its heat'],
] as const;

/** One machine: its section, what it can do, its numbers, measuring it, and its heat. */
export default function MachinePage() {
  const id = Number(useParams().id);
  const [search, setSearch] = useSearchParams();
  const { data: machine, error } = useMachine(id);
  if (!machine) {
    return (
      <>
        <PageTitle title="Machine" tight asideToCome />
        <Waiting error={error} />
      </>
    );
  }
  // what cannot be read is set again among its numbers
  const view = search.get('view') ?? (machine.problem ? 'numbers' : 'can');
  return (
    <>
      <PageTitle
        title={machine.name}
        tight
        aside={
          <Flex gap="3" align="center">
            <TextLink to="/machines">All machines</TextLink>
            <BrewWithIt id={machine.id} />
          </Flex>
        }
      >
        {machine.familyName}
      </PageTitle>
      {machine.problem && (
        <Box mb="4">
          <Notice role="alert">{machine.problem}</Notice>
        </Box>
      )}
      <Grid templateColumns={{ base: 'minmax(0,1fr)', lg: 'minmax(0,4fr) minmax(0,8fr)' }} gap="4" alignItems="start">
        <Grid gap="4">
          <Panel>
            <Section machine={machine} />
          </Panel>
          <PutItAway id={machine.id} />
        </Grid>
        <Tabs.Root
          value={view}
          onValueChange={(e) => setSearch({ view: e.value }, { replace: true })}
          lazyMount
          unmountOnExit
        >
          <Tabs.List aria-label="About this machine">
            {views.map(([value, name]) => (
              <Tabs.Trigger key={value} value={value}>
                {name}
              </Tabs.Trigger>
            ))}
          </Tabs.List>
          <Tabs.Content value="can">
            <CanDo machine={machine} />
          </Tabs.Content>
          <Tabs.Content value="numbers">
            <NumbersPanel machine={machine} />
          </Tabs.Content>
          <Tabs.Content value="measure">
            <Grid gap="4">
              <MeasurePanel machine={machine} />
              <LearnedPanel machine={machine} />
            </Grid>
          </Tabs.Content>
          <Tabs.Content value="heat">
            <HeatPanel machine={machine} />
          </Tabs.Content>
        </Tabs.Root>
      </Grid>
    </>
  );
}

/** Takes the machine off the bench; its shots stay, and it can be taken back. */
function PutItAway({ id }: { id: number }) {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const away = useMutation({
    mutationFn: () => putAway('Machines', id),
    onSuccess: async (bench) => {
      await navigate('/machines');
      await keepBench(queries, bench);
    },
  });
  return (
    <Flex align="center" gap="3" wrap="wrap" fontSize="14px" color="quiet">
      <Button tone="quiet" onClick={() => away.mutate()} disabled={away.isPending}>
        Archive
      </Button>
      Its shots stay, and it can be restored.
      {away.error && <Notice role="alert">{sentenceOf(away.error)}</Notice>}
    </Flex>
  );
}

/** Takes the machine to the bench: the sheet and the session are about it from now on. */
function BrewWithIt({ id }: { id: number }) {
  const { data: bench } = useBench();
  const { sheet, change, settle } = useSheetEditor();
  const navigate = useNavigate();
  if (!bench || !sheet) return null;
  return (
    <Button
      tone="strong"
      onClick={async () => {
        if (sheet.machineId !== id) machineChooser(bench, sheet.brewerId, change)(id);
        if ((await settle()) !== null) await navigate('/warm');
      }}
    >
      Brew with it
    </Button>
  );
}

function Section({ machine }: { machine: Detail }) {
  const { cutaway: cut, spec } = machine;
  const sizes: [string, string][] = [
    ['piston', `${number(cut.pistonMm, 1)} mm`],
    ['stroke', `${number(cut.strokeMm, 1)} mm`],
    ['basket', `${number(cut.basketMm, 1)} mm, ${number(cut.basketDepthMm, 0)} deep`],
    ['puck', `${number(cut.puckMm, 1)} mm from ${number(machine.can.doseGrams, 0)} g`],
  ];
  if (spec.family !== 'HandPump') sizes.splice(2, 0, ['lever', `${number(cut.armRatio, 1)} to 1`]);
  return (
    <>
      <CutawayDrawing
        family={spec.family}
        cut={cut}
        restricted={(spec.restrictorBarS2PerMl2 ?? 0) > 0}
        height={300}
        label={`Section through ${machine.name}: ${sizes.map(([k, v]) => `${k} ${v}`).join(', ')}`}
      />
      <Grid as="dl" templateColumns="auto 1fr" columnGap="4" fontSize="14px" mt="2">
        {sizes.map(([name, value]) => (
          <Box key={name} display="contents">
            <Box as="dt" color="quiet">
              {name}
            </Box>
            <Box as="dd" fontVariantNumeric="tabular-nums">
              {value}
            </Box>
          </Box>
        ))}
      </Grid>
      <Box fontSize="13px" color="quiet" mt="2">
        Drawn to scale from its numbers. Hatched: water. Dotted: coffee. The arrow is the hand.
      </Box>
    </>
  );
}

function CanDo({ machine }: { machine: Detail }) {
  const units = useUnits();
  const { can, spec } = machine;
  const boiler = spec.boilerGaugeBar !== null && spec.boilerGaugeBar !== undefined;
  const soft = (mlPerBar: number) => `${toFigures(2, mlPerBar / units.pressureFactor)} ml/${units.pressureUnit}`;
  const strokes =
    spec.family === 'HandPump'
      ? 'pump strokes'
      : boiler || spec.family === 'SteppedLever'
        ? 'strokes'
        : can.strokesForUsualYield === 1
          ? 'filling'
          : 'fillings';
  return (
    <Panel>
      <Grid templateColumns={{ base: 'minmax(0,1fr) minmax(0,1fr)', sm: 'repeat(3, minmax(0,1fr))' }} gap="3" mb="3">
        <Figure
          why={{ of: 'largestCup', from: { machine: machine.id } }}
          label="Largest cup"
          value={number(can.largestYieldGrams, 0)}
          unit="g"
          note={`from ${number(can.doseGrams, 0)} g of coffee`}
        />
        <Figure
          why={{ of: 'strokes', from: { machine: machine.id } }}
          label={`For ${number(can.yieldGrams, 0)} g in the cup`}
          value={String(can.strokesForUsualYield)}
          unit={strokes}
          note={`${number(can.waterGrams, 0)} g of water`}
        />
        {can.reachBar !== null && (
          <Figure
            why={{ of: 'reach', from: { machine: machine.id } }}
            label="With the force you are willing to use"
            value={units.pressure(can.reachBar).value}
            unit={units.pressureUnit}
            colour="pressure"
            note={`${units.force(spec.willingForceKgf ?? 0).value} ${units.force(0).unit} at the handle`}
          />
        )}
        {can.sealHalfSeconds !== null && (
          <Figure
            label="The seal loses half its pressure in"
            value={number(can.sealHalfSeconds, 0)}
            unit="s"
            note="held against a blind basket"
          />
        )}
        {can.cockKgf !== null && (
          <Figure
            label="To cock the spring"
            value={units.force(can.cockKgf).value}
            unit={units.force(0).unit}
            note="at the handle"
          />
        )}
      </Grid>
      {can.force.length > 0 && <ForceChart can={can} willingKgf={spec.willingForceKgf ?? null} />}
      {can.springLine.length > 0 && <SpringChart can={can} />}
      <Fold title="Air left under the piston makes a soft lever">
        <Table
          label="Softness from trapped air"
          head={[
            'Air',
            `Gives, at ${units.pressure(2).value} ${units.pressureUnit}`,
            `at ${units.pressure(9).value} ${units.pressureUnit}`,
            'Stroke lost',
            'Largest cup',
          ]}
          rows={can.soft
            .filter((s) => s.airMl > 0)
            .map((s) => ({
              key: String(s.airMl),
              strong: s.own,
              cells: [
                `${number(s.airMl, s.airMl % 1 ? 1 : 0)} ml${s.own ? ', as on yours' : ''}`,
                soft(s.mlPerBarAtTwo),
                soft(s.mlPerBarAtNine),
                `${number(s.lostMl, 1)} ml`,
                `${number(s.largestYieldGrams, 0)} g`,
              ],
            }))}
        />
      </Fold>
    </Panel>
  );
}
