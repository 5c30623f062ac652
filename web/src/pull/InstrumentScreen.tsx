import { Box, Grid } from '@chakra-ui/react';
import { useEffect, useState, useSyncExternalStore, type ReactNode } from 'react';
import { Coil } from './Coil';
import { LiveCanvas } from './LiveCanvas';
import { LiveCard } from './LiveCard';
import { LiveFigures } from './LiveFigures';
import { PressureTape } from './PressureTape';
import { useRecording } from './Recording';
import { chartChoice } from './chartChoice';
import type { Instrument } from './instrument';

interface Props {
  view: Instrument;
  /** Height that other things on the screen need, px. */
  taken: number;
  /** Stands where the trace will be, before there is one. */
  instead?: ReactNode;
  /** Beside a virtual lever: without the coil, and on a phone low enough to leave room for it. */
  narrow?: boolean;
  /** The hand's force is shown elsewhere on the screen. */
  handElsewhere?: boolean;
}

/** Tape, coil, trace or indicator card, and figures: the instrument of a pull, real or practised. */
export function InstrumentScreen({ view, taken, instead, narrow = false, handElsewhere = false }: Props) {
  const { height, phone } = usePlotHeight(taken, narrow);
  const compact = narrow && phone;
  const recording = useRecording(view);
  const card = useSyncExternalStore(chartChoice.subscribe, chartChoice.shown) === 'card';
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
      <Box order={{ base: 2, md: 0 }} minWidth={0}>
        {instead ??
          (card && !compact ? (
            <LiveCard view={view} recording={recording} height={height} />
          ) : (
            <LiveCanvas view={view} recording={recording} height={height} />
          ))}
      </Box>
      <Box order={{ base: 1, md: 0 }} minHeight={{ md: `${height}px` }}>
        <LiveFigures view={view} compact={compact} hand={!handElsewhere} />
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
    return { phone, height: Math.max(phone ? 200 : 250, Math.min(1100, window.innerHeight - (phone ? 574 : taken))) };
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
