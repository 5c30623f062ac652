import { Box, Flex } from '@chakra-ui/react';
import type { ReactNode } from 'react';
import { Reading } from '../shared/ui/elements';

interface Props {
  label: string;
  value: string;
  unit: string;
  /** How much of the whole, 0 to 1 and beyond. */
  share: number | null;
  wholeLabel: string;
  bad?: boolean;
  children?: ReactNode;
}

/** A number against what there is of it: a bar that says how near the end one is. */
export function Gauge({ label, value, unit, share, wholeLabel, bad, children }: Props) {
  const filled = Math.max(0, Math.min(1, share ?? 0));
  return (
    <Box>
      <Flex justify="space-between" align="baseline" gap="3">
        <Box fontSize="13px" color="quiet">
          {label}
        </Box>
        <Box fontSize="13px" color="quiet">
          {wholeLabel}
        </Box>
      </Flex>
      <Flex align="baseline" gap="1.5" lineHeight={1.1}>
        <Reading style={{ fontSize: '34px' }} color={bad ? 'oxide' : 'text'}>
          {value}
        </Reading>
        <Box fontSize="15px">{unit}</Box>
      </Flex>
      {share !== null && (
        <Box height="8px" mt="1" borderWidth="1px" borderColor="edge" aria-hidden="true">
          <Box
            height="100%"
            width={`${filled * 100}%`}
            bg={bad ? 'oxide' : 'resistance'}
            style={
              bad
                ? { backgroundImage: 'repeating-linear-gradient(45deg, transparent 0 4px, rgb(0 0 0 / 25%) 4px 6px)' }
                : undefined
            }
          />
        </Box>
      )}
      <Box fontSize="14px" mt="1" color={bad ? 'oxide' : 'quiet'} role={bad ? 'alert' : undefined}>
        {children}
      </Box>
    </Box>
  );
}
