import { Box, Collapsible, Flex } from '@chakra-ui/react';
import { ChevronRight } from 'lucide-react';
import { useState, type ReactNode } from 'react';

interface Props {
  /** What lies behind it. */
  title: ReactNode;
  /** A word about it that is seen while it is closed. */
  note?: ReactNode;
  /** Whether it has to be open: it opens as this becomes true, and can be closed again. */
  open?: boolean;
  children: ReactNode;
}

/** What is rarely changed, behind one line that opens in place. */
export function Fold({ title, note, open = false, children }: Props) {
  const [isOpen, setOpen] = useState(open);
  const [had, setHad] = useState(open);
  if (open !== had) {
    setHad(open);
    if (open) setOpen(true);
  }
  return (
    <Collapsible.Root open={isOpen} onOpenChange={(next) => setOpen(next.open)} lazyMount unmountOnExit>
      <Collapsible.Trigger>
        <Collapsible.Indicator>
          <ChevronRight aria-hidden="true" />
        </Collapsible.Indicator>
        <Flex as="span" wrap="wrap" align="baseline" columnGap="2" minWidth={0}>
          <span>{title}</span>
          {note && (
            <Box as="span" color="quiet" fontWeight={400} fontSize="14px">
              {note}
            </Box>
          )}
        </Flex>
      </Collapsible.Trigger>
      <Collapsible.Content>{children}</Collapsible.Content>
    </Collapsible.Root>
  );
}
