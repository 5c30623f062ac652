import type { SystemContext } from '@chakra-ui/react';

/** Of a system whose reset, base styles, tokens and layers come as a file: nothing of it is put in by script. */
export const groundInFile: Partial<SystemContext> = {
  _global: [],
  // of the configuration only this is looked at once a system is made
  _config: { disableLayers: true },
};
