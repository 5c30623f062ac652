import { Box, chakra, Flex, Grid } from '@chakra-ui/react';
import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useDeferredValue, useState } from 'react';
import { Link, useNavigate, useSearchParams } from 'react-router';
import { api, data, sentenceOf, type Schemas } from '../shared/api/client';
import { useBench } from '../shared/api/queries';
import { SmallTrace } from '../shared/plot/SmallTrace';
import { Choice } from '../shared/ui/Choice';
import { Button, Field, Input, Notice, PageTitle, Panel, Reading, Waiting } from '../shared/ui/elements';
import { number, useUnits } from '../shared/units/units';

const size = 40;
const likings = [2, 3, 4, 5].map((n) => ({ id: n, name: `${n} of 5` }));
const cell = { px: '2', py: '1.5', textAlign: 'start', verticalAlign: 'middle' } as const;
const Th = chakra('th', {
  base: { ...cell, fontSize: '13px', color: 'quiet', fontWeight: 500, whiteSpace: 'nowrap', lineHeight: 1.15 },
});
const Td = chakra('td', { base: cell });

const day = (iso: string) => new Date(iso).toLocaleDateString([], { day: 'numeric', month: 'short' });
const time = (iso: string) => new Date(iso).toLocaleTimeString([], { hour: '2-digit', minute: '2-digit', hour12: false });

/** Every shot, newest first, with its small trace; search, filter, pin two or more and lay them over each other. */
export default function LedgerPage() {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const [params, setParams] = useSearchParams();
  const [search, setSearch] = useState('');
  const [machineId, setMachine] = useState<number | null>(null);
  const [bagId, setBag] = useState<number | null>(null);
  const [minLiking, setLiking] = useState<number | null>(null);
  const [page, setPage] = useState(0);
  const [pinned, setPinned] = useState<number[]>([]);
  const words = useDeferredValue(search);
  const { data: bench } = useBench();
  const query = {
    page,
    size,
    search: words || undefined,
    machineId: machineId ?? undefined,
    bagId: bagId ?? undefined,
    minLiking: minLiking ?? undefined,
  };
  const { data: found, error } = useQuery({
    queryKey: ['shots', query],
    queryFn: () => data(api.GET('/api/shots', { params: { query } })),
    placeholderData: keepPreviousData,
  });
  const binned = Number(params.get('binned')) || null;
  const restore = useMutation({
    mutationFn: () => data(api.POST('/api/shots/{id}/restore', { params: { path: { id: binned! } } })),
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
  const pin = (id: number) => setPinned((now) => (now.includes(id) ? now.filter((n) => n !== id) : [...now, id]));
  const pages = found ? Math.max(1, Math.ceil(found.total / size)) : 1;

  return (
    <>
      <PageTitle
        title="Ledger"
        aside={
          <Button asChild>
            <Link to="/ledger/import">Import a trace</Link>
          </Button>
        }
      >
        Every shot, newest first. Tick two or more to lay them over each other.
      </PageTitle>
      {binned !== null && (
        <Flex gap="3" align="center" mb="3">
          <Notice role="status">Shot {binned} is in the bin.</Notice>
          <Button onClick={() => restore.mutate()}>Take it back</Button>
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
        <Choice label="Machine" none="all" options={bench?.machines ?? []} value={machineId} onChange={filter(setMachine)} />
        <Choice label="Beans" none="all" options={bench?.bags ?? []} value={bagId} onChange={filter(setBag)} />
        <Choice label="Liked at least" none="any" options={likings} value={minLiking} onChange={filter(setLiking)} />
      </Grid>
      {!found ? (
        <Waiting error={error} />
      ) : (
        <Panel p="0">
          {found.shots.length === 0 ? (
            <Box p="5">
              {found.total === 0 && !search && !machineId && !bagId && !minLiking ? 'No shot yet. ' : 'No shot fits this. '}
              <Link to="/prepare" style={{ textDecoration: 'underline' }}>
                Prepare one
              </Link>
            </Box>
          ) : (
            <ShotTable shots={found.shots} pinned={pinned} pin={pin} open={(id) => void navigate(`/taste/${id}`)} />
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

interface TableProps {
  shots: readonly Schemas['ShotLine'][];
  pinned: readonly number[];
  pin: (id: number) => void;
  open: (id: number) => void;
}

function ShotTable({ shots, pinned, pin, open }: TableProps) {
  const units = useUnits();
  const wide = { base: 'none', lg: 'table-cell' } as const;
  const middle = { base: 'none', md: 'table-cell' } as const;
  return (
    <chakra.table width="100%" borderCollapse="collapse" tableLayout="auto">
      <thead>
        <tr>
          <Th scope="col">
            <chakra.span srOnly>Compare</chakra.span>
          </Th>
          <Th scope="col">Shot</Th>
          <Th scope="col">Trace</Th>
          <Th scope="col" display={middle}>
            Coffee and machine
          </Th>
          <Th scope="col" display={wide}>
            Grind
          </Th>
          <Th scope="col" textAlign="end">
            In, out
            <br />g
          </Th>
          <Th scope="col" textAlign="end" display={middle}>
            Ratio
            <br />1 :
          </Th>
          <Th scope="col" textAlign="end">
            Time
            <br />s
          </Th>
          <Th scope="col" textAlign="end" display={wide}>
            Drops
            <br />s
          </Th>
          <Th scope="col" textAlign="end" display={wide}>
            Peak
            <br />
            {units.pressureUnit}
          </Th>
          <Th scope="col" textAlign="end" display={wide}>
            Flow
            <br />
            g/s
          </Th>
          <Th scope="col" textAlign="end" display={middle}>
            R10
            <br />
            bar s/ml
          </Th>
          <Th scope="col" display={middle}>
            Taste
          </Th>
        </tr>
      </thead>
      <tbody>
        {shots.map((s) => (
          <chakra.tr
            key={s.id}
            borderTopWidth="1px"
            borderColor="hairline"
            cursor="pointer"
            _hover={{ bg: 'page' }}
            onClick={(e) => {
              if (!(e.target as HTMLElement).closest('a, input, label')) open(s.id);
            }}
          >
            <Td>
              <chakra.label display="grid" placeItems="center" width="32px" height="44px" cursor="pointer">
                <input
                  type="checkbox"
                  checked={pinned.includes(s.id)}
                  onChange={() => pin(s.id)}
                  aria-label={`Compare shot ${s.id}`}
                  style={{ width: 24, height: 24, accentColor: 'var(--rs-colors-oxide)' }}
                />
              </chakra.label>
            </Td>
            <Td whiteSpace="nowrap">
              <Link to={`/taste/${s.id}`} style={{ fontWeight: 650, textDecoration: 'underline', textUnderlineOffset: '3px' }}>
                {s.id}
              </Link>
              <Box fontSize="13px" color="quiet" lineHeight={1.2}>
                {day(s.pulledAt)}
                <br />
                {time(s.pulledAt)}
              </Box>
            </Td>
            <Td>
              <SmallTrace pressure={s.smallPressure} weight={s.smallWeight} width={96} height={42} />
              <Box display={{ base: 'block', md: 'none' }} fontSize="13px" color="quiet" lineHeight={1.25}>
                {[s.bag || 'beans not noted', s.source === 'Imported' ? 'imported' : ''].filter(Boolean).join(', ')}
              </Box>
            </Td>
            <Td display={middle}>
              <Box lineHeight={1.25}>{s.bag || 'beans not noted'}</Box>
              <Box fontSize="13px" color="quiet" lineHeight={1.25}>
                {[s.machine, s.brewer, s.source === 'Imported' ? 'imported' : ''].filter(Boolean).join(', ')}
              </Box>
            </Td>
            <Td display={wide} whiteSpace="nowrap">
              <Reading>{s.grindSetting ?? '\u2013'}</Reading>{' '}
              <chakra.span fontSize="13px" color="quiet">
                {s.grindSetting !== null ? s.scaleUnit : ''}
              </chakra.span>
            </Td>
            <Td textAlign="end" whiteSpace="nowrap">
              <Reading>
                {number(s.doseGrams, 1)}, {number(s.measures.cupGrams, 1)}
              </Reading>
            </Td>
            <Td textAlign="end" display={middle}>
              <Reading>{number(s.measures.ratio, 2)}</Reading>
            </Td>
            <Td textAlign="end">
              <Reading>{number(s.measures.secondsFromPressure, 0)}</Reading>
            </Td>
            <Td textAlign="end" display={wide}>
              <Reading>{number(s.measures.secondsToDrops, 0)}</Reading>
            </Td>
            <Td textAlign="end" display={wide}>
              <Reading>{units.pressure(s.measures.peakBar, 1).value}</Reading>
            </Td>
            <Td textAlign="end" display={wide}>
              <Reading>{number(s.measures.meanFlowGramsPerS, 2)}</Reading>
            </Td>
            <Td textAlign="end" display={middle}>
              <Reading>{number(s.measures.r10, 1)}</Reading>
            </Td>
            <Td display={middle} maxWidth="190px">
              <Box lineHeight={1.25}>{s.taste.liking !== null ? `${s.taste.liking} of 5` : 'not tasted'}</Box>
              <Box fontSize="13px" color="quiet" truncate>
                {s.taste.words}
              </Box>
            </Td>
          </chakra.tr>
        ))}
      </tbody>
    </chakra.table>
  );
}
