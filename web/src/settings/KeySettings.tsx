import { Box } from '@chakra-ui/react';
import { LettersSwitch } from '../shared/keys/LettersSwitch';
import { useShortcutList } from '../shared/keys/shortcuts';
import { H2, Panel } from '../shared/ui/elements';

/** Whether single letters do something; the list of keys is behind the question mark on every page. */
export function KeySettings() {
  const { letters } = useShortcutList();
  return (
    <Panel>
      <H2>Keys</H2>
      <LettersSwitch />
      <Box fontSize="14px" color="quiet">
        {letters
          ? 'Press ? on any page for the keys that work there.'
          : 'Space, enter and the arrow keys still work. Every button does what its letter would.'}
      </Box>
    </Panel>
  );
}
