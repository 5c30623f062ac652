import { Box, Flex } from '@chakra-ui/react';
import { useMutation } from '@tanstack/react-query';
import { api, data, type Schemas } from '../shared/api/client';
import { useLearned } from '../shared/api/queries';
import { Button, Notice } from '../shared/ui/elements';
import { number, useUnits } from '../shared/units/units';
import { useDevices, type LivePull } from '../shared/live/live';

type Channel = Schemas['Channel'];

const origin: Record<Channel, string> = {
  Pressure: 'gauge',
  Weight: 'scale',
  Temperature: 'thermometer',
  Group: 'group',
  Force: 'hand force',
  Flow: 'flow',
};

interface Props {
  pulls: readonly LivePull[];
  /** The pull on this screen. */
  shown: string | null;
  /** Water that makes the yield, for those who meter the shot by it. */
  waterGrams: number;
}

/** Which instruments are there, what they say, and of which pull they tell. */
export function Instruments({ pulls, shown: pull, waterGrams }: Props) {
  const units = useUnits();
  const devices = useDevices();
  const { data: learned } = useLearned();
  const give = useMutation({
    mutationFn: (device: string) =>
      data(api.POST('/api/pull/instrument', { params: { query: { pull: pull! } }, body: { device } })),
  });
  const noScale = !devices.some((d) => d.channels.includes('Weight'));
  const meter = noScale && (
    <Notice>
      No scale is connected: {number(waterGrams, 0)} g of water in all makes the yield, so stop when that much has gone
      in.
    </Notice>
  );
  if (devices.length === 0) {
    return (
      <Box>
        <Notice>
          No instrument is connected. Start the clock by hand and mark first drops, ease and stop with the keys; the
          pressure is then assumed to follow the plan, and it is not used in calculations.
        </Notice>
        {meter}
      </Box>
    );
  }
  return (
    <Flex gap="4" wrap="wrap" fontSize="14px">
      {devices.map((device) => (
        <Box key={device.name} minWidth={0}>
          <Box fontWeight={650}>{device.name}</Box>
          <Box color="quiet">
            {device.silent
              ? 'connected and silent'
              : Object.entries(device.latest)
                  .map(
                    ([channel, value]) => `${origin[channel as Channel]}: ${units.channel(channel as Channel, value)}`,
                  )
                  .join(', ')}
          </Box>
          {learned?.scales
            .filter((s) => s.of === device.name)
            .map((s) => (
              <Box key={s.of} color="quiet" title={`From ${s.pulls} ${s.pulls === 1 ? 'pull' : 'pulls'}`}>
                shows late by {number(s.seconds, 2)} s ({number(s.low!, 2)} to {number(s.high!, 2)})
              </Box>
            ))}
          {pull && !pulls.find((p) => p.id === pull)?.devices.includes(device.name) && (
            <Button onClick={() => give.mutate(device.name)} disabled={give.isPending}>
              Use it for this pull
            </Button>
          )}
          {device.problems.at(-1) && <Box color="oxide">{units.sentence(device.problems.at(-1)!)}</Box>}
        </Box>
      ))}
      {meter}
    </Flex>
  );
}
