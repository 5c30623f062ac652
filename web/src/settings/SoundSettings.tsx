import { Box, Grid } from '@chakra-ui/react';
import { useSyncExternalStore } from 'react';
import { SoundChoice } from '../shared/instruments/SoundChoice';
import { sound } from '../shared/session/stepSound';
import { Check } from '../shared/ui/Check';
import { H2, Panel } from '../shared/ui/elements';

/** What is heard on this screen: the steps of a session, and the cues of a pull. */
export function SoundSettings() {
  const steps = useSyncExternalStore(sound.subscribe, sound.isOn);
  return (
    <Panel>
      <H2>Sounds</H2>
      <Grid gap="3">
        <Check checked={steps} onChange={(on) => sound.set(on)}>
          A tone at each step of a session
        </Check>
        <Box>
          <Box mb="2">During a pull</Box>
          <SoundChoice />
        </Box>
        <Box fontSize="14px" color="quiet">
          Saved on this device only. Each choice can be heard at once; a browser plays nothing before the first touch or
          key.
        </Box>
      </Grid>
    </Panel>
  );
}
