import { Grid } from '@chakra-ui/react';
import { useQuery } from '@tanstack/react-query';
import { api, data } from '../shared/api/client';
import { useAccess } from '../shared/access/access';
import { Notice, Waiting } from '../shared/ui/elements';
import { BackupList } from './BackupList';
import { BinSettings } from './BinSettings';
import { SettingsTitle } from './SettingsTitle';
import { WhereDataLies } from './WhereDataLies';
import { storageKey } from './storage';

/** Where the data are, how large they are, and the copies of them. */
export default function StoragePage() {
  const { data: storage, error } = useQuery({ queryKey: storageKey, queryFn: () => data(api.GET('/api/storage')) });
  const { data: access } = useAccess();
  const atTheMachine = access?.atTheMachine !== false;
  return (
    <>
      <SettingsTitle title="Storage and backups" />
      {!storage ? (
        <Waiting error={error} />
      ) : (
        <Grid templateColumns={{ base: 'minmax(0,1fr)', lg: 'minmax(0,3fr) minmax(0,2fr)' }} gap="4" alignItems="start">
          {atTheMachine ? (
            <BackupList storage={storage} />
          ) : (
            <Notice>Backups and the bin are managed on the computer that Ruddy Spring runs on.</Notice>
          )}
          <Grid gap="4">
            <WhereDataLies storage={storage} />
            {atTheMachine && <BinSettings storage={storage} />}
          </Grid>
        </Grid>
      )}
    </>
  );
}
