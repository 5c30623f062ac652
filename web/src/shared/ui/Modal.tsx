import { Dialog, Portal } from '@chakra-ui/react';
import type { ReactNode } from 'react';

interface Props {
  title: string;
  close: () => void;
  foot?: ReactNode;
  children: ReactNode;
}

/** A question or a small form over the page; Escape and a press beside it close it. */
export function Modal({ title, close, foot, children }: Props) {
  return (
    <Dialog.Root open onOpenChange={({ open }) => !open && close()} lazyMount unmountOnExit>
      <Portal>
        <Dialog.Backdrop />
        <Dialog.Positioner>
          <Dialog.Content>
            <Dialog.Header>
              <Dialog.Title>{title}</Dialog.Title>
            </Dialog.Header>
            <Dialog.Body>{children}</Dialog.Body>
            {foot && <Dialog.Footer>{foot}</Dialog.Footer>}
          </Dialog.Content>
        </Dialog.Positioner>
      </Portal>
    </Dialog.Root>
  );
}
