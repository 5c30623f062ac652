import { Box, Flex, Progress } from '@chakra-ui/react';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { api, data, sentenceOf, type Schemas } from '../shared/api/client';
import { Check } from '../shared/ui/Check';
import { Button, H2, Notice, Panel } from '../shared/ui/elements';
import { FileField } from '../shared/ui/FileField';
import { Table } from '../shared/ui/Table';

type State = Schemas['ImportState'];

const pollMs = 400;
const busy = (state: State | undefined) => state?.phase === 'Checking' || state?.phase === 'Storing';

/** A whole household from its file: looked through first, stored when that is wanted, given up at any time before. */
export function HouseholdImport() {
  const queries = useQueryClient();
  const [token, setToken] = useState<string | null>(null);
  const [settings, setSettings] = useState<boolean | null>(null);
  const key = ['household import', token];
  const { data: state, error: lost } = useQuery({
    queryKey: key,
    queryFn: () => data(api.GET('/api/exchange/household/{token}', { params: { path: { token: token! } } })),
    enabled: token !== null,
    refetchInterval: (query) => (busy(query.state.data) ? pollMs : false),
    retry: false,
  });
  const begin = useMutation({
    // the file goes as it is, piece by piece: it may be larger than memory
    mutationFn: (file: File) =>
      data(
        api.POST('/api/exchange/household', {
          body: file as never,
          bodySerializer: (body) => body as unknown as File,
          headers: { 'Content-Type': 'application/json' },
        }),
      ) as Promise<State>,
    onSuccess: (begun) => {
      setSettings(null);
      setToken(begun.token);
    },
  });
  const store = useMutation({
    mutationFn: () =>
      data(
        api.POST('/api/exchange/household/{token}/store', {
          params: { path: { token: token! }, query: { settings: settings ?? state?.isEmptyHere ?? false } },
        }),
      ),
    onSuccess: (next) => queries.setQueryData(key, next),
  });
  const giveUp = useMutation({
    mutationFn: () => data(api.DELETE('/api/exchange/household/{token}', { params: { path: { token: token! } } })),
    onSettled: () => setToken(null),
  });
  const isStored = state?.phase === 'Stored';
  useEffect(() => {
    if (isStored) void queries.invalidateQueries({ predicate: (q) => q.queryKey[0] !== 'household import' });
  }, [isStored, queries]);
  const error = begin.error ?? lost ?? store.error;
  const share = Math.round((state?.doneShare ?? 0) * 100);
  return (
    <Panel>
      <H2>Import a household</H2>
      <FileField
        label="Household file (JSON)"
        accept=".json,application/json"
        disabled={begin.isPending || busy(state)}
        take={(file) => begin.mutate(file)}
      />
      {error && <Notice role="alert">{sentenceOf(error)}</Notice>}
      {begin.isPending && <Box mt="3">Reading the file</Box>}
      {token && state && busy(state) && (
        <Box mt="3">
          <Progress.Root value={share} aria-label={state.phase === 'Storing' ? 'Storing' : 'Checking'}>
            <Flex justify="space-between" fontSize="14px">
              <Progress.Label>{state.phase === 'Storing' ? 'Storing' : 'Checking'}</Progress.Label>
              <Progress.ValueText>{share} %</Progress.ValueText>
            </Flex>
            <Progress.Track>
              <Progress.Range />
            </Progress.Track>
          </Progress.Root>
          <Box mt="2">
            <Button onClick={() => giveUp.mutate()} disabled={giveUp.isPending}>
              Cancel
            </Button>
          </Box>
        </Box>
      )}
      {token && state?.phase === 'Failed' && <Notice role="alert">{state.problem}</Notice>}
      {token && state?.phase === 'Checked' && (
        <Box mt="3">
          <Found counts={state.counts} />
          <Box mt="3">
            <Check checked={settings ?? state.isEmptyHere} onChange={setSettings}>
              Take its name, place, units and words too
            </Check>
          </Box>
          <Flex gap="2" mt="3">
            <Button onClick={() => giveUp.mutate()} disabled={giveUp.isPending}>
              Cancel
            </Button>
            <Button tone="strong" onClick={() => store.mutate()} disabled={store.isPending}>
              Save
            </Button>
          </Flex>
        </Box>
      )}
      <Box role="status">{isStored ? `Stored: ${summary(state.counts)}.` : ''}</Box>
    </Panel>
  );
}

const names: Record<string, string> = {
  brewers: 'people',
  machines: 'machines',
  grinders: 'grinders',
  baskets: 'baskets',
  bags: 'bags',
  plans: 'plans of your own',
  shots: 'shots',
  photos: 'photos',
  advice: 'advice taken',
  sessions: 'sessions',
  practice: 'practice pulls',
  ladders: 'blind ladders',
  views: 'saved views',
};

const summary = (counts: readonly Schemas['TakenIn'][]) =>
  counts
    .filter((c) => c.new > 0)
    .map((c) => `${c.new} ${names[c.list] ?? c.list}`)
    .join(', ') || 'nothing new';

function Found({ counts }: { counts: readonly Schemas['TakenIn'][] }) {
  return (
    <>
      <Table
        label="Contents of the file"
        head={['What', 'New', 'Here already']}
        rows={counts.map((c) => ({ key: c.list, cells: [names[c.list] ?? c.list, c.new, c.already] }))}
      />
      <Box fontSize="14px" color="quiet" mt="2">
        Things with the same name as yours are matched to them; yours stay as they are.
      </Box>
    </>
  );
}
