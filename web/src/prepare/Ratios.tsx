import { Box, Flex } from '@chakra-ui/react';
import { memo } from 'react';
import type { Schemas } from '../shared/api/client';
import { Button } from '../shared/ui/elements';
import { ownText } from '../shared/units/decimals';

interface Props {
  ratios: readonly Schemas['RatioView'][];
  yieldGrams: number;
  change: (part: Partial<Schemas['Sheet']>) => void;
}

/** Where dose, yield and grind stand in one row, these take two thirds of the next. */
const across = { '@media (768px <= width < 1024px) or (width >= 1200px)': { gridColumn: 'span 2' } };

/** The yields that the schools ask of this roast. */
export const Ratios = memo(function Ratios({ ratios, yieldGrams, change }: Props) {
  if (ratios.length === 0) return null;
  return (
    <Box role="group" aria-label="Ratios for this roast" css={across}>
      <Box fontSize="13px" color="quiet" mb="1">
        Ratios for this roast
      </Box>
      <Flex gap="1">
        {ratios.map((r) => (
          <Button
            key={r.school}
            disabled={!r.fits}
            aria-pressed={yieldGrams === r.yieldGrams}
            title={r.fits ? r.why : 'more than this machine gives from this dose'}
            onClick={() => change({ yieldGrams: r.yieldGrams })}
            fontWeight={yieldGrams === r.yieldGrams ? 650 : 400}
            px="1"
            gap="0"
            columnGap="1"
            flex="1"
            fontSize="13px"
            flexWrap="wrap"
          >
            {r.school}
            <Box as="span" whiteSpace="nowrap">
              1 : {ownText(r.ratio)}
            </Box>
          </Button>
        ))}
      </Flex>
    </Box>
  );
});
