import { Box, Flex } from '@chakra-ui/react';
import type { Schemas } from '../shared/api/client';
import { timeOfDay } from '../shared/clock';
import { Button, H2, Reading } from '../shared/ui/elements';

type Session = Schemas['SessionView'];

/** The plan before it is kept: what will be done and when. */
export function Proposal({ session, start, busy }: { session: Session; start: () => void; busy: boolean }) {
  const origin = Date.parse(session.originAt);
  return (
    <>
      <Flex justify="space-between" align="center" gap="3" mb="2">
        <H2 mb="0">The plan</H2>
        <Button tone="strong" disabled={busy} onClick={start}>
          Keep this plan
        </Button>
      </Flex>
      <Box as="ol" aria-label="Planned steps" listStyleType="none" tabIndex={0} maxHeight="400px" overflowY="auto">
        {session.steps.map((s) => (
          <Flex as="li" key={s.key} gap="3" py="1" borderTopWidth="1px" borderColor="hairline" align="baseline">
            <Reading width="44px">{timeOfDay(origin + s.startSeconds * 1000)}</Reading>
            <Box flex="1">{s.title}</Box>
            {s.handsFree && (
              <Box fontSize="13px" color="quiet">
                alongside
              </Box>
            )}
          </Flex>
        ))}
      </Box>
    </>
  );
}
