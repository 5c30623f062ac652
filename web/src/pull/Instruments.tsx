import { Box, Flex } from '@chakra-ui/react';
import type { Schemas } from '../shared/api/client';
import { Notice } from '../shared/ui/elements';
import { number, useUnits } from '../shared/units/units';

const origin: Record<string, string> = { Pressure: 'gauge', Weight: 'scale', Temperature: 'thermometer' };

/** Which instruments are there and what they say. */
export function Instruments({ devices }: { devices: readonly Schemas['DeviceView'][] }) {
  const units = useUnits();
  if (devices.length === 0) {
    return (
      <Notice>
        No instrument is connected. Start the clock by hand and mark first drops, ease and stop with the keys; the trace then
        holds those moments only.
      </Notice>
    );
  }
  const shown = (channel: string, value: number) => {
    if (channel === 'Pressure') return `${units.pressure(value, 2).value} ${units.pressureUnit}`;
    if (channel === 'Temperature') return `${units.temperature(value, 1).value} ${units.temperature(0).unit}`;
    return `${number(value, 1)} g`;
  };
  return (
    <Flex gap="4" wrap="wrap" fontSize="14px">
      {devices.map((device) => (
        <Box key={device.name} minWidth={0}>
          <Box fontWeight={650}>{device.name}</Box>
          <Box color="quiet">
            {device.silent
              ? 'connected and silent'
              : Object.entries(device.latest)
                  .map(([channel, value]) => `${origin[channel] ?? channel}: ${shown(channel, value)}`)
                  .join(', ')}
          </Box>
          {device.problems.at(-1) && <Box color="oxide">{device.problems.at(-1)}</Box>}
        </Box>
      ))}
    </Flex>
  );
}
