import { Box, chakra, Flex } from '@chakra-ui/react';
import { useEffect, useRef, useState } from 'react';
import { useShortcuts } from '../shared/keys/shortcuts';
import { Reading } from '../shared/ui/elements';
import { useUnits } from '../shared/units/units';
import { live } from '../shared/live/live';
import { lateDeedsOf } from './lateDeeds';
import type { Instrument } from '../shared/instruments/instrument';
import { figureEveryMs, useLiveDrawing } from '../shared/instruments/useLiveDrawing';
import { writeText } from '../shared/instruments/write';

const mostBar = 12;
const stepBar = 0.2;
const sayEveryMs = 100;

/** Tells the server what the needle shows, or keeps it while that is out of reach. */
function follow(pullId: string, bar: number) {
  const late = lateDeedsOf(pullId);
  if (live.status.connected === false || late.count() > 0) late.add('follow', bar);
  else live.say('Follow', pullId, bar);
}

/**
 * A gauge that only eyes can read: a wide slider, or the up and down keys, follows its needle. What is followed is
 * sent on and on, so that
 * a needle that stands still is a pressure too; before the first touch nothing is sent, and the pressure counts as
 * assumed.
 */
export function Needle({ pullId, view }: { pullId: string; view: Instrument }) {
  const units = useUnits();
  const force = useRef<HTMLDivElement>(null);
  useLiveDrawing(
    view,
    (frame) => {
      const hand = units.force(frame.reading?.handForceKgf, 0);
      const most = view.maxHandForceKgf === null ? '' : units.force(view.maxHandForceKgf, 0).value;
      writeText(force, most && `Hand: ${hand.value} of ${most} ${hand.unit}`);
    },
    figureEveryMs,
  );
  const [bar, setBar] = useState<number | null>(null);
  const now = useRef<number | null>(null);

  useEffect(() => {
    now.current = bar;
  }, [bar]);

  useEffect(() => {
    const timer = setInterval(() => {
      if (now.current !== null) follow(pullId, now.current);
    }, sayEveryMs);
    return () => clearInterval(timer);
  }, [pullId]);

  const move = (by: number) => setBar((b) => Math.max(0, Math.min(mostBar, Math.round(((b ?? 0) + by) * 10) / 10)));
  useShortcuts('The needle', [
    { key: 'ArrowUp', does: 'Needle up', run: () => move(stepBar), repeats: true },
    { key: 'ArrowDown', does: 'Needle down', run: () => move(-stepBar), repeats: true },
  ]);

  return (
    <Flex align="center" gap="4" minHeight="72px">
      <Box flexShrink={0} width={{ base: '104px', md: '128px' }}>
        <Box fontSize="14px">Follow the needle</Box>
        <Reading fontSize="30px">
          {bar === null ? '\u2013' : units.pressure(bar, 1).value} {units.pressureUnit}
        </Reading>
        <Box ref={force} fontSize="14px" />
      </Box>
      <chakra.input
        type="range"
        min={0}
        max={mostBar}
        step={0.1}
        value={bar ?? 0}
        aria-label="Pressure on the gauge's needle"
        aria-valuetext={bar === null ? 'not followed yet' : `${units.pressure(bar, 1).value} ${units.pressureUnit}`}
        onChange={(event) => {
          setBar(Number(event.target.value));
          follow(pullId, Number(event.target.value));
        }}
        flex="1"
        minWidth={0}
        height="64px"
        style={{ accentColor: 'var(--rs-colors-oxide)', touchAction: 'none' }}
      />
    </Flex>
  );
}
