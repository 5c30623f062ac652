import { Box, Code, Flex } from '@chakra-ui/react';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { api, data, sentenceOf } from '../shared/api/client';
import { dayOf } from '../shared/clock';
import { Button, Field, H2, Input, Notice, Panel } from '../shared/ui/elements';
import { Table } from '../shared/ui/Table';
import { networkKey, useKeepNetwork, type Network } from './network';

/** Keys of a gauge, scale or thermometer that sends over the network. */
export function InstrumentKeys({ network }: { network: Network }) {
  const queries = useQueryClient();
  const keep = useKeepNetwork();
  const [name, setName] = useState('');
  const make = useMutation({
    mutationFn: () => data(api.POST('/api/network/keys', { body: { name } })),
    onSuccess: async () => {
      setName('');
      await queries.invalidateQueries({ queryKey: networkKey });
    },
  });
  const remove = useMutation({
    mutationFn: (id: string) => data(api.DELETE('/api/network/keys/{id}', { params: { path: { id } } })),
    onSuccess: keep,
  });
  return (
    <Panel>
      <H2>Instruments on the network</H2>
      <Box mb="3">
        A home-made gauge, scale or thermometer that sends from another computer needs a key of its own. It opens the
        line protocol and nothing else.
      </Box>
      {network.keys.length > 0 && (
        <Table
          label="Keys of instruments"
          head={['Instrument', 'Since', 'Do']}
          rows={network.keys.map((key) => ({
            key: key.id,
            cells: [
              key.name,
              dayOf(key.since),
              <Button
                key="out"
                tone="quiet"
                aria-label={`Delete the key of ${key.name}`}
                onClick={() => remove.mutate(key.id)}
              >
                Delete
              </Button>,
            ],
          }))}
        />
      )}
      {make.data && (
        <Box role="status" my="3">
          The key of {make.data.name}, shown this once:
          <Code display="block" fontSize="16px" p="2" mt="1" overflowWrap="anywhere" whiteSpace="normal">
            {make.data.key}
          </Code>
        </Box>
      )}
      <form
        onSubmit={(e) => {
          e.preventDefault();
          make.mutate();
        }}
      >
        <Field label="Name of the instrument">
          {(ids) => (
            <Flex gap="2">
              <Input {...ids} maxLength={80} value={name} onChange={(e) => setName(e.target.value)} />
              <Button type="submit" flexShrink={0} disabled={make.isPending || name.trim() === ''}>
                Make a key
              </Button>
            </Flex>
          )}
        </Field>
      </form>
      {(make.error ?? remove.error) && <Notice role="alert">{sentenceOf(make.error ?? remove.error)}</Notice>}
    </Panel>
  );
}
