import { Box, Grid } from '@chakra-ui/react';
import { Figure, H2, Panel } from '../shared/ui/elements';
import { bytes } from './bytes';
import type { Storage } from './storage';

/** The folder and the sizes. */
export function WhereDataLies({ storage }: { storage: Storage }) {
  const size = (label: string, of: number, note?: string) => {
    const [value, unit] = bytes(of).split(' ');
    return <Figure label={label} value={value} unit={unit} size={26} note={note} />;
  };
  return (
    <Panel>
      <H2>Where the data is kept</H2>
      <Grid templateColumns="repeat(auto-fit, minmax(120px, 1fr))" gap="3">
        {size('Database', storage.databaseBytes)}
        {size('of which traces', storage.traceBytes)}
        {size('of which photos', storage.photoBytes)}
        {size('Backups', storage.backupBytes)}
        {storage.freeBytes !== null && size('Free on the disk', storage.freeBytes)}
      </Grid>
      <Box fontSize="14px" color="quiet" mt="3" overflowWrap="anywhere">
        Everything is in {storage.folder}, the backups in {storage.backupFolder}. Stop the application before you copy
        the folder by hand; a backup can be saved at any time.
      </Box>
      {storage.spareBytes > 1_000_000 && (
        <Box fontSize="14px" color="quiet" mt="2">
          {bytes(storage.spareBytes)} of the database are free again since something was deleted. New shots take that
          room first.
        </Box>
      )}
    </Panel>
  );
}
