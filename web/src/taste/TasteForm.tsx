import { Box, chakra, Grid } from '@chakra-ui/react';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useId } from 'react';
import { api, data, Problem, type Schemas } from '../shared/api/client';
import { wrongOf } from '../shared/edit/wrongOf';
import { useChecked } from '../shared/edit/useChecked';
import { Fold } from '../shared/ui/Fold';
import { Folds } from '../shared/ui/Folds';
import { NumberField } from '../shared/ui/NumberField';
import { Button, Notice, Textarea } from '../shared/ui/elements';
import { number } from '../shared/units/units';
import { BeforeAsked, beforeInShort } from './BeforeAsked';
import { longestNote, taste as schema } from './schemas';
import { SeenPicture } from './SeenPicture';
import { scaleLabelWidth, TasteScale } from './TasteScale';
import { WordPicks } from './WordPicks';

type Taste = Schemas['TasteView'];
type ScaleKey = 'sour' | 'bitter' | 'dry' | 'sweet' | 'body';

const scales: [ScaleKey, string][] = [
  ['sour', 'Sour'],
  ['bitter', 'Bitter'],
  ['dry', 'Dry'],
  ['sweet', 'Sweet'],
  ['body', 'Body'],
];
const degrees = ['none', 'a touch', 'some', 'clear', 'very'];
const likings = ['pour away', 'poor', 'fair', 'good', 'again'];

/** A taste in a few words. */
export function inShort(taste: Taste): string {
  const marks = scales
    .filter(([key]) => taste[key] !== null && taste[key]! > 0)
    .map(([key, label]) => `${label.toLowerCase()} ${degrees[taste[key]!]}`);
  return [...marks, ...(taste.liking === null ? [] : [`liked ${taste.liking} of 5`])].join(', ');
}

interface Props {
  shotId: number;
  version: number;
  taste: Taste;
  /** What the measured strength comes to; null without one. */
  extraction: string | null;
  /** What there was to be done before the pull. */
  asked: readonly Schemas['AskedBefore'][];
}

/** A minute's work: five scales, liking, words. */
export function TasteForm({ shotId, version, taste, extraction, asked }: Props) {
  const queries = useQueryClient();
  const { form, submit, set: type, keptAs } = useChecked<Taste>(schema, taste, taste);
  const draft = form.watch();
  const wordsId = useId();
  const save = useMutation({
    mutationFn: (body: Taste) =>
      data(api.PUT('/api/shots/{id}/taste', { params: { path: { id: shotId }, query: { version } }, body })),
    onSuccess: async (_, sent) => {
      await queries.invalidateQueries({ queryKey: ['shot', shotId] });
      keptAs(sent);
      await queries.invalidateQueries({ queryKey: ['shots'] });
    },
    // another taster was first: what they said is shown under what was said here
    onError: (error) =>
      error instanceof Problem && error.status === 409 && queries.invalidateQueries({ queryKey: ['shot', shotId] }),
  });
  const { wrong, elsewhere } = wrongOf(save.error, ['strengthPercent']);
  const set = <K extends keyof Taste>(field: K, value: Taste[K]) => {
    type(field, value);
    save.reset();
  };
  return (
    <chakra.form display="grid" gap="2" onSubmit={submit((_, all) => save.mutate(all))}>
      <Grid gap="1">
        {scales.map(([key, label]) => (
          <TasteScale
            key={key}
            label={label}
            words={degrees}
            first={0}
            value={draft[key]}
            onChange={(v) => set(key, v)}
          />
        ))}
        <TasteScale
          label="Liking"
          words={likings}
          first={1}
          value={draft.liking}
          onChange={(liking) => set('liking', liking)}
        />
      </Grid>
      <Folds>
        <Fold title="Stream and puck" note={seenInShort(draft.seen)}>
          <SeenPicture seen={draft.seen ?? null} onChange={(seen) => set('seen', seen)} />
        </Fold>
        {asked.length > 0 && (
          <Fold title="Before the pull" note={beforeInShort(draft.before)}>
            <BeforeAsked asked={asked} before={draft.before} onChange={(before) => set('before', before)} />
          </Fold>
        )}
        <Fold
          title="Measured strength"
          note={draft.strengthPercent != null ? `${number(draft.strengthPercent, 1)} %` : 'not measured'}
          open={wrong('strengthPercent') !== undefined}
        >
          <NumberField
            label="Strength by refractometer"
            unit="%"
            step={0.1}
            value={draft.strengthPercent ?? null}
            problem={wrong('strengthPercent')}
            hint="stirred, cooled and filtered"
            onChange={(strengthPercent) => set('strengthPercent', strengthPercent)}
            onClear={() => set('strengthPercent', null)}
          />
          {extraction && (
            <Box fontSize="14px" mt="1">
              {extraction}
            </Box>
          )}
        </Fold>
        <Fold title="Words to pick">
          <WordPicks text={draft.words} onChange={(words) => set('words', words.slice(0, longestNote))} />
        </Fold>
      </Folds>
      <Grid
        templateColumns={{ base: 'minmax(0,1fr)', sm: `${scaleLabelWidth} minmax(0,1fr) auto` }}
        gap="2"
        alignItems="center"
      >
        <chakra.label htmlFor={wordsId} fontWeight={650} lineHeight={1.2}>
          In your words
        </chakra.label>
        <Textarea
          id={wordsId}
          autoresize
          rows={1}
          maxLength={longestNote}
          value={draft.words}
          onChange={(e) => set('words', e.target.value)}
        />
        <Button tone="strong" type="submit" disabled={save.isPending}>
          Save the taste
        </Button>
      </Grid>
      <Box role="status" fontSize="14px">
        {save.isSuccess ? 'Saved.' : ''}
      </Box>
      {elsewhere && <Notice role="alert">{elsewhere}</Notice>}
    </chakra.form>
  );
}

/** What was seen of stream and puck, in a word. */
function seenInShort(seen: Taste['seen']): string {
  if (!seen) return 'not looked at';
  return seen.length === 0 ? 'nothing to see' : `${seen.length} seen`;
}
