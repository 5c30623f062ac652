import { Box, Flex, Grid } from '@chakra-ui/react';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import { api, data, sentenceOf, type Schemas } from '../shared/api/client';
import { Fold } from '../shared/ui/Fold';
import { Table } from '../shared/ui/Table';
import { TextLink } from '../shared/ui/TextLink';
import { Button, Field, H2, Notice, PageTitle, Panel, Select, Waiting } from '../shared/ui/elements';
import { useUnits } from '../shared/units/units';
import { ladderName } from './ladderWords';
import { inOurUnits } from '../shared/units/marks';

type Ladder = Schemas['LadderView'];

const likings = ['pour away', 'poor', 'fair', 'good', 'again'];

/** One ladder: made by one person, tasted by another, uncovered. */
export default function LadderPage() {
  const id = Number(useParams().id);
  const queries = useQueryClient();
  const navigate = useNavigate();
  const { data: ladder, error } = useQuery({
    queryKey: ['ladders', id],
    queryFn: () => data(api.GET('/api/ladders/{id}', { params: { path: { id } } })),
    retry: false,
  });
  const remove = useMutation({
    mutationFn: () => data(api.DELETE('/api/ladders/{id}', { params: { path: { id } } })),
    onSuccess: async () => {
      await navigate('/ladders');
      await queries.invalidateQueries({ queryKey: ['ladders'] });
    },
  });
  if (!ladder)
    return (
      <>
        <PageTitle title="Blind ladder" />
        <Waiting error={error} />
      </>
    );
  return (
    <>
      <PageTitle
        title={ladderName(ladder)}
        aside={
          <Flex gap="3" align="center">
            <TextLink to="/ladders">All ladders</TextLink>
            <Button disabled={remove.isPending} onClick={() => remove.mutate()}>
              Delete
            </Button>
          </Flex>
        }
      >
        From the {ladder.lowEnd} to the {ladder.highEnd}. Keep everything else the same.
      </PageTitle>
      {remove.error && <Notice role="alert">{sentenceOf(remove.error)}</Notice>}
      {ladder.score ? (
        <Uncovered ladder={ladder} />
      ) : (
        <Grid templateColumns={{ base: 'minmax(0,1fr)', lg: 'repeat(2, minmax(0,1fr))' }} gap="4" alignItems="start">
          <ForTheBrewer ladder={ladder} />
          <ForTheTaster key={ladder.id} ladder={ladder} />
        </Grid>
      )}
    </>
  );
}

/** What each cup is, one at a time, for whoever makes it. */
function ForTheBrewer({ ladder }: { ladder: Ladder }) {
  return (
    <Panel>
      <H2>For the brewer</H2>
      <Box mb="2" color="quiet">
        Make the cups in this order and mark each with its letter. The taster looks away.
      </Box>
      {ladder.letters.map((letter, cup) => (
        <Fold key={letter} title={`Cup ${letter}`} note="show what it is">
          <Cup ladderId={ladder.id} of={ladder.of} cup={cup} />
        </Fold>
      ))}
    </Panel>
  );
}

function Cup({ ladderId, of, cup }: { ladderId: number; of: Ladder['of']; cup: number }) {
  const units = useUnits();
  const queries = useQueryClient();
  const { data: made, error } = useQuery({
    queryKey: ['ladders', ladderId, 'cup', cup],
    queryFn: () => data(api.GET('/api/ladders/{id}/cups/{cup}', { params: { path: { id: ladderId, cup } } })),
  });
  const set = useMutation({
    mutationFn: () => data(api.POST('/api/ladders/{id}/cups/{cup}/sheet', { params: { path: { id: ladderId, cup } } })),
    onSuccess: (sheet) => queries.setQueryData(['prepare'], sheet),
  });
  if (!made) return <Waiting error={error} />;
  return (
    <Flex gap="3" align="center" wrap="wrap">
      <Box fontSize="19px" fontWeight={650}>
        {inWords(of, made.value, made.unit, units)}
      </Box>
      {made.onTheSheet && (
        <Button disabled={set.isPending} onClick={() => set.mutate()}>
          Put it on the sheet
        </Button>
      )}
      <Box role="status" fontSize="14px">
        {set.isSuccess ? 'It is on the sheet.' : ''}
      </Box>
      {set.error && <Notice role="alert">{sentenceOf(set.error)}</Notice>}
    </Flex>
  );
}

/** The order by taste, and how each cup was liked. */
function ForTheTaster({ ladder }: { ladder: Ladder }) {
  const queries = useQueryClient();
  const [places, setPlaces] = useState<(number | null)[]>(ladder.letters.map(() => null));
  const [liked, setLiked] = useState<(number | null)[]>(ladder.letters.map(() => null));
  const uncover = useMutation({
    mutationFn: () =>
      data(
        api.PUT('/api/ladders/{id}/answer', {
          params: { path: { id: ladder.id }, query: { version: ladder.version } },
          body: { places: places.map((p) => p ?? 0), liked },
        }),
      ),
    onSuccess: async (view) => {
      queries.setQueryData(['ladders', ladder.id], view);
      await queries.invalidateQueries({ queryKey: ['ladders'], exact: true });
    },
  });
  const put = (list: (number | null)[], at: number, value: string) =>
    list.map((v, i) => (i === at ? (value === '' ? null : Number(value)) : v));
  const count = ladder.letters.length;
  const place = (n: number) => (n === 1 ? `1, ${ladder.lowEnd}` : n === count ? `${n}, ${ladder.highEnd}` : String(n));
  return (
    <Panel>
      <H2>For the taster</H2>
      <Box mb="2" color="quiet">
        Stir each cup, taste, and put them in order from the {ladder.lowEnd} to the {ladder.highEnd}.
      </Box>
      <Grid gap="3">
        {ladder.letters.map((letter, i) => (
          <Grid key={letter} templateColumns="repeat(2, minmax(0,1fr))" gap="3">
            <Field label={`Place of cup ${letter}`}>
              {(ids) => (
                <Select {...ids} value={places[i] ?? ''} onChange={(e) => setPlaces(put(places, i, e.target.value))}>
                  <option value="">choose</option>
                  {ladder.letters.map((_, n) => (
                    <option key={n} value={n + 1}>
                      {place(n + 1)}
                    </option>
                  ))}
                </Select>
              )}
            </Field>
            <Field label={`Liking of cup ${letter}`}>
              {(ids) => (
                <Select {...ids} value={liked[i] ?? ''} onChange={(e) => setLiked(put(liked, i, e.target.value))}>
                  <option value="">not said</option>
                  {likings.map((word, n) => (
                    <option key={word} value={n + 1}>
                      {word}
                    </option>
                  ))}
                </Select>
              )}
            </Field>
          </Grid>
        ))}
        <Flex gap="3" align="center">
          <Button
            tone="strong"
            disabled={uncover.isPending || places.some((p) => p === null)}
            onClick={() => uncover.mutate()}
          >
            Uncover
          </Button>
        </Flex>
        {uncover.error && <Notice role="alert">{sentenceOf(uncover.error)}</Notice>}
      </Grid>
    </Panel>
  );
}

function Uncovered({ ladder }: { ladder: Ladder }) {
  const units = useUnits();
  return (
    <Panel>
      <H2 mb="2">{inOurUnits(ladder.score!.sentence)}</H2>
      <Table
        label="Cups as they were"
        head={['Cup', 'It was', 'True place', 'Your place', 'Liked']}
        rows={ladder.uncovered.map((cup) => ({
          key: cup.letter,
          strong: cup.rung === cup.place,
          cells: [
            cup.letter,
            inWords(ladder.of, cup.value, ladder.unit, units),
            String(cup.rung),
            String(cup.place),
            cup.liked === null ? '\u2013' : likings[cup.liked - 1]!,
          ],
        }))}
      />
    </Panel>
  );
}

const inWords = (of: Ladder['of'], value: number, unit: string, units: ReturnType<typeof useUnits>) => {
  if (of === 'Ratio') return `1 : ${value}`;
  const shown = units.quantity(value, unit, unit === 'degC' ? 1 : 2);
  return `${shown.value} ${shown.unit}`.trim();
};
