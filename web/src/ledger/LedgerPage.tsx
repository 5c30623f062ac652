import { Box, Flex, Grid } from '@chakra-ui/react';
import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useCallback, useDeferredValue, useEffect, useState } from 'react';
import { Link, useNavigate, useSearchParams } from 'react-router';
import { api, data, sentenceOf, type Schemas } from '../shared/api/client';
import { useBench } from '../shared/api/queries';
import { Choice } from '../shared/ui/Choice';
import { Button, Field, Input, Notice, PageTitle, Panel, Waiting } from '../shared/ui/elements';
import { ShotTable } from './ShotTable';
import { comparisonOf } from './comparison';
import { TextLink } from '../shared/ui/TextLink';

const size = 40;
const likings = [2, 3, 4, 5].map((n) => ({ id: n, name: `${n} of 5` }));

/** Every shot, newest first, with its small trace; search, filter, pin two or more and lay them over each other. */
export default function LedgerPage() {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const [params, setParams] = useSearchParams();
  const [search, setSearch] = useState('');
  const [machineId, setMachine] = useState<number | null>(null);
  const [bagId, setBag] = useState<number | null>(null);
  const [minLiking, setLiking] = useState<number | null>(null);
  const [bin, setBin] = useState(false);
  const [page, setPage] = useState(0);
  const [pinned, setPinned] = useState<number[]>([]);
  const words = useDeferredValue(search);
  const { data: bench } = useBench();
  // what was put away still has its shots
  const ever = (kind: Schemas['BenchKind'], there: readonly { id: number; name: string }[] = []) => [
    ...there,
    ...(bench?.putAway.filter((t) => t.kind === kind) ?? []),
  ];
  const query = {
    page,
    size,
    search: words || undefined,
    machineId: machineId ?? undefined,
    bagId: bagId ?? undefined,
    minLiking: minLiking ?? undefined,
    bin: bin || undefined,
  };
  const { data: found, error } = useQuery({
    queryKey: ['shots', query],
    queryFn: () => data(api.GET('/api/shots', { params: { query } })),
    placeholderData: keepPreviousData,
  });
  const binned = Number(params.get('binned')) || null;
  const restore = useMutation({
    mutationFn: (id: number) => data(api.POST('/api/shots/{id}/restore', { params: { path: { id } } })),
    onSuccess: async () => {
      setParams({}, { replace: true });
      await queries.invalidateQueries({ queryKey: ['shots'] });
    },
  });
  const filter =
    <T,>(set: (v: T) => void) =>
    (value: T) => {
      set(value);
      setPage(0);
    };
  const pin = useCallback(
    (id: number) => setPinned((now) => (now.includes(id) ? now.filter((n) => n !== id) : [...now, id])),
    [],
  );
  const open = useCallback((id: number) => void navigate(`/taste/${id}`), [navigate]);
  useReadyToCompare(pinned);
  const pages = found ? Math.max(1, Math.ceil(found.total / size)) : 1;

  return (
    <>
      <PageTitle
        title={bin ? 'Bin' : 'Ledger'}
        aside={
          <Flex gap="2" wrap="wrap">
            <Button
              aria-pressed={bin}
              onClick={() => {
                filter(setBin)(!bin);
                setPinned([]);
              }}
            >
              {bin ? 'Back to the ledger' : 'What is in the bin'}
            </Button>
            <Button asChild>
              <Link to="/ledger/import">Import a trace</Link>
            </Button>
          </Flex>
        }
      >
        {bin
          ? 'Shots that were thrown away. Each can be taken back as it was.'
          : 'Every shot, newest first. Tick two or more to lay them over each other.'}
      </PageTitle>
      {binned !== null && (
        <Flex gap="3" align="center" mb="3">
          <Notice role="status">Shot {binned} is in the bin.</Notice>
          <Button onClick={() => restore.mutate(binned)}>Take it back</Button>
        </Flex>
      )}
      {restore.error && <Notice role="alert">{sentenceOf(restore.error)}</Notice>}
      <Grid
        templateColumns={{ base: 'minmax(0,1fr) minmax(0,1fr)', md: 'minmax(0,2fr) repeat(3, minmax(0,1fr))' }}
        gap="3"
        mb="3"
      >
        <Field label="Search words, people, coffees">
          {(ids) => <Input {...ids} type="search" value={search} onChange={(e) => filter(setSearch)(e.target.value)} />}
        </Field>
        <Choice
          label="Machine"
          none="all"
          options={ever('Machines', bench?.machines)}
          value={machineId}
          onChange={filter(setMachine)}
        />
        <Choice label="Beans" none="all" options={ever('Bags', bench?.bags)} value={bagId} onChange={filter(setBag)} />
        <Choice label="Liked at least" none="any" options={likings} value={minLiking} onChange={filter(setLiking)} />
      </Grid>
      {!found ? (
        <Waiting error={error} />
      ) : (
        <Panel p="0">
          {found.shots.length === 0 ? (
            <Box p="5">
              {bin
                ? 'Nothing lies in the bin. '
                : found.total === 0 && !search && !machineId && !bagId && !minLiking
                  ? 'No shot yet. '
                  : 'No shot fits this. '}
              <TextLink to="/prepare">Prepare one</TextLink>
            </Box>
          ) : bin ? (
            <Binned shots={found.shots} takeBack={restore.mutate} />
          ) : (
            <ShotTable shots={found.shots} pinned={pinned} pin={pin} open={open} />
          )}
        </Panel>
      )}
      <Flex justify="space-between" align="center" mt="3" gap="3" wrap="wrap">
        <Box fontSize="14px" color="quiet" role="status">
          {found ? `${found.total} ${found.total === 1 ? 'shot' : 'shots'}` : ''}
        </Box>
        {pages > 1 && (
          <Flex gap="2" align="center">
            <Button onClick={() => setPage((p) => p - 1)} disabled={page === 0}>
              Newer
            </Button>
            <Box fontSize="14px">
              page {page + 1} of {pages}
            </Box>
            <Button onClick={() => setPage((p) => p + 1)} disabled={page + 1 >= pages}>
              Older
            </Button>
          </Flex>
        )}
      </Flex>
      {pinned.length > 0 && (
        <Flex
          position="sticky"
          bottom={{ base: '64px', md: '12px' }}
          mt="3"
          gap="3"
          align="center"
          wrap="wrap"
          bg="panel"
          borderWidth="1px"
          borderColor="text"
          borderRadius="small"
          p="2"
          ps="4"
        >
          <Box flex="1">Ticked: {pinned.map((id) => `shot ${id}`).join(', ')}</Box>
          <Button onClick={() => setPinned([])}>Untick all</Button>
          <Button
            tone="strong"
            disabled={pinned.length < 2 || pinned.length > 20}
            onClick={() => void navigate(`/ledger/compare?ids=${pinned.join(',')}`)}
          >
            {pinned.length < 2 ? 'Tick one more to compare' : `Compare ${pinned.length}`}
          </Button>
        </Flex>
      )}
    </>
  );
}

/** What lies in the bin, with the way back. */
function Binned({ shots, takeBack }: { shots: readonly Schemas['ShotLine'][]; takeBack: (id: number) => void }) {
  return (
    <Box as="ul" listStyleType="none" aria-label="Shots in the bin">
      {shots.map((s) => (
        <Flex as="li" key={s.id} gap="3" align="center" px="4" py="2" borderTopWidth="1px" borderColor="hairline">
          <Box flex="1" minWidth={0}>
            Shot {s.id},{' '}
            {new Date(s.pulledAt).toLocaleString([], { dateStyle: 'medium', timeStyle: 'short', hour12: false })}
            <Box fontSize="14px" color="quiet">
              {[s.machine, s.bag, s.brewer].filter(Boolean).join(', ')}
            </Box>
          </Box>
          <Button onClick={() => takeBack(s.id)} aria-label={`Take back shot ${s.id}`}>
            Take it back
          </Button>
        </Flex>
      ))}
    </Box>
  );
}

const pauseMs = 150;

/** Two shots that are ticked will be compared: page and answer are fetched meanwhile. */
function useReadyToCompare(pinned: readonly number[]) {
  const queries = useQueryClient();
  const ids = pinned.join(',');
  const many = pinned.length > 1;
  useEffect(() => {
    if (!many) return;
    const timer = setTimeout(() => {
      void import('./ComparePage');
      void queries.prefetchQuery(comparisonOf(ids));
    }, pauseMs);
    return () => clearTimeout(timer);
  }, [queries, ids, many]);
}
