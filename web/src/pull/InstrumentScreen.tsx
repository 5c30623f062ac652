import { Box, Grid } from '@chakra-ui/react';
import { useEffect, useState, type ReactNode } from 'react';
import { Button } from '../shared/ui/elements';
import { Coil } from './Coil';
import { LiveCanvas } from './LiveCanvas';
import { LiveCard } from './LiveCard';
import { LiveFigures } from './LiveFigures';
import { PressureTape } from './PressureTape';
import { useRecording } from './Recording';
import type { Instrument } from './instrument';

const chartKey = 'ruddy-pull-chart';

interface Props {
  view: Instrument;
  /** Height that other things on the screen need, px. */
  taken: number;
  /** Stands where the trace will be, before there is one. */
  instead?: ReactNode;
  /** Beside a virtual lever: without the coil, and on a phone low enough to leave room for it. */
  narrow?: boolean;
}

/** Tape, coil, trace or indicator card, and figures: the instrument of a pull, real or practised. */
export function InstrumentScreen({ view, taken, instead, narrow = false }: Props) {
  const { height, phone } = usePlotHeight(taken, narrow);
  const compact = narrow && phone;
  const recording = useRecording(view);
  const [card, setCard] = useState(() => localStorage.getItem(chartKey) === 'card');
  const choose = (on: boolean) => {
    setCard(on);
    localStorage.setItem(chartKey, on ? 'card' : 'trace');
  };
  return (
    <Grid
      templateColumns={{ base: 'minmax(0,1fr)', md: narrow ? '126px minmax(0,1fr) 244px' : '126px 96px minmax(0,1fr) 244px' }}
      gap={{ base: '3', md: '3' }}
    >
      <Box display={{ base: 'none', md: 'block' }}>
        <PressureTape view={view} height={height} />
      </Box>
      {!narrow && (
        <Box display={{ base: 'none', md: 'block' }}>
          <Coil view={view} height={height} />
        </Box>
      )}
      <Box order={{ base: 2, md: 0 }} minWidth={0} position="relative">
        {instead ??
          (card && !compact ? (
            <LiveCard view={view} recording={recording} height={height} />
          ) : (
            <LiveCanvas view={view} recording={recording} height={height} />
          ))}
        {!instead && !compact && (
          <Button
            position={{ base: 'static', md: 'absolute' }}
            width={{ base: '100%', md: 'auto' }}
            top="30px"
            insetInlineEnd="40px"
            minHeight="64px"
            onClick={() => choose(!card)}
          >
            {card ? 'Show the trace' : 'Show the indicator card'}
          </Button>
        )}
      </Box>
      <Box order={{ base: 1, md: 0 }} minHeight={{ md: `${height}px` }}>
        <LiveFigures view={view} compact={compact} />
      </Box>
    </Grid>
  );
}

const phoneBelow = 768;

/** Height of the plot that leaves room for everything else on this window, and whether that is a phone's. */
function usePlotHeight(taken: number, narrow: boolean) {
  const of = () => {
    const phone = window.innerWidth < phoneBelow;
    if (phone && narrow) return { phone, height: 160 };
    return { phone, height: Math.max(phone ? 220 : 250, Math.min(1100, window.innerHeight - (phone ? 630 : taken))) };
  };
  const [size, setSize] = useState(of);
  useEffect(() => {
    const follow = () => setSize(of());
    follow();
    window.addEventListener('resize', follow);
    return () => window.removeEventListener('resize', follow);
    // of follows from these two
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [taken, narrow]);
  return size;
}
