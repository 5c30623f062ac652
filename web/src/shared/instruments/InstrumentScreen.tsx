import { Box, Grid } from '@chakra-ui/react';
import { useSyncExternalStore, type ReactNode } from 'react';
import { Coil } from './Coil';
import { LiveCanvas } from './LiveCanvas';
import { LiveCard } from './LiveCard';
import { LiveFigures } from './LiveFigures';
import { PressureTape } from './PressureTape';
import { useRecording } from './Recording';
import { chartChoice } from './chartChoice';
import type { Instrument } from './instrument';
import { useRoom } from './useRoom';

/** Height of the figures in a row with the space under it, px. */
const figuresRow = 98;

interface Props {
  view: Instrument;
  /** Height of what stands below it, px. */
  below: number;
  /** Stands where the trace will be, before there is one. */
  instead?: ReactNode;
  /** Beside a virtual lever: without the coil, and on a phone low enough to leave room for it. */
  narrow?: boolean;
  /** The hand's force is shown elsewhere on the screen. */
  handElsewhere?: boolean;
}

/** Tape, coil, trace or indicator card, and figures: the instrument of a pull, real or practised. */
export function InstrumentScreen({ view, below, instead, narrow = false, handElsewhere = false }: Props) {
  const {
    ref,
    height: room,
    phone,
    // on a tablet that stands upright the figures lie in a row above, so that the trace has the width
    tablet: above,
  } = useRoom<HTMLDivElement>(below, (window) => (narrow ? 160 : Math.max(200, window - 574)));
  const compact = narrow && phone;
  const height = above ? room - figuresRow : room;
  const recording = useRecording(view);
  const card = useSyncExternalStore(chartChoice.subscribe, chartChoice.shown) === 'card';
  return (
    <Grid
      ref={ref}
      templateColumns={{
        base: 'minmax(0,1fr)',
        md: narrow ? '126px minmax(0,1fr)' : '126px 96px minmax(0,1fr)',
        lg: narrow ? '126px minmax(0,1fr) 244px' : '126px 96px minmax(0,1fr) 244px',
      }}
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
      <Box
        order={{ base: 1, md: above ? -1 : 0 }}
        gridColumn={above ? '1 / -1' : undefined}
        minHeight={above ? undefined : { md: `${height}px` }}
      >
        <LiveFigures
          view={view}
          height={height}
          compact={compact}
          inRow={above}
          narrow={narrow}
          hand={!handElsewhere && !(narrow && above)}
        />
      </Box>
    </Grid>
  );
}
