import { Box } from '@chakra-ui/react';
import { useMutation } from '@tanstack/react-query';
import { api, data, sentenceOf } from '../shared/api/client';
import { dayOf, momentOf } from '../shared/clock';
import { Button, H2, Notice, Panel } from '../shared/ui/elements';
import { Table } from '../shared/ui/Table';
import { useKeepNetwork, type Network } from './network';

/** Who has signed in, and signing them out. */
export function SignedInDevices({ network }: { network: Network }) {
  const keep = useKeepNetwork();
  const signOut = useMutation({
    mutationFn: (id: string) => data(api.DELETE('/api/network/devices/{id}', { params: { path: { id } } })),
    onSuccess: keep,
  });
  return (
    <Panel>
      <H2>Devices</H2>
      {network.devices.length === 0 ? (
        <Box color="quiet">No device has signed in.</Box>
      ) : (
        <Table
          label="Devices that have signed in"
          head={['Device', 'Last seen', 'Do']}
          rows={network.devices.map((device) => ({
            key: device.id,
            cells: [
              <Box key="name">
                {device.name}
                <Box fontSize="14px" color="quiet">
                  since {dayOf(device.since)}, from {device.address}
                </Box>
              </Box>,
              momentOf(device.lastSeen),
              <Button
                key="out"
                tone="quiet"
                aria-label={`Sign ${device.name} out`}
                onClick={() => signOut.mutate(device.id)}
              >
                Sign out
              </Button>,
            ],
          }))}
        />
      )}
      {signOut.error && <Notice role="alert">{sentenceOf(signOut.error)}</Notice>}
    </Panel>
  );
}
