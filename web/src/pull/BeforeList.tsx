import { Box } from '@chakra-ui/react';
import type { Schemas } from '../shared/api/client';
import { Caution } from '../shared/ui/elements';

/** What to make sure of before any pressure, large enough to read with a portafilter in the hand. */
export function BeforeList({ before, minHeight }: { before: readonly Schemas['BeforePressure'][]; minHeight?: number }) {
  return (
    <Box minHeight={minHeight ? `${minHeight}px` : undefined} alignContent="center">
      <Box fontWeight={650} fontSize="20px" mb="2">
        Before any pressure
      </Box>
      <Box as="ol" style={{ listStyle: 'none' }}>
        {before.map((b, i) => (
          <Box as="li" key={b.text} display="flex" gap="3" py="2" borderTopWidth="1px" borderColor="hairline" fontSize="18px">
            <Box as="span" fontWeight={650} minWidth="24px">
              {i + 1}
            </Box>
            {b.isCaution ? (
              <Box fontSize="18px" flex="1" css={{ '& > div': { fontSize: '18px', paddingBlock: 0 } }}>
                <Caution>{b.text}</Caution>
              </Box>
            ) : (
              <Box flex="1">{b.text}</Box>
            )}
          </Box>
        ))}
      </Box>
    </Box>
  );
}
