import { Box, Flex, Grid } from '@chakra-ui/react';
import { useRef } from 'react';
import { quantity } from '../plot/quantity';
import { Reading } from '../ui/elements';
import { number, useUnits } from '../units/units';
import { ink } from '../../theme/system';
import type { Instrument } from './instrument';
import { figureEveryMs, useLiveDrawing } from './useLiveDrawing';
import { writeText } from './write';

const largest = 96;
const labelHeight = 16;
type Ref = React.RefObject<HTMLSpanElement | null>;

/** Where the pressure comes from, in a word. */
const known = { Measured: '', Imported: '', Followed: 'followed by hand', Assumed: 'assumed from the plan' } as const;

interface Props {
  view: Instrument;
  /** Height for all of them in a column, px. */
  height: number;
  compact?: boolean;
  /** All in one row, on a tablet. */
  inRow?: boolean;
  /** Beside a virtual lever, where a row has less room and the lever shows the hand. */
  narrow?: boolean;
  hand?: boolean;
}

/**
 * Grams, pressure, seconds, flow and hand force, as large as the height allows, written straight into the page;
 * compact in one row on a phone.
 */
export function LiveFigures({ view, height, compact = false, inRow = false, narrow = false, hand = true }: Props) {
  const units = useUnits();
  const grams = useRef<HTMLSpanElement>(null);
  const flow = useRef<HTMLSpanElement>(null);
  const seconds = useRef<HTMLSpanElement>(null);
  const force = useRef<HTMLSpanElement>(null);
  const pressure = useRef<HTMLSpanElement>(null);
  const cupIs = useRef<HTMLSpanElement>(null);
  const pressureIs = useRef<HTMLSpanElement>(null);
  const left = useRef<HTMLSpanElement>(null);

  useLiveDrawing(
    view,
    (frame) => {
      const r = frame.reading;
      const coach = r?.coach;
      // without a scale the cup is worked out from the water that went in
      const estimated = r?.cupGrams == null && coach ? coach.cupGrams : null;
      writeText(grams, estimated === null ? number(r?.cupGrams, 1) : `~${number(estimated, 0)}`);
      writeText(cupIs, estimated === null ? '' : 'estimated from the water');
      writeText(flow, number(r?.flowGramsPerS, 1));
      writeText(seconds, number(r?.seconds ?? 0, 0));
      writeText(
        left,
        coach?.secondsLeft != null && frame.stage === 'Running' ? `${number(coach.secondsLeft, 0)} s left` : '',
      );
      writeText(force, units.force(r?.handForceKgf, 0).value);
      writeText(pressure, units.pressure(r?.pressureBar, 1).value);
      writeText(pressureIs, frame.stage === 'Running' && r ? known[r.pressureIs] : '');
    },
    figureEveryMs,
  );

  const withForce = view.maxHandForceKgf !== null && hand && !compact;
  const inColumn = Math.min(largest, Math.floor((height / (withForce ? 5 : 4) - labelHeight) / 0.92));
  const fontSize = { base: compact ? '36px' : '52px', md: inRow ? (narrow ? '42px' : '60px') : `${inColumn}px` };
  const figure = (
    label: string,
    ref: Ref,
    unit: string,
    code: keyof typeof quantity | null,
    testId: string,
    note?: Ref,
  ) => (
    <Box minWidth={0}>
      <Flex fontSize="14px" color="text" lineHeight={1} align="center" columnGap="1.5" rowGap="0" wrap="wrap">
        {code && !compact && !(narrow && inRow) && (
          <svg width="22" height="6" aria-hidden="true">
            <line
              x1="0"
              x2="22"
              y1="3"
              y2="3"
              stroke={quantity[code].stroke}
              strokeWidth="4"
              strokeDasharray={quantity[code].dash}
            />
          </svg>
        )}
        {label}, {unit}
        {note && <Box as="span" ref={note} fontWeight={650} color="text" />}
      </Flex>
      <Reading
        ref={ref}
        data-testid={testId}
        color="text"
        fontSize={fontSize}
        display="block"
        style={{ lineHeight: 0.92 }}
      >
        {'\u2013'}
      </Reading>
    </Box>
  );

  return (
    <Grid
      templateColumns={{
        base: `repeat(${compact ? 4 : 3}, minmax(0,1fr))`,
        md: inRow ? `repeat(${withForce ? 5 : 4}, minmax(0,1fr))` : 'minmax(0,1fr)',
      }}
      gap={{ base: '2', md: '1' }}
      alignContent="space-between"
      alignItems={inRow ? 'end' : undefined}
      height="100%"
      borderInlineStartWidth={{ base: 0, md: inRow ? 0 : '1px' }}
      borderColor={ink('hairline')}
      ps={{ base: 0, md: inRow ? 0 : '3' }}
    >
      {figure('Cup', grams, `g of ${number(view.yieldGrams, 0)}`, 'grams', 'live-grams', cupIs)}
      {figure('Pressure', pressure, units.pressureUnit, 'pressure', 'live-pressure', pressureIs)}
      {figure('Time', seconds, 's', null, 'live-seconds', left)}
      {figure('Flow', flow, 'g/s', 'flow', 'live-flow')}
      {withForce &&
        figure(
          'Hand',
          force,
          `${units.force(0).unit} of ${units.force(view.maxHandForceKgf, 0).value}`,
          null,
          'live-force',
        )}
    </Grid>
  );
}
