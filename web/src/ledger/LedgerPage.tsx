import { momentOf } from '../shared/clock';
import { Box, Flex } from '@chakra-ui/react';
import { keepPreviousData, useQuery, useQueryClient } from '@tanstack/react-query';
import { useCallback, useDeferredValue, useEffect, useMemo, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { api, data, sentenceOf, type Schemas } from '../shared/api/client';
import { Button, Notice, PageTitle, Panel, Waiting } from '../shared/ui/elements';
import { ShotTable } from './ShotTable';
import { comparisonOf } from './comparison';
import { ColumnChoice } from './ColumnChoice';
import { LedgerFilters } from './LedgerFilters';
import { SavedViews } from './SavedViews';
import { SelectionBar } from './SelectionBar';
import { filterOf, moreSet, readView, useLedgerView, writeView } from './useLedgerView';
import { useRestore } from './useRestore';
import { EmptyState } from '../shared/ui/EmptyState';

const size = 40;

/** Every shot, newest first, with its small trace; search, filter, pin two or more and lay them over each other. */
export default function LedgerPage() {
  const navigate = useNavigate();
  const { view, change } = useLedgerView();
  const { search, machineId, bagId, minLiking, order, ascending, columns } = view;
  const { bin, page, ticked } = view;
  const words = useDeferredValue(search);
  const [choosing, setChoosing] = useState(false);
  const saved = writeView({ ...view, page: 0, ticked: [] }).toString();
  const filters = useMemo(() => readView(new URLSearchParams(saved)), [saved]);
  const filter = filterOf({ ...view, search: words });
  const query = { ...filter, page, size, order, ascending: ascending || undefined, count: false };
  const { data: answer, error } = useQuery({
    queryKey: ['shots', query],
    queryFn: () => data(api.GET('/api/shots', { params: { query } })),
    placeholderData: keepPreviousData,
  });
  // forty lines take a while to lay out: they are worked at in pieces, so that the page can still be scrolled meanwhile
  const found = useDeferredValue(answer);
  const total = useTotal(found, filter);
  const restore = useRestore();
  const pin = useCallback(
    (id: number) =>
      change(({ ticked: now }) => ({ ticked: now.includes(id) ? now.filter((n) => n !== id) : [...now, id] })),
    [change],
  );
  const open = useCallback((id: number) => void navigate(`/taste/${id}`), [navigate]);
  const prepare = useReadyToCompare(ticked);
  const more = moreSet(view);
  const filtered = search || machineId || bagId || minLiking || more > 0;
  const nothing = total?.total === 0 && !bin && !filtered;
  return (
    <>
      <PageTitle
        title={bin ? 'Bin' : 'Ledger'}
        aside={
          <Flex gap="2" wrap="wrap">
            <Button asChild>
              <Link to="/ledger/trends">Trends</Link>
            </Button>
            <Button asChild>
              <Link to="/ledger/arm">The arm</Link>
            </Button>
            <Button aria-pressed={bin} onClick={() => change({ bin: !bin, page: 0, ticked: [] })}>
              {bin ? 'Back to the ledger' : 'Bin'}
            </Button>
            <Button asChild>
              <Link to="/ledger/exchange">Import and export</Link>
            </Button>
          </Flex>
        }
      >
        {bin
          ? 'Deleted shots. Each can be restored as it was.'
          : 'Every shot. Select two or more to compare them, or the name of a column to sort by it.'}
      </PageTitle>
      {restore.error && <Notice role="alert">{sentenceOf(restore.error)}</Notice>}
      <LedgerFilters view={filters} change={change} />
      {!bin && <SavedViews query={saved} />}
      {!found ? (
        <Waiting error={error} />
      ) : (
        <Panel p="0" overflowX="auto" position="relative">
          {nothing ? (
            <EmptyState
              title="No shot yet"
              action={
                <Button tone="strong" asChild>
                  <Link to="/prepare">Prepare the first one</Link>
                </Button>
              }
            >
              Every shot is kept here with its trace: to find again, to lay over others, and to see a trend in.
            </EmptyState>
          ) : found.shots.length === 0 ? (
            <Box p="5">{bin ? 'The bin is empty.' : 'No shot fits this.'}</Box>
          ) : bin ? (
            <Binned shots={found.shots} takeBack={restore.mutate} />
          ) : (
            <ShotTable
              shots={found.shots}
              columns={columns}
              pinned={ticked}
              pin={pin}
              open={open}
              order={order}
              ascending={ascending}
              sort={(by) => change({ order: by, ascending: by === order ? !ascending : false })}
            />
          )}
        </Panel>
      )}
      <Flex justify="space-between" align="center" mt="3" gap="3" wrap="wrap">
        <Flex gap="3" align="center" wrap="wrap">
          <Box fontSize="14px" color="quiet" role="status">
            {total ? counted(total) : ''}
          </Box>
          {found && found.shots.length > 0 && !bin && (
            <>
              <Button
                tone="quiet"
                onClick={() => change({ ticked: [...new Set([...ticked, ...found.shots.map((s) => s.id)])] })}
              >
                Select this page
              </Button>
              <Button tone="quiet" onClick={() => setChoosing(true)}>
                Columns
              </Button>
              <Button tone="quiet" asChild>
                <a href={`/api/exchange/logbook.csv?${asked(filterOf(view))}`} download>
                  Save as CSV
                </a>
              </Button>
            </>
          )}
        </Flex>
        {found && (page > 0 || found.hasOlder) && (
          <Flex gap="2" align="center">
            <Button onClick={() => change({ page: page - 1 })} disabled={page === 0}>
              {order === 'Date' ? 'Newer' : 'Back'}
            </Button>
            <Box fontSize="14px">page {page + 1}</Box>
            <Button onClick={() => change({ page: page + 1 })} disabled={!found.hasOlder}>
              {order === 'Date' ? 'Older' : 'On'}
            </Button>
          </Flex>
        )}
      </Flex>
      {ticked.length > 0 && (
        <SelectionBar
          ticked={ticked}
          clear={() => change({ ticked: [] })}
          prepare={prepare}
          compare={() => {
            prepare();
            // at once: there is nothing else that the drawing should give way to
            void navigate(`/ledger/compare?ids=${ticked.join(',')}`, { flushSync: true });
          }}
        />
      )}
      {choosing && (
        <ColumnChoice columns={columns} change={(next) => change({ columns: next })} close={() => setChoosing(false)} />
      )}
    </>
  );
}

/** A filter as an address has it. */
const asked = (filter: Record<string, unknown>) =>
  new URLSearchParams(
    Object.entries(filter).flatMap(([key, value]) => (value === undefined ? [] : [[key, String(value)]])),
  ).toString();

/** How many there are, as far as they are counted. */
const counted = ({ total, isMore }: Schemas['LedgerTotal']) =>
  isMore ? `More than ${total} shots` : `${total} ${total === 1 ? 'shot' : 'shots'}`;

/** How many fit, where a page does not say so itself: counted beside it, once for all its pages and orders. */
function useTotal(page: Schemas['LedgerPage'] | undefined, filter: ReturnType<typeof filterOf>) {
  const told = page?.total ?? null;
  const { data: total } = useQuery({
    queryKey: ['shots', 'count', filter],
    queryFn: () => data(api.GET('/api/shots/count', { params: { query: filter } })),
    placeholderData: keepPreviousData,
    enabled: page !== undefined && told === null,
  });
  return told === null ? total : { total: told, isMore: false };
}

/** What lies in the bin, with the way back. */
function Binned({ shots, takeBack }: { shots: readonly Schemas['ShotLine'][]; takeBack: (id: number) => void }) {
  return (
    <Box as="ul" listStyleType="none" aria-label="Shots in the bin">
      {shots.map((s) => (
        <Flex as="li" key={s.id} gap="3" align="center" px="4" py="2" borderTopWidth="1px" borderColor="hairline">
          <Box flex="1" minWidth={0}>
            Shot {s.id}, {momentOf(s.pulledAt)}
            <Box fontSize="14px" color="quiet">
              {[s.machine, s.bag, s.brewer].filter(Boolean).join(', ')}
            </Box>
          </Box>
          <Button onClick={() => takeBack(s.id)} aria-label={`Restore shot ${s.id}`}>
            Restore
          </Button>
        </Flex>
      ))}
    </Box>
  );
}

const pauseMs = 150;

/** Two shots that are ticked will be compared: the answer is fetched meanwhile, or when it is asked for. */
function useReadyToCompare(ticked: readonly number[]) {
  const queries = useQueryClient();
  const ids = ticked.join(',');
  const many = ticked.length > 1;
  const prepare = useCallback(() => {
    void queries.prefetchQuery(comparisonOf(ids));
  }, [queries, ids]);
  useEffect(() => {
    if (!many) return;
    const timer = setTimeout(prepare, pauseMs);
    return () => clearTimeout(timer);
  }, [prepare, many]);
  return prepare;
}
