import { Box, Flex } from '@chakra-ui/react';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useNavigate } from 'react-router';
import { api, data, sentenceOf } from '../api/client';
import { Button, Notice } from '../ui/elements';
import { sayBinned } from '../bench/sayBinned';
import { timeOfDay } from '../clock';
import { number } from '../units/units';

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
    mutationFn: async ({ id, what }: { id: string; what: 'keep' | 'bin' | 'set aside' }) => {
      const params = { params: { path: { id } } };
      if (what === 'keep') return `/taste/${(await data(api.POST('/api/pull/recovered/{id}/save', params))).shotId}`;
      if (what === 'bin') {
        const { shotId } = await data(api.POST('/api/pull/recovered/{id}/discard', params));
        if (shotId) sayBinned(queries, shotId);
        return '/ledger';
      }
      await data(api.POST('/api/pull/recovered/{id}/set-aside', params));
      return null;
    },
    onSuccess: async (next) => {
      await queries.invalidateQueries();
      if (next) await navigate(next);
    },
  });
  if (!pulls?.length) return null;
  return (
    <Box mb="4">
      {pulls.map((pull) => (
        <Notice key={pull.id} role="status">
          <Flex gap="3" align="center" wrap="wrap">
            {pull.problem ? (
              <>
                <Box flex="1" minWidth="240px">
                  {pull.problem} Its file stays in the journal folder.
                </Box>
                <Button disabled={decide.isPending} onClick={() => decide.mutate({ id: pull.id, what: 'set aside' })}>
                  Do not show it again
                </Button>
              </>
            ) : (
              <>
                <Box flex="1" minWidth="240px">
                  A pull on {pull.machineName} at {timeOfDay(Date.parse(pull.startedAt))} was interrupted.{' '}
                  {number(pull.seconds, 0)} s of it{' '}
                  {pull.cupGrams !== null ? `and ${number(pull.cupGrams, 1)} g in the cup ` : ''}
                  are kept.
                </Box>
                <Button
                  tone="strong"
                  disabled={decide.isPending}
                  onClick={() => decide.mutate({ id: pull.id, what: 'keep' })}
                >
                  Save it as a shot
                </Button>
                <Button disabled={decide.isPending} onClick={() => decide.mutate({ id: pull.id, what: 'bin' })}>
                  Delete
                </Button>
              </>
            )}
          </Flex>
          {decide.error && <Box role="alert">{sentenceOf(decide.error)}</Box>}
        </Notice>
      ))}
    </Box>
  );
}
