import { shortcuts, useShortcutList } from './shortcuts';
import { Check } from '../ui/Check';

/** Whether single letters do something. */
export function LettersSwitch() {
  const { letters } = useShortcutList();
  return (
    <Check checked={letters} onChange={(on) => shortcuts.switchLetters(on)}>
      Single-letter shortcuts
    </Check>
  );
}
