import { Box, Flex } from '@chakra-ui/react';
import { useEffect, useRef } from 'react';
import { Notice, Reading } from '../shared/ui/elements';
import { live } from '../shared/live/live';
import { useNow } from '../shared/clock';
import { number } from '../shared/units/units';
import { lateDeedsOf } from './lateDeeds';

const tickMs = 200;

/** While the server is out of reach: that the pull goes on, and its clock by this screen. */
export function LateNotice({ pullId, running }: { pullId: string; running: boolean }) {
  const now = useNow(tickMs);
  const heard = useRef<{ seconds: number; atMs: number } | null>(null);
  useEffect(
    () =>
      live.onFrame(pullId, (frame) => {
        if (frame.reading && frame.stage === 'Running')
          heard.current = { seconds: frame.reading.seconds, atMs: Date.now() };
      }),
    [pullId],
  );
  const { begunAtMs } = lateDeedsOf(pullId);
  const last = heard.current;
  const seconds = begunAtMs !== null ? (now - begunAtMs) / 1000 : last ? last.seconds + (now - last.atMs) / 1000 : null;
  return (
    <Flex gap="4" align="center" wrap="wrap">
      <Box flex="1 1 300px">
        <Notice role="status">
          The server is out of reach. Keep pulling: what you mark and follow here is kept, and sent when it is back.
        </Notice>
      </Box>
      {running && seconds !== null && <Reading fontSize="44px">{number(Math.max(0, seconds), 0)} s</Reading>}
    </Flex>
  );
}
