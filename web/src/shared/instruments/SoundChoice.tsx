import { Flex } from '@chakra-ui/react';
import { useSyncExternalStore } from 'react';
import { Button } from '../ui/elements';
import { pullSound, type Loudness } from './pullSound';

const levels: [Loudness, string][] = [
  ['off', 'Sound off'],
  ['quiet', 'Quiet'],
  ['full', 'Full'],
];

/** How loud the tones are, and whether sentences are spoken where the system can. */
export function SoundChoice() {
  useSyncExternalStore(pullSound.subscribe, pullSound.snapshot);
  const speaks = 'speechSynthesis' in window;
  return (
    <Flex gap="2" wrap="wrap" role="group" aria-label="Sound of the pull" align="center">
      {levels.map(([level, name]) => (
        <Button
          key={level}
          minHeight="64px"
          aria-pressed={pullSound.loudness === level}
          fontWeight={pullSound.loudness === level ? 650 : 400}
          borderWidth={pullSound.loudness === level ? '2px' : '1px'}
          onClick={() => pullSound.set(level, pullSound.speech)}
        >
          {pullSound.loudness === level ? '\u2713 ' : ''}
          {name}
        </Button>
      ))}
      {speaks && (
        <Button
          minHeight="64px"
          aria-pressed={pullSound.speech}
          fontWeight={pullSound.speech ? 650 : 400}
          borderWidth={pullSound.speech ? '2px' : '1px'}
          onClick={() => pullSound.set(pullSound.loudness, !pullSound.speech)}
        >
          {pullSound.speech ? '\u2713 ' : ''}Say it aloud
        </Button>
      )}
    </Flex>
  );
}
