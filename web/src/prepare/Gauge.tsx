import { Box, Flex } from '@chakra-ui/react';
import type { ReactNode } from 'react';
import { Reading } from '../shared/ui/elements';
import { Why } from '../shared/why/Why';

interface Props {
  label: string;
  value: string;
  unit: string;
  /** How much of the whole, 0 to 1 and beyond; null where there is no whole. */
  share: number | null;
  note: ReactNode;
  /** The card that explains it. */
  why: string;
  bad?: boolean;
  colour?: string;
}

/** A number against what there is of it: a small bar says how near the end one is. */
export function Gauge({ label, value, unit, share, note, why, bad, colour }: Props) {
  const filled = Math.max(0, Math.min(1, share ?? 0));
  return (
    <Box minWidth={0}>
      <Why of={why} from="sheet">
        <Box as="span" display="block" fontSize="13px" color="quiet" truncate>
          {label}
        </Box>
        <Flex as="span" align="baseline" gap="1" lineHeight={1.15} color={bad ? 'oxide' : (colour ?? 'text')}>
          <Reading fontSize="24px">{value}</Reading>
          <Box as="span" fontSize="14px" whiteSpace="nowrap">
            {unit}
          </Box>
        </Flex>
      </Why>
      {share !== null && (
        <Box height="6px" my="0.5" borderWidth="1px" borderColor="edge" aria-hidden="true">
          <Box
            height="100%"
            width={`${filled * 100}%`}
            bg={bad ? 'oxide' : 'resistance'}
            bgImage={bad ? 'repeating-linear-gradient(45deg, transparent 0 4px, rgb(0 0 0 / 25%) 4px 6px)' : undefined}
          />
        </Box>
      )}
      <Box fontSize="13px" color={bad ? 'oxide' : 'quiet'}>
        {note}
      </Box>
    </Box>
  );
}
