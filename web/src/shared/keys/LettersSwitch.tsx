import { Flex } from '@chakra-ui/react';
import { shortcuts, useShortcutList } from './shortcuts';

/** Whether single letters do something. */
export function LettersSwitch() {
  const { letters } = useShortcutList();
  return (
    <Flex as="label" gap="3" align="center" minHeight="44px">
      <input
        type="checkbox"
        checked={letters}
        onChange={(e) => shortcuts.switchLetters(e.target.checked)}
        style={{ width: 20, height: 20 }}
      />
      Single letters do something
    </Flex>
  );
}
