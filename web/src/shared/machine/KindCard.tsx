import { Box, chakra } from '@chakra-ui/react';
import type { Schemas } from '../api/client';
import { Panel } from '../ui/elements';
import { CutawayDrawing } from './CutawayDrawing';

interface Props {
  start: Schemas['StartView'];
  height: number;
  choose: () => void;
}

/** A kind of machine to choose by its drawing: how it makes pressure and where its hot water comes from. */
export function KindCard({ start: { start, cutaway }, height, choose }: Props) {
  return (
    <chakra.button type="button" onClick={choose} textAlign="start" cursor="pointer">
      <Panel as="div" height="100%" _hover={{ borderColor: 'text' }}>
        <CutawayDrawing
          family={start.defaults.family}
          cut={cutaway}
          restricted={(start.defaults.restrictorBarS2PerMl2 ?? 0) > 0}
          height={height}
          label={`Section: ${start.name}`}
        />
        <Box fontWeight={650} mt="2">
          {start.name}
        </Box>
        <Box fontSize="14px" color="quiet" mt="1">
          {start.pressure} {start.water}
        </Box>
      </Panel>
    </chakra.button>
  );
}
