import { Box, Dialog, Flex, Grid, Portal } from '@chakra-ui/react';
import { Button, H2 } from '../ui/elements';
import { LettersSwitch } from './LettersSwitch';
import { useShortcutList } from './shortcuts';

const names: Record<string, string> = {
  ' ': 'space',
  ArrowUp: 'arrow up',
  ArrowDown: 'arrow down',
  Enter: 'enter',
  Escape: 'escape',
};

/** Every key that works on this page, and the switch for single letters. */
export default function KeyHelp({ close }: { close: () => void }) {
  const { groups } = useShortcutList();
  return (
    <Dialog.Root open onOpenChange={({ open }) => !open && close()} unstyled>
      <Portal>
        <Dialog.Backdrop position="fixed" inset="0" bg="rgb(0 0 0 / 45%)" zIndex={20} />
        <Dialog.Positioner
          position="fixed"
          inset="0"
          zIndex={21}
          display="grid"
          placeItems="center"
          p="3"
          overflowY="auto"
        >
          <Dialog.Content
            bg="panel"
            color="text"
            borderWidth="1px"
            borderColor="edge"
            borderRadius="small"
            p="5"
            width="100%"
            maxWidth="520px"
          >
            <Dialog.Title asChild>
              <H2>Keys on this page</H2>
            </Dialog.Title>
            {groups.map((group) => (
              <Box key={group.name} mb="3">
                <Box fontSize="13px" color="quiet">
                  {group.name}
                </Box>
                {group.shortcuts.map((s) => (
                  <Grid
                    key={s.key}
                    templateColumns="110px minmax(0,1fr)"
                    py="1"
                    borderTopWidth="1px"
                    borderColor="hairline"
                  >
                    <Box as="kbd" fontWeight={650}>
                      {names[s.key] ?? s.key.toUpperCase()}
                    </Box>
                    <Box>{s.does}</Box>
                  </Grid>
                ))}
              </Box>
            ))}
            <Box fontSize="14px" color="quiet">
              Keys work wherever the focus is, but not while you type in a field. Enter presses the button that has the
              focus.
            </Box>
            <LettersSwitch />
            <Flex justify="flex-end" mt="2">
              <Button onClick={close}>Close</Button>
            </Flex>
          </Dialog.Content>
        </Dialog.Positioner>
      </Portal>
    </Dialog.Root>
  );
}
