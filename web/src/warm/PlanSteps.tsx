import { Box, chakra, Flex } from '@chakra-ui/react';
import type { ReactNode } from 'react';
import type { Schemas } from '../shared/api/client';
import { minutes, timeOfDay } from '../shared/clock';
import { Fold } from '../shared/ui/Fold';
import { H2, Reading } from '../shared/ui/elements';
import { openSteps } from './steps';

type Session = Schemas['SessionView'];
type Step = Session['steps'][number];

interface Props {
  session: Session;
  /** The step that is shown large beside the list. */
  shown: string | undefined;
  choose: (key: string) => void;
  /** What can be done with the plan as a whole. */
  children: ReactNode;
}

/** The plan as it goes on: what is still to be done, any of which can be taken first, and what was done. */
export function PlanSteps({ session, shown, choose, children }: Props) {
  const origin = Date.parse(session.originAt);
  const done = session.steps.filter((s) => s.state === 'Done' || s.state === 'Skipped');
  const open = openSteps(session);
  return (
    <>
      <H2 mb="2">The plan</H2>
      <Box as="ol" aria-label="Steps still to do" listStyleType="none" tabIndex={0} maxHeight="300px" overflowY="auto">
        {open
          .filter((s) => s.key !== shown)
          .map((s) => (
            <StepRow key={s.key} step={s} originMs={origin} choose={() => choose(s.key)} />
          ))}
      </Box>
      {done.length > 0 && (
        <Fold title="Done so far" note={String(done.length)}>
          <Box as="ol" aria-label="Steps done" listStyleType="none">
            {done.map((s) => (
              <Flex as="li" key={s.key} gap="3" fontSize="14px" color="quiet" py="0.5">
                <Reading width="44px">{timeOfDay(origin + (s.startSeconds + s.seconds) * 1000)}</Reading>
                <Box>
                  {s.title}
                  {s.state === 'Skipped' ? ', skipped' : ''}
                </Box>
              </Flex>
            ))}
          </Box>
        </Fold>
      )}
      <Flex gap="2" mt="2" wrap="wrap" align="center">
        {children}
      </Flex>
    </>
  );
}

function StepRow({ step, originMs, choose }: { step: Step; originMs: number; choose: () => void }) {
  return (
    <Box as="li" borderTopWidth="1px" borderColor="hairline">
      <chakra.button
        type="button"
        onClick={choose}
        display="flex"
        gap="3"
        width="100%"
        minHeight={{ base: '44px', md: '34px' }}
        alignItems="center"
        textAlign="start"
        cursor="pointer"
      >
        <Reading width="44px">{timeOfDay(originMs + step.startSeconds * 1000)}</Reading>
        <Box as="span" flex="1" minWidth={0}>
          {step.title}
          {step.state === 'UnderWay' ? ' (under way)' : ''}
        </Box>
        {step.seconds >= 20 && (
          <Box as="span" fontSize="13px">
            {minutes(step.seconds)}
            {step.handsFree ? ' alongside' : ''}
          </Box>
        )}
      </chakra.button>
    </Box>
  );
}
