import { Box, Flex } from '@chakra-ui/react';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { api, data, sentenceOf } from '../shared/api/client';
import { Button, Field, H2, Notice, Panel, Select } from '../shared/ui/elements';
import { Modal } from '../shared/ui/Modal';
import { say } from '../shared/ui/say';
import type { Storage } from './storage';

const choices = [
  [null, 'Keep them until I empty the bin'],
  [7, 'Delete them after a week'],
  [30, 'Delete them after 30 days'],
  [90, 'Delete them after 90 days'],
  [365, 'Delete them after a year'],
] as const;

const shots = (count: number) => (count === 1 ? '1 shot' : `${count} shots`);

/** How long deleted shots stay, and deleting them for good. */
export function BinSettings({ storage }: { storage: Storage }) {
  const queries = useQueryClient();
  const [asked, setAsked] = useState(false);
  const again = () => queries.invalidateQueries();
  const keep = useMutation({
    mutationFn: (days: number | null) => data(api.PUT('/api/storage/bin', { body: { days } })),
    onSuccess: again,
  });
  const empty = useMutation({
    mutationFn: () => data(api.DELETE('/api/storage/bin')),
    onSuccess: async (gone) => {
      setAsked(false);
      await say({ title: `${shots(gone.shots)} deleted for good.` });
      await again();
    },
  });
  const known = choices.some(([days]) => days === storage.binDays);
  return (
    <Panel>
      <H2>Bin</H2>
      <Field label="Deleted shots">
        {(ids) => (
          <Select
            {...ids}
            value={storage.binDays ?? ''}
            onChange={(e) => keep.mutate(e.target.value === '' ? null : Number(e.target.value))}
          >
            {choices.map(([days, word]) => (
              <option key={word} value={days ?? ''}>
                {word}
              </option>
            ))}
            {known ? null : (
              <option value={storage.binDays ?? ''}>{`Delete them after ${storage.binDays} days`}</option>
            )}
          </Select>
        )}
      </Field>
      <Flex mt="3" gap="3" align="center" wrap="wrap">
        <Button onClick={() => setAsked(true)} disabled={storage.binCount === 0}>
          Empty the bin
        </Button>
        <Box fontSize="14px" color="quiet">
          {storage.binCount === 0 ? 'The bin is empty.' : `${shots(storage.binCount)} in the bin.`}
        </Box>
      </Flex>
      {keep.error && <Notice role="alert">{sentenceOf(keep.error)}</Notice>}
      {asked && (
        <Modal
          title="Empty the bin"
          close={() => setAsked(false)}
          foot={
            <>
              <Button onClick={() => setAsked(false)}>Cancel</Button>
              <Button tone="strong" onClick={() => empty.mutate()} disabled={empty.isPending}>
                Delete for good
              </Button>
            </>
          }
        >
          {shots(storage.binCount)} will be deleted with their traces and photos. Backups that hold them stay as they
          are.
          {empty.error && <Notice role="alert">{sentenceOf(empty.error)}</Notice>}
        </Modal>
      )}
    </Panel>
  );
}
