import { Box, Flex } from '@chakra-ui/react';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { api, data, sentenceOf, type Schemas } from '../shared/api/client';
import { Button, Caution, Figure, H2, Input, Notice, Panel } from '../shared/ui/elements';
import { Table } from '../shared/ui/Table';
import { number, useUnits, type Units } from '../shared/units/units';
import { FitChart } from './FitChart';
import type { Detail } from './useKeepMachine';
import { toFigures, typedNumber } from '../shared/units/decimals';

type Request = Schemas['MeasureRequest'];
type Way = 'handle' | 'stroke' | 'puck' | 'spring' | 'seal' | 'temperatures';

interface Column {
  key: string;
  label: (u: Units) => string;
  /** From the unit on screen to the one on the wire. */
  toWire?: (value: number, u: Units) => number;
  optional?: boolean;
}

interface Words {
  title: string;
  /** What it takes and what it gives. */
  gives: string;
  how: (machine: Detail) => string;
  caution: string;
  columns: (machine: Detail) => Column[];
  rows: number;
}

const kgf: Column['toWire'] = (v, u) => u.of('kgf').wire(v);
const bar: Column['toWire'] = (v, u) => v / u.pressureFactor;
const celsius: Column['toWire'] = (v, u) => u.toCelsius(v);
const hasBoiler = (m: Detail) => m.spec.boilerGaugeBar !== null && m.spec.boilerGaugeBar !== undefined;

const ways: Record<Way, Words> = {
  handle: {
    title: 'Weigh the handle',
    gives: 'Lever ratio and seal friction, from a luggage or bathroom scale and the gauge',
    how: () =>
      'Coffee in the basket, or a blind one. Pull or press the handle through the scale, ' +
      'hold the gauge still, note both. Three readings or more, at different pressures; ' +
      'with how far the stroke was done, if the lever feels heavier at one end.',
    caution:
      'Never force a lever beyond what one arm does, and hold the machine down. Keep your face away from the handle.',
    columns: () => [
      { key: 'handKgf', label: (u) => `Scale, ${u.force(0).unit}`, toWire: kgf },
      { key: 'pressureBar', label: (u) => `Gauge, ${u.pressureUnit}`, toWire: bar },
      { key: 'strokeShare', label: () => 'Stroke done, %', toWire: (v) => v / 100, optional: true },
    ],
    rows: 3,
  },
  stroke: {
    title: 'Weigh the water',
    gives: 'What one stroke or filling moves, and what stays behind',
    how: (m) =>
      hasBoiler(m)
        ? 'No coffee. Raise the lever until the chamber is full, press one whole stroke into a ' +
          'cup on the scale. A few times over.'
        : 'No coffee. Weigh the water you pour up to the line, press it through into a cup, ' +
          'weigh what comes out. A few times over.',
    caution: 'The water is hot: hold only the insulated parts and use a cup with a handle.',
    columns: (m) => [
      ...(hasBoiler(m) ? [] : [{ key: 'pouredGrams', label: () => 'Poured in, g', optional: true }]),
      { key: 'caughtGrams', label: () => 'Came out, g' },
      { key: 'waterC', label: (u: Units) => `Water, ${u.temperature(0).unit}`, toWire: celsius },
    ],
    rows: 3,
  },
  puck: {
    title: 'Weigh a spent puck',
    gives: 'How much water a puck keeps',
    how: () =>
      'Knock the puck out onto the scale straight after the shot. Dose before, wet puck after; a few shots over.',
    caution:
      'Wait until the pressure is gone, then turn the holder slowly: one taken off under pressure sprays hot grounds.',
    columns: () => [
      { key: 'doseGrams', label: () => 'Dose, g' },
      { key: 'wetGrams', label: () => 'Wet puck, g' },
    ],
    rows: 3,
  },
  spring: {
    title: 'Let the spring run free',
    gives: 'The spring\u2019s line on the indicator card',
    how: () =>
      'Fine coffee in the basket. Cock the lever, let it go up by itself with a hand on it,' +
      ' and note the gauge at several points of the stroke. Water moved: from the cup, plus' +
      ' what the puck keeps.',
    caution: 'A cocked lever that meets no resistance flies up. Keep a hand on it and your face away all the time.',
    columns: () => [
      { key: 'movedMl', label: () => 'Water moved, ml' },
      { key: 'pressureBar', label: (u) => `Gauge, ${u.pressureUnit}`, toWire: bar },
    ],
    rows: 4,
  },
  seal: {
    title: 'Hold against a blind basket',
    gives: 'How tight the seal is',
    how: () =>
      'Blind basket or a coin in it, water in the chamber. Press to about 6, then hold the ' +
      'handle in place without pressing on, and note the gauge every few seconds.',
    caution: 'Check that the holder is fully seated before you press. Let the pressure go before you open it.',
    columns: () => [
      { key: 'seconds', label: () => 'Held, s' },
      { key: 'pressureBar', label: (u) => `Gauge, ${u.pressureUnit}`, toWire: bar },
    ],
    rows: 4,
  },
  temperatures: {
    title: 'Log temperatures',
    gives: 'Its heat constants, from a strip or thermometer over some minutes',
    how: (m) =>
      hasBoiler(m)
        ? 'From cold: switch on, bleed when the element first goes off, and note the outside of' +
          ' the group every few minutes for half an hour. No flushes, no shots.'
        : 'Preheat in its usual way; from then on note the metal of the chamber every minute or two, empty.',
    caution: 'Metal parts stay hot. Do not reach over steam to read.',
    columns: (m) => [
      { key: 'minutes', label: () => (hasBoiler(m) ? 'Since switch-on, min' : 'Since the preheat, min') },
      { key: 'groupC', label: (u) => `Reads, ${u.temperature(0).unit}`, toWire: celsius },
    ],
    rows: 6,
  },
};

/** Measuring a machine with kitchen things, one way at a time. */
export function MeasurePanel({ machine }: { machine: Detail }) {
  const [open, setOpen] = useState<Way | null>(null);
  const offered = machine.ways.filter((w): w is Way => w in ways);
  return (
    <Panel>
      <H2>Measure it with kitchen things</H2>
      {offered.map((way) =>
        open === way ? (
          <Wizard key={way} way={way} machine={machine} close={() => setOpen(null)} />
        ) : (
          <Flex key={way} gap="3" py="2" borderTopWidth="1px" borderColor="hairline" align="center">
            <Box flex="1" minWidth={0}>
              <Box fontWeight={650}>{ways[way].title}</Box>
              <Box fontSize="14px" color="quiet">
                {ways[way].gives}
              </Box>
            </Box>
            <Button onClick={() => setOpen(way)} aria-label={`${ways[way].title}: begin`}>
              Begin
            </Button>
          </Flex>
        ),
      )}
    </Panel>
  );
}

function Wizard({ way, machine, close }: { way: Way; machine: Detail; close: () => void }) {
  const words = ways[way];
  const units = useUnits();
  const queries = useQueryClient();
  const columns = words.columns(machine);
  const [rows, setRows] = useState<string[][]>(() => Array.from({ length: words.rows }, () => columns.map(() => '')));
  const measure = useMutation({
    mutationFn: (keep: boolean) =>
      data(
        api.POST('/api/machines/{id}/measure', {
          params: { path: { id: machine.id } },
          body: { keep, [way]: typed(rows, columns, units) } as unknown as Request,
        }),
      ),
    onSuccess: async (view) => {
      if (view.kept) await queries.invalidateQueries();
    },
  });
  const set = (row: number, column: number, text: string) => {
    measure.reset();
    setRows((now) => {
      const next = now.map((r, i) => (i === row ? r.map((c, j) => (j === column ? text : c)) : r));
      // there is always one more row to go on with
      return next.at(-1)!.some((c) => c.trim() !== '') ? [...next, columns.map(() => '')] : next;
    });
  };
  const view = measure.data;
  const filled = typed(rows, columns, units).length;
  return (
    <Box py="3" borderTopWidth="1px" borderColor="text">
      <Box fontWeight={650}>{words.title}</Box>
      <Box mt="1">{words.how(machine)}</Box>
      <Box my="3">
        <Caution>{words.caution}</Caution>
      </Box>
      <form
        onSubmit={(e) => {
          e.preventDefault();
          measure.mutate(false);
        }}
      >
        <Table
          label={`Readings: ${words.title}`}
          head={columns.map((c) => c.label(units))}
          rows={rows.map((row, i) => ({
            key: String(i),
            cells: row.map((text, j) => (
              <Input
                key={j}
                aria-label={`${columns[j]!.label(units)}, reading ${i + 1}`}
                inputMode="decimal"
                value={text}
                onChange={(e) => set(i, j, e.target.value)}
                maxWidth="160px"
              />
            )),
          }))}
        />
        <Flex gap="2" mt="3" wrap="wrap">
          <Button tone={view ? 'plain' : 'strong'} type="submit" disabled={measure.isPending || filled === 0}>
            Calculate
          </Button>
          <Button type="button" onClick={close}>
            {view?.kept ? 'Close' : 'Cancel'}
          </Button>
        </Flex>
      </form>
      {measure.error && (
        <Box mt="3">
          <Notice role="alert">{sentenceOf(measure.error)}</Notice>
        </Box>
      )}
      {view && (
        <Box mt="4" aria-live="polite">
          <Box mb="3">{units.sentence(view.sentence)}</Box>
          <Flex gap="5" wrap="wrap" mb="3">
            {view.changes.map((c) => {
              const { unit, show } = units.of(c.unit);
              const alone = c.plusMinus === null;
              return (
                <Figure
                  key={c.field}
                  label={c.label}
                  value={alone ? toFigures(4, show(c.value)) : toThe(show(c.plusMinus!), show(c.value))}
                  unit={`${alone ? '' : `\u00b1${toFigures(2, show(c.plusMinus!))} `}${unit}`}
                  note={
                    `was ${toFigures(4, show(c.before))}` +
                    (alone ? '; one more reading would say how sure this is' : '')
                  }
                />
              );
            })}
          </Flex>
          {view.points.length > 1 && <FitChart points={view.points} xLabel={view.xLabel} yLabel={view.yLabel} />}
          {view.kept ? (
            <Notice role="status">Saved. These numbers are the machine&rsquo;s from now on.</Notice>
          ) : (
            <Button tone="strong" disabled={measure.isPending} onClick={() => measure.mutate(true)}>
              Save {view.changes.length > 1 ? 'numbers' : 'number'}
            </Button>
          )}
        </Box>
      )}
    </Box>
  );
}

/** A value with no more decimals than two digits of its uncertainty have. */
const toThe = (plusMinus: number, value: number) =>
  plusMinus > 0 ? number(value, Math.min(8, Math.max(0, 1 - Math.floor(Math.log10(plusMinus))))) : toFigures(4, value);

/** Rows with all their numbers, in the wire's units; half-filled ones wait. */
function typed(rows: readonly string[][], columns: readonly Column[], units: Units): Record<string, number | null>[] {
  return rows.flatMap((row) => {
    const numbers = row.map((text) => (text.trim() === '' ? null : (typedNumber(text) ?? Number.NaN)));
    const whole = numbers.every((n, j) => (n === null ? columns[j]!.optional === true : Number.isFinite(n)));
    if (!whole || numbers.every((n) => n === null)) return [];
    return [
      Object.fromEntries(
        columns.map((c, j) => [c.key, numbers[j] === null ? null : (c.toWire?.(numbers[j]!, units) ?? numbers[j]!)]),
      ),
    ];
  });
}
