import { Box, Flex, Grid } from '@chakra-ui/react';
import { ChartSwitch } from '../shared/instruments/ChartSwitch';
import { InstrumentScreen } from '../shared/instruments/InstrumentScreen';
import { Sentence } from '../shared/instruments/Sentence';
import { keysHeight, useRoom } from '../shared/instruments/useRoom';
import type { Schemas } from '../shared/api/client';
import { Key } from '../shared/ui/Key';
import { Button, HiddenTitle } from '../shared/ui/elements';
import { VirtualLever } from './VirtualLever';
import type { usePractice } from './usePractice';

interface Props {
  /** Name of the lesson. */
  name: string;
  view: Schemas['PracticeView'];
  practice: NonNullable<ReturnType<typeof usePractice>>;
  letGo: () => void;
  drops: () => void;
  dropsMarked: boolean;
  giveUp: () => void;
}

/** A lesson while it is played: lever, instruments and keys in one window. */
export function PlayScreen({ name, view, practice, letGo, drops, dropsMarked, giveUp }: Props) {
  // on a phone lever, figures and trace share the window
  const { ref, height, phone } = useRoom<HTMLDivElement>(keysHeight, (window) =>
    Math.max(150, Math.min(280, window - 570)),
  );
  return (
    <Flex direction="column" gap="2">
      <HiddenTitle title={name} />
      <Sentence view={practice.instrument} />
      <Grid ref={ref} templateColumns={{ base: 'minmax(0,1fr)', md: '220px minmax(0,1fr)' }} gap="3">
        <Box order={{ base: 2, md: 0 }}>
          <VirtualLever view={view} height={height} listen={practice.listenToLever} />
        </Box>
        <InstrumentScreen view={practice.instrument} below={keysHeight} narrow />
      </Grid>
      <Flex gap="2">
        <Button size="big" tone="strong" flex="2" px={{ base: '2', md: '4' }} onClick={letGo}>
          {phone ? 'Let go' : 'Let go, it is done'}
          <Key>s</Key>
        </Button>
        <Button size="big" flex="1" px={{ base: '2', md: '4' }} onClick={drops} aria-pressed={dropsMarked}>
          {dropsMarked ? '\u2713 ' : ''}First drops<Key>d</Key>
        </Button>
        {!phone && <ChartSwitch />}
        <Button size="big" px={{ base: '2', md: '4' }} onClick={giveUp}>
          Give up
        </Button>
      </Flex>
    </Flex>
  );
}
