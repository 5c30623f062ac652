import { Volume2, VolumeX } from 'lucide-react';
import { useSyncExternalStore } from 'react';
import { Button } from '../shared/ui/elements';
import { sound } from '../shared/session/stepSound';

/** Sound at each step, on or off; it is remembered on this screen. */
export function SoundSwitch() {
  const on = useSyncExternalStore(sound.subscribe, sound.isOn);
  return (
    <Button aria-pressed={on} onClick={() => sound.set(!on)}>
      {on ? <Volume2 size={18} aria-hidden="true" /> : <VolumeX size={18} aria-hidden="true" />}
      {on ? 'Sound on' : 'Sound off'}
    </Button>
  );
}
