import { Box, Collapsible } from '@chakra-ui/react';
import { ChevronRight } from 'lucide-react';
import type { ReactNode } from 'react';

interface Props {
  /** What lies behind it. */
  title: ReactNode;
  /** A word about it that is seen while it is closed. */
  note?: ReactNode;
  open?: boolean;
  children: ReactNode;
}

/** What is rarely changed, behind one line that opens in place. */
export function Fold({ title, note, open, children }: Props) {
  return (
    <Collapsible.Root defaultOpen={open} lazyMount unmountOnExit>
      <Collapsible.Trigger>
        <Collapsible.Indicator>
          <ChevronRight aria-hidden="true" />
        </Collapsible.Indicator>
        <Box as="span" flexShrink={0}>
          {title}
        </Box>
        {note && (
          <Box as="span" color="quiet" fontWeight={400} fontSize="14px">
            {note}
          </Box>
        )}
      </Collapsible.Trigger>
      <Collapsible.Content>{children}</Collapsible.Content>
    </Collapsible.Root>
  );
}
