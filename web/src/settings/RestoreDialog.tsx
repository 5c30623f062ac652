import { Box } from '@chakra-ui/react';
import { useMutation, useQuery } from '@tanstack/react-query';
import { api, data, sentenceOf, type Schemas } from '../shared/api/client';
import { dayOf, momentOf } from '../shared/clock';
import { Button, Notice, Waiting } from '../shared/ui/elements';
import { Modal } from '../shared/ui/Modal';
import { Table } from '../shared/ui/Table';
import type { Backup } from './storage';

const shots = (count: number) => (count === 1 ? '1 shot' : `${count} shots`);

/** What a restore would change, and the restore. */
export function RestoreDialog({ backup, close }: { backup: Backup; close: () => void }) {
  const { name } = backup;
  const { data: changes, error } = useQuery({
    queryKey: ['backup changes', name],
    queryFn: () => data(api.GET('/api/storage/backups/{name}/changes', { params: { path: { name } } })),
    retry: false,
    staleTime: 0,
  });
  // every screen that shows this store loads itself again when it is done, this one too
  const restore = useMutation({
    mutationFn: () => data(api.POST('/api/storage/backups/{name}/restore', { params: { path: { name } } })),
    onSuccess: () => location.reload(),
  });
  return (
    <Modal
      title={`Restore the backup of ${momentOf(backup.takenAt)}`}
      close={close}
      foot={
        <>
          <Button onClick={close}>Cancel</Button>
          <Button tone="strong" onClick={() => restore.mutate()} disabled={!changes || restore.isPending}>
            {restore.isPending ? 'Restoring' : 'Restore'}
          </Button>
        </>
      }
    >
      {changes ? <Changes changes={changes} /> : <Waiting error={error} />}
      {restore.error && <Notice role="alert">{sentenceOf(restore.error)}</Notice>}
    </Modal>
  );
}

function Changes({ changes }: { changes: Schemas['RestorePreview'] }) {
  const { shotsLost, shotsBack, lastShotThen } = changes;
  return (
    <>
      <Box mb="3">
        {shotsLost > 0
          ? `${shots(shotsLost)} of now ${shotsLost === 1 ? 'is' : 'are'} not in the backup and will be gone. `
          : 'Every shot that you have now is in the backup. '}
        {shotsBack > 0 && `${shots(shotsBack)} will come back. `}
        {lastShotThen && `Its last shot was pulled on ${dayOf(lastShotThen)}. `}
        {changes.isOlderForm && 'It was written by an older version and will be brought up to date.'}
      </Box>
      <Table
        label="What there is now and in the backup"
        head={['What', 'Now', 'In the backup']}
        rows={changes.counts
          .filter((c) => c.now > 0 || c.then > 0)
          .map((c) => ({ key: c.what, cells: [c.what, c.now, c.then], strong: c.now !== c.then }))}
      />
      <Box fontSize="14px" color="quiet" mt="3">
        What you have now is backed up first, so that you can go back.
      </Box>
    </>
  );
}
