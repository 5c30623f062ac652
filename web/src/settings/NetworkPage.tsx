import { Grid } from '@chakra-ui/react';
import { useQuery } from '@tanstack/react-query';
import { api, data } from '../shared/api/client';
import { useAccess } from '../shared/access/access';
import { Waiting } from '../shared/ui/elements';
import { ComeIn } from './ComeIn';
import { InstrumentKeys } from './InstrumentKeys';
import { networkKey } from './network';
import { OpenDoor } from './OpenDoor';
import { SettingsTitle } from './SettingsTitle';
import { SignedInDevices } from './SignedInDevices';
import { ThisDevice } from './ThisDevice';

/** The tablet beside the lever: how it comes in, and who may. */
export default function NetworkPage() {
  const { data: access, error } = useAccess();
  const atTheMachine = access?.atTheMachine === true;
  const { data: network, error: closed } = useQuery({
    queryKey: networkKey,
    queryFn: () => data(api.GET('/api/network')),
    enabled: atTheMachine,
  });
  return (
    <>
      <SettingsTitle title="Home network" />
      {access && !atTheMachine ? (
        <ThisDevice access={access} />
      ) : network ? (
        <Grid templateColumns={{ base: 'minmax(0,1fr)', lg: 'minmax(0,1fr) minmax(0,1fr)' }} gap="4" alignItems="start">
          <Grid gap="4">
            {network.isOn && <ComeIn network={network} />}
            <OpenDoor network={network} />
          </Grid>
          <Grid gap="4">
            <SignedInDevices network={network} />
            <InstrumentKeys network={network} />
          </Grid>
        </Grid>
      ) : (
        <Waiting error={error ?? closed} />
      )}
    </>
  );
}
