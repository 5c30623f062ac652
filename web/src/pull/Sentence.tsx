import { Box } from '@chakra-ui/react';
import { useEffect, useState } from 'react';
import type { Schemas } from '../shared/api/client';
import { live } from '../shell/live';

/** One sentence: what to do now and what ends it. Re-rendered only when it changes, so that a screen reader hears each once. */
export function Sentence({ view }: { view: Schemas['PullView'] }) {
  const [text, setText] = useState(view.frame.reading?.sentence ?? '');
  useEffect(() => {
    const stop = live.onFrame((frame) => setText(frame.reading?.sentence ?? ''));
    return () => {
      stop();
    };
  }, []);
  return (
    <Box
      aria-live="assertive"
      data-testid="sentence"
      fontSize={{ base: '22px', md: '34px' }}
      fontWeight={650}
      lineHeight={1.15}
      minHeight={{ base: '52px', md: '44px' }}
    >
      {text}
    </Box>
  );
}
