import { Drawer, Portal } from '@chakra-ui/react';
import type { ReactNode } from 'react';
import { Button } from './Button';

interface Props {
  title: string;
  close: () => void;
  /** What stands at its foot: a button that closes it where nothing is said, nothing where it is null. */
  foot?: ReactNode;
  children: ReactNode;
}

/** Something that is changed beside the page; it closes by its button, by Escape or by a press beside it. */
export function SidePanel({ title, close, foot, children }: Props) {
  return (
    <Drawer.Root open onOpenChange={({ open }) => !open && close()} lazyMount unmountOnExit>
      <Portal>
        <Drawer.Backdrop />
        <Drawer.Positioner>
          <Drawer.Content>
            <Drawer.Header>
              <Drawer.Title>{title}</Drawer.Title>
            </Drawer.Header>
            <Drawer.Body>{children}</Drawer.Body>
            {foot !== null && (
              <Drawer.Footer>
                {foot ?? (
                  <Button tone="strong" onClick={close}>
                    Done
                  </Button>
                )}
              </Drawer.Footer>
            )}
          </Drawer.Content>
        </Drawer.Positioner>
      </Portal>
    </Drawer.Root>
  );
}
