import { Box, Flex } from '@chakra-ui/react';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useNavigate } from 'react-router';
import { api, data, sentenceOf } from '../shared/api/client';
import { Button, Notice } from '../shared/ui/elements';
import { number } from '../shared/units/units';

/** Offers back pulls that a crash interrupted. */
export function Recovered() {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const { data: pulls } = useQuery({
    queryKey: ['recovered'],
    queryFn: () => data(api.GET('/api/pull/recovered')),
    staleTime: 60_000,
  });
  const decide = useMutation({
    mutationFn: async ({ id, keep }: { id: string; keep: boolean }) => {
      const params = { params: { path: { id } } };
      if (keep) return (await data(api.POST('/api/pull/recovered/{id}/save', params))).shotId;
      await data(api.POST('/api/pull/recovered/{id}/discard', params));
      return null;
    },
    onSuccess: async (shotId) => {
      await queries.invalidateQueries();
      if (shotId) await navigate(`/taste/${shotId}`);
    },
  });
  if (!pulls?.length) return null;
  return (
    <Box mb="4">
      {pulls.map((pull) => (
        <Notice key={pull.id} role="status">
          <Flex gap="3" align="center" wrap="wrap">
            <Box flex="1" minWidth="240px">
              A pull on {pull.machineName} at{' '}
              {new Date(pull.startedAt).toLocaleTimeString([], { hour: '2-digit', minute: '2-digit', hour12: false })} was
              interrupted. {number(pull.seconds, 0)} s of it{' '}
              {pull.cupGrams !== null ? `and ${number(pull.cupGrams, 1)} g in the cup ` : ''}
              are kept.
            </Box>
            <Button tone="strong" onClick={() => decide.mutate({ id: pull.id, keep: true })}>
              Keep it as a shot
            </Button>
            <Button onClick={() => decide.mutate({ id: pull.id, keep: false })}>Throw it away</Button>
          </Flex>
          {decide.error && <Box role="alert">{sentenceOf(decide.error)}</Box>}
        </Notice>
      ))}
    </Box>
  );
}
