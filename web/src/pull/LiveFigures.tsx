import { Box, Grid } from '@chakra-ui/react';
import { useEffect, useRef } from 'react';
import type { Schemas } from '../shared/api/client';
import { Reading } from '../shared/ui/elements';
import { number, useUnits } from '../shared/units/units';
import { live, type LiveFrame } from '../shell/live';

const big = { base: '52px', md: '96px' };

/** Grams, pressure, flow, seconds and hand force, very large, written straight into the page. */
export function LiveFigures({ view }: { view: Schemas['PullView'] }) {
  const units = useUnits();
  const grams = useRef<HTMLSpanElement>(null);
  const flow = useRef<HTMLSpanElement>(null);
  const seconds = useRef<HTMLSpanElement>(null);
  const force = useRef<HTMLSpanElement>(null);
  const pressure = useRef<HTMLSpanElement>(null);

  useEffect(() => {
    const set = (ref: React.RefObject<HTMLSpanElement | null>, text: string) => {
      if (ref.current && ref.current.textContent !== text) ref.current.textContent = text;
    };
    const show = (frame: LiveFrame) => {
      const r = frame.reading;
      set(grams, number(r?.cupGrams, 1));
      set(flow, number(r?.flowGramsPerS, 1));
      set(seconds, number(r?.seconds ?? 0, 0));
      set(force, units.force(r?.handForceKgf, 0).value);
      set(pressure, units.pressure(r?.pressureBar, 1).value);
    };
    show(view.frame);
    const stop = live.onFrame(show);
    return () => {
      stop();
    };
  }, [view, units]);

  const figure = (label: string, ref: React.RefObject<HTMLSpanElement | null>, unit: string, colour: string, testId: string) => (
    <Box minWidth={0}>
      <Box fontSize="14px" color="quiet" lineHeight={1}>
        {label}, {unit}
      </Box>
      <Reading ref={ref} data-testid={testId} color={colour} fontSize={big} display="block" style={{ lineHeight: 0.98 }}>
        {'\u2013'}
      </Reading>
    </Box>
  );

  return (
    <Grid
      templateColumns={{ base: 'repeat(3, minmax(0,1fr))', md: 'minmax(0,1fr)' }}
      gap={{ base: '2', md: '1' }}
      alignContent="space-between"
      height="100%"
    >
      {figure('Cup', grams, `g of ${number(view.sheet.yieldGrams, 0)}`, 'grams', 'live-grams')}
      {figure('Pressure', pressure, units.pressureUnit, 'pressure', 'live-pressure')}
      {figure('Time', seconds, 's', 'text', 'live-seconds')}
      {figure('Flow', flow, 'g/s', 'flow', 'live-flow')}
      {view.maxHandForceKgf !== null &&
        figure('Hand', force, `${units.force(0).unit} of ${units.force(view.maxHandForceKgf, 0).value}`, 'text', 'live-force')}
    </Grid>
  );
}
