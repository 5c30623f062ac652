import { Box } from '@chakra-ui/react';
import type { Schemas } from '../api/client';
import { Caution } from './elements';
import { inOurUnits } from '../units/marks';

interface Props {
  title: string;
  checks: readonly Schemas['PullCheck'][];
}

/** What to make sure of before the pressure or after it, large enough to read with a portafilter in the hand. */
export function CheckList({ title, checks }: Props) {
  return (
    <Box alignContent="center">
      <Box fontWeight={650} fontSize="20px" mb="2">
        {title}
      </Box>
      <Box as="ol" listStyleType="none">
        {checks.map((check, i) => (
          <Box
            as="li"
            key={inOurUnits(check.text)}
            display="flex"
            gap="3"
            py="2"
            borderTopWidth="1px"
            borderColor="hairline"
            fontSize="18px"
          >
            <Box as="span" fontWeight={650} minWidth="24px">
              {i + 1}
            </Box>
            {check.isCaution ? (
              <Box fontSize="18px" flex="1" css={{ '& > div': { fontSize: '18px', paddingBlock: 0 } }}>
                <Caution>{inOurUnits(check.text)}</Caution>
              </Box>
            ) : (
              <Box flex="1">{inOurUnits(check.text)}</Box>
            )}
          </Box>
        ))}
      </Box>
    </Box>
  );
}
