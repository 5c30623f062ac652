import { Box, Flex } from '@chakra-ui/react';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { Download, RotateCcw, Trash2 } from 'lucide-react';
import { useState } from 'react';
import { api, data, sentenceOf } from '../shared/api/client';
import { momentOf } from '../shared/clock';
import { Button, H2, Notice, Panel } from '../shared/ui/elements';
import { FileField } from '../shared/ui/FileField';
import { Modal } from '../shared/ui/Modal';
import { Table } from '../shared/ui/Table';
import { RestoreDialog } from './RestoreDialog';
import { bytes } from './bytes';
import { kinds, storageKey, type Backup, type Storage } from './storage';

/** The backups: taken, saved elsewhere, brought from there, put back. */
export function BackupList({ storage }: { storage: Storage }) {
  const queries = useQueryClient();
  const [restoring, setRestoring] = useState<Backup | null>(null);
  const [deleting, setDeleting] = useState<Backup | null>(null);
  const again = () => queries.invalidateQueries({ queryKey: storageKey });
  const take = useMutation({ mutationFn: () => data(api.POST('/api/storage/backups')), onSuccess: again });
  const remove = useMutation({
    mutationFn: (name: string) => data(api.DELETE('/api/storage/backups/{name}', { params: { path: { name } } })),
    onSuccess: async () => {
      setDeleting(null);
      await again();
    },
  });
  const bring = useMutation({
    // the file goes as it is, piece by piece: it may be larger than memory
    mutationFn: (file: File) =>
      data(
        api.POST('/api/storage/backups/bring', {
          body: file as never,
          bodySerializer: (body) => body as unknown as File,
          headers: { 'Content-Type': 'application/octet-stream' },
        }),
      ) as Promise<Backup>,
    onSuccess: async (brought) => {
      await again();
      setRestoring(brought);
    },
  });
  const error = take.error ?? bring.error;
  return (
    <Panel>
      <Flex justify="space-between" align="center" gap="3" wrap="wrap" mb="2">
        <H2>Backups</H2>
        <Button tone="strong" onClick={() => take.mutate()} disabled={take.isPending}>
          {take.isPending ? 'Backing up' : 'Back up now'}
        </Button>
      </Flex>
      {error && <Notice role="alert">{sentenceOf(error)}</Notice>}
      {storage.backups.length === 0 ? (
        <Box>There is no backup yet. One is taken by itself each day on which something was changed.</Box>
      ) : (
        <Table
          label="Backups"
          head={['Taken', 'Do']}
          rows={storage.backups.map((backup) => ({
            key: backup.name,
            cells: [
              <Box key="taken">
                {momentOf(backup.takenAt)}
                <Box fontSize="14px" color="quiet">
                  {kinds[backup.kind]}, {bytes(backup.bytes)}
                </Box>
              </Box>,
              <Flex key="do" gap="1">
                <Button tone="quiet" onClick={() => setRestoring(backup)}>
                  <RotateCcw size={18} aria-hidden="true" /> Restore
                </Button>
                <Button tone="quiet" asChild px="3">
                  <a
                    href={`/api/storage/backups/${backup.name}`}
                    download
                    aria-label={`Save the backup of ${momentOf(backup.takenAt)}`}
                  >
                    <Download size={18} aria-hidden="true" />
                  </a>
                </Button>
                <Button
                  tone="quiet"
                  px="3"
                  aria-label={`Delete the backup of ${momentOf(backup.takenAt)}`}
                  onClick={() => setDeleting(backup)}
                >
                  <Trash2 size={18} aria-hidden="true" />
                </Button>
              </Flex>,
            ],
          }))}
        />
      )}
      <Box fontSize="14px" color="quiet" mt="3">
        Daily backups stay for each of the last seven days, five weeks and thirteen months; those by hand and from a
        file stay until you delete them. A backup on the same disk does not help when the disk fails: save one elsewhere
        now and then.
      </Box>
      <Box mt="4" maxWidth="420px">
        <FileField
          label="Add a backup from another computer"
          hint={bring.isPending ? 'Reading and checking the file' : 'Nothing changes until you restore it.'}
          accept=".db"
          disabled={bring.isPending}
          take={(file) => bring.mutate(file)}
        />
      </Box>
      {restoring && <RestoreDialog backup={restoring} close={() => setRestoring(null)} />}
      {deleting && (
        <Modal
          title="Delete a backup"
          close={() => setDeleting(null)}
          foot={
            <>
              <Button onClick={() => setDeleting(null)}>Cancel</Button>
              <Button tone="strong" onClick={() => remove.mutate(deleting.name)} disabled={remove.isPending}>
                Delete
              </Button>
            </>
          }
        >
          The backup of {momentOf(deleting.takenAt)} will be deleted. What is stored now stays as it is.
          {remove.error && <Notice role="alert">{sentenceOf(remove.error)}</Notice>}
        </Modal>
      )}
    </Panel>
  );
}
