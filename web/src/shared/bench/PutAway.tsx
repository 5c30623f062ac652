import { Box, Flex } from '@chakra-ui/react';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { api, data, sentenceOf, type Schemas } from '../api/client';
import { keepBench } from '../api/queries';
import { Button, H2, Notice, Panel } from '../ui/elements';

const words: Record<Schemas['BenchKind'], string> = {
  Machines: 'machine',
  Grinders: 'grinder',
  Baskets: 'basket',
  Bags: 'bag',
};

const paths = {
  Machines: '/api/bench/machines/{id}',
  Grinders: '/api/bench/grinders/{id}',
  Baskets: '/api/bench/baskets/{id}',
  Bags: '/api/bench/bags/{id}',
} as const;

/** Takes something off the bench or the shelf; gives what is left there. */
export const putAway = (kind: Schemas['BenchKind'], id: number) =>
  data(api.DELETE(paths[kind], { params: { path: { id } } }));

/** What was put away, and can be taken back; its shots kept it all the while. */
export function PutAway({ things }: { things: readonly Schemas['PutAwayView'][] }) {
  const queries = useQueryClient();
  const back = useMutation({
    mutationFn: ({ kind, id }: Schemas['PutAwayView']) =>
      data(api.POST(`${paths[kind]}/restore`, { params: { path: { id } } })),
    onSuccess: (bench) => keepBench(queries, bench),
  });
  if (things.length === 0) return null;
  return (
    <Panel>
      <H2 mb="1">Archived</H2>
      {things.map((thing) => (
        <Flex key={`${thing.kind}-${thing.id}`} gap="3" align="center">
          <Box flex="1" minWidth={0}>
            {thing.name}{' '}
            <Box as="span" color="quiet">
              {words[thing.kind]}
            </Box>
          </Box>
          <Button tone="quiet" aria-label={`Restore ${thing.name}`} onClick={() => back.mutate(thing)}>
            Restore
          </Button>
        </Flex>
      ))}
      {back.error && <Notice role="alert">{sentenceOf(back.error)}</Notice>}
    </Panel>
  );
}
