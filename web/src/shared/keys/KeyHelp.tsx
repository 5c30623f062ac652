import { Box, Grid } from '@chakra-ui/react';
import { Button } from '../ui/elements';
import { Modal } from '../ui/Modal';
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
    <Modal title="Keys on this page" close={close} foot={<Button onClick={close}>Close</Button>}>
      {groups.map((group) => (
        <Box key={group.name} mb="3">
          <Box fontSize="13px" color="quiet">
            {group.name}
          </Box>
          {group.shortcuts.map((s) => (
            <Grid key={s.key} templateColumns="110px minmax(0,1fr)" py="1" borderTopWidth="1px" borderColor="hairline">
              <Box as="kbd" fontWeight={650}>
                {names[s.key] ?? s.key.toUpperCase()}
              </Box>
              <Box>{s.does}</Box>
            </Grid>
          ))}
        </Box>
      ))}
      <Box fontSize="14px" color="quiet">
        Keys work wherever the focus is, but not while you type in a field. Enter presses the button that has the focus.
      </Box>
      <LettersSwitch />
    </Modal>
  );
}
