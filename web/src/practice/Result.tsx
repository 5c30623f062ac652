import { Box, Flex, Grid } from '@chakra-ui/react';
import { Link } from 'react-router';
import type { Schemas } from '../shared/api/client';
import { Button, Figure, Panel } from '../shared/ui/elements';
import { number, useUnits } from '../shared/units/units';
import { scoreWords } from './scoreWords';
import { TextLink } from '../shared/ui/TextLink';

interface Props {
  result: Schemas['PracticeResult'];
  name: string;
  feel: string;
  again: () => void;
}

const truth = (factor: number) =>
  factor > 1.3 ? 'much finer than dialled in' : factor < 0.75 ? 'much coarser than dialled in' : 'about as dialled in';

/** What a lesson came to: points with their reasons, what would bring most next time, and where to go on. */
export function Result({ result, name, feel, again }: Props) {
  const units = useUnits();
  const { score, best, before } = result;
  return (
    <Panel>
      <Flex gap="6" wrap="wrap" align="flex-end" mb="3">
        <Figure label={`${name}, of 100`} value={score.points} size={84} />
        {before !== null && <Figure label="Last time" value={before} />}
        {best !== null && (
          <Figure label="Best before" value={best} note={score.points > best ? 'a new best' : undefined} />
        )}
      </Flex>
      <Box fontSize="20px" fontWeight={650} mb="3" data-testid="better">
        {score.better}
      </Box>
      <Grid gap="2" mb="4">
        {score.parts.map((part) => (
          <Grid
            key={part.of}
            templateColumns={{ base: '1fr 60px', md: '180px 60px minmax(0,200px) minmax(0,1fr)' }}
            gap="3"
            alignItems="center"
            borderTopWidth="1px"
            borderColor="hairline"
            py="2"
          >
            <Box fontWeight={650}>{scoreWords[part.of]}</Box>
            <Box textAlign="end" fontVariantNumeric="tabular-nums" fontWeight={650}>
              {part.points}
            </Box>
            <Box
              height="12px"
              bg="page"
              borderWidth="1px"
              borderColor="edge"
              display={{ base: 'none', md: 'block' }}
              aria-hidden="true"
            >
              <Box height="100%" bg="text" width={`${part.points}%`} />
            </Box>
            <Box gridColumn={{ base: '1 / -1', md: 'auto' }}>{units.sentence(part.sentence)}</Box>
          </Grid>
        ))}
      </Grid>
      <Box color="quiet" fontSize="14px" mb="4">
        The puck was {truth(result.grindFactor)}.
        {result.trueDropsSeconds !== null && ` First drops fell at ${number(result.trueDropsSeconds, 1)} s.`}
        {result.channelSeconds !== null && ` A channel opened at ${number(result.channelSeconds, 1)} s.`}
      </Box>
      <Flex gap="3" wrap="wrap">
        <Button size="big" tone="strong" onClick={again}>
          Play it again
        </Button>
        {result.next && (
          <Link
            to={`/practice/${result.next}${feel}`}
            style={{
              minHeight: 72,
              display: 'inline-flex',
              alignItems: 'center',
              padding: '0 24px',
              border: '1px solid var(--rs-colors-edge)',
              borderRadius: 3,
              fontWeight: 650,
              fontSize: 20,
              background: 'var(--rs-colors-panel)',
            }}
          >
            Next lesson
          </Link>
        )}
        <TextLink to={`/practice${feel}`} alignSelf="center" padding="12px">
          All lessons
        </TextLink>
      </Flex>
    </Panel>
  );
}
