import { chakra } from '@chakra-ui/react';
import type { ReactNode } from 'react';

/** The key that does the same, for those who have one. */
export function Key({ children }: { children: ReactNode }) {
  return (
    <chakra.kbd
      display={{ base: 'none', lg: 'inline' }}
      fontSize="14px"
      fontWeight={400}
      borderWidth="1px"
      borderRadius="small"
      px="1.5"
      aria-hidden="true"
    >
      {children}
    </chakra.kbd>
  );
}
