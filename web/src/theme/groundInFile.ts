import type { SystemContext } from '@chakra-ui/react';

/** A system whose reset, base styles, tokens and order of layers come as a file, and are not put in by script. */
export const groundInFile = (system: SystemContext): SystemContext => ({
  ...system,
  _global: [],
  _config: { ...system._config, disableLayers: true },
});
