import { Box, Flex, Grid } from '@chakra-ui/react';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { api, data, Problem, type Schemas } from '../shared/api/client';
import { wrongOf } from '../shared/edit/wrongOf';
import { useDraft } from '../shared/edit/useDraft';
import { Fold } from '../shared/ui/Fold';
import { NumberField } from '../shared/ui/NumberField';
import { Button, Field, Notice, Textarea } from '../shared/ui/elements';
import { number } from '../shared/units/units';
import { BeforeAsked, beforeInShort } from './BeforeAsked';
import { SeenPicture } from './SeenPicture';
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
const longestNote = 500;
const likings = ['pour away', 'poor', 'fair', 'good', 'again'];

/** A taste in a few words. */
export function inShort(taste: Taste): string {
  const marks = scales
    .filter(([key]) => taste[key] !== null && taste[key]! > 0)
    .map(([key, label]) => `${label.toLowerCase()} ${degrees[taste[key]!]}`);
  return [...marks, ...(taste.liking === null ? [] : [`liked ${taste.liking} of 5`])].join(', ');
}

interface StepsProps {
  name: string;
  label: string;
  words: string[];
  first: number;
  value: number | null;
  onChange: (value: number) => void;
}

/** Five steps from none to very, as radio buttons drawn as one bar. */
function Steps({ name, label, words, first, value, onChange }: StepsProps) {
  return (
    <Grid
      as="fieldset"
      templateColumns={{ base: '58px minmax(0,1fr)', sm: '70px minmax(0,1fr)' }}
      alignItems="center"
      border="0"
      p="0"
      m="0"
    >
      <Box as="legend" display="contents">
        <Box fontWeight={600}>{label}</Box>
      </Box>
      <Grid
        templateColumns="repeat(5, minmax(0,1fr))"
        borderWidth="1px"
        borderColor="edge"
        borderRadius="small"
        overflow="hidden"
      >
        {words.map((word, i) => {
          const here = first + i;
          const chosen = value === here;
          return (
            <Flex
              as="label"
              key={word}
              position="relative"
              align="center"
              justify="center"
              minHeight="44px"
              px="1"
              cursor="pointer"
              fontSize="13px"
              textAlign="center"
              lineHeight={1.1}
              borderInlineEndWidth={i < 4 ? '1px' : 0}
              borderColor="hairline"
              bg={chosen ? 'text' : 'transparent'}
              color={chosen ? 'panel' : 'text'}
              _focusWithin={{ outline: '2px solid', outlineColor: 'text', outlineOffset: '-4px' }}
            >
              <input
                type="radio"
                name={name}
                checked={chosen}
                onChange={() => onChange(here)}
                aria-label={`${label}: ${word}`}
                style={{ position: 'absolute', inset: 0, opacity: 0, cursor: 'pointer' }}
              />
              {word}
            </Flex>
          );
        })}
      </Grid>
    </Grid>
  );
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
  const { value: draft, set: type, kept } = useDraft<Taste>(taste);
  const save = useMutation({
    mutationFn: (body: Taste) =>
      data(api.PUT('/api/shots/{id}/taste', { params: { path: { id: shotId }, query: { version } }, body })),
    onSuccess: async (_, sent) => {
      await queries.invalidateQueries({ queryKey: ['shot', shotId] });
      kept(sent);
      await queries.invalidateQueries({ queryKey: ['shots'] });
    },
    // another taster was first: what they said is shown under what was said here
    onError: (error) =>
      error instanceof Problem && error.status === 409 && queries.invalidateQueries({ queryKey: ['shot', shotId] }),
  });
  const { wrong, elsewhere } = wrongOf(save.error, ['strengthPercent']);
  const set = (part: Partial<Taste>) => {
    type(part);
    save.reset();
  };
  return (
    <Grid gap="2">
      <Box fontSize="14px" color="quiet">
        Stir it first.
      </Box>
      {scales.map(([key, label]) => (
        <Steps
          key={key}
          name={key}
          label={label}
          words={degrees}
          first={0}
          value={draft[key]}
          onChange={(v) => set({ [key]: v })}
        />
      ))}
      <Steps
        name="liking"
        label="Liking"
        words={likings}
        first={1}
        value={draft.liking}
        onChange={(liking) => set({ liking })}
      />
      <Fold
        title="Stream and puck"
        note={draft.seen ? (draft.seen.length === 0 ? 'nothing to see' : `${draft.seen.length} seen`) : 'not looked at'}
      >
        <SeenPicture seen={draft.seen ?? null} onChange={(seen) => set({ seen })} />
      </Fold>
      {asked.length > 0 && (
        <Fold title="Before the pull" note={beforeInShort(draft.before)}>
          <BeforeAsked asked={asked} before={draft.before} onChange={(before) => set({ before })} />
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
          onChange={(strengthPercent) => set({ strengthPercent })}
          onClear={() => set({ strengthPercent: null })}
        />
        {extraction && (
          <Box fontSize="14px" mt="1">
            {extraction}
          </Box>
        )}
      </Fold>
      <Field label="In your words">
        {(ids) => (
          <Textarea
            {...ids}
            rows={2}
            maxLength={longestNote}
            value={draft.words}
            onChange={(e) => set({ words: e.target.value })}
          />
        )}
      </Field>
      <Fold title="Words to pick">
        <WordPicks text={draft.words} onChange={(words) => set({ words: words.slice(0, longestNote) })} />
      </Fold>
      <Flex gap="3" align="center">
        <Button tone="strong" onClick={() => save.mutate(draft)} disabled={save.isPending}>
          Save the taste
        </Button>
        <Box role="status" fontSize="14px">
          {save.isSuccess ? 'Saved.' : ''}
        </Box>
      </Flex>
      {elsewhere && <Notice role="alert">{elsewhere}</Notice>}
    </Grid>
  );
}
