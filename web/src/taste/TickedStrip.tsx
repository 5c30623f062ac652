import { Box, Flex } from '@chakra-ui/react';
import { useState } from 'react';
import type { Schemas } from '../shared/api/client';
import { Check } from '../shared/ui/Check';
import { Caution, Panel } from '../shared/ui/elements';
import { inOurUnits } from '../shared/units/marks';

interface Props {
  title: string;
  checks: readonly Schemas['PullCheck'][];
}

/** What to do now, one after the other; it is gone when all of it is ticked. */
export function TickedStrip({ title, checks }: Props) {
  const [ticked, setTicked] = useState<readonly string[]>([]);
  const left = checks.filter((c) => !ticked.includes(c.text));
  if (left.length === 0) return null;
  return (
    <Panel mb="4" py={{ base: '2', md: '2' }}>
      <Flex gap="4" rowGap="1" wrap="wrap" align="center">
        <Box fontWeight={650}>{title}</Box>
        {left.map((check) => (
          <Check
            key={inOurUnits(check.text)}
            checked={false}
            onChange={() => setTicked((before) => [...before, check.text])}
          >
            {check.isCaution ? <Caution>{inOurUnits(check.text)}</Caution> : inOurUnits(check.text)}
          </Check>
        ))}
      </Flex>
    </Panel>
  );
}
