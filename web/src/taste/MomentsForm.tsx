import { Box, Flex, Grid } from '@chakra-ui/react';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { api, data, Problem, sentenceOf, type Schemas } from '../shared/api/client';
import { useDraft } from '../shared/edit/useDraft';
import { NumberField } from '../shared/ui/NumberField';
import { Button, Notice } from '../shared/ui/elements';

type Moments = Schemas['Moments'];

const fields: [keyof Moments, string][] = [
  ['firstPressure', 'First pressure'],
  ['firstDrops', 'First drops'],
  ['ramp', 'Ramp'],
  ['peak', 'Peak'],
  ['ease', 'Ease'],
  ['blonding', 'Blonding'],
  ['stop', 'Stop'],
];

interface Props {
  shotId: number;
  /** Of the shot as it is shown. */
  version: number;
  /** As they stand, found or set. */
  moments: Moments;
  /** Those that a person set. */
  marked: Moments;
}

/** Every moment of a pull can be moved afterwards; times and R10 follow. One that is taken back is found in the trace again. */
export function MomentsForm({ shotId, version, moments, marked }: Props) {
  const queries = useQueryClient();
  const [open, setOpen] = useState(false);
  const { value: typed, set: setTyped, clear } = useDraft<Moments>(marked);
  const keep = useMutation({
    mutationFn: (body: Moments) =>
      data(api.PUT('/api/shots/{id}/moments', { params: { path: { id: shotId }, query: { version } }, body })),
    onSuccess: async (view) => {
      queries.setQueryData(['shot', shotId], view);
      await queries.invalidateQueries({ queryKey: ['shots'] });
      await queries.invalidateQueries({ queryKey: ['shot', shotId] });
      clear();
    },
    onError: (error) =>
      error instanceof Problem && error.status === 409 && queries.invalidateQueries({ queryKey: ['shot', shotId] }),
  });
  if (!open) {
    return (
      <Button tone="quiet" onClick={() => setOpen(true)}>
        Move a moment
      </Button>
    );
  }
  const changed = JSON.stringify(typed) !== JSON.stringify(marked);
  const wrong = (field: string) =>
    keep.error instanceof Problem && keep.error.field === field ? keep.error.message : undefined;
  return (
    <Box mt="3" as="section" aria-label="Moments of the pull">
      <Grid templateColumns={{ base: 'minmax(0,1fr)', sm: 'repeat(3, minmax(0,1fr))' }} gap="3">
        {fields.map(([field, label]) => (
          <NumberField
            key={field}
            label={label}
            unit="s"
            step={0.1}
            value={typed[field] ?? moments[field] ?? null}
            problem={wrong(field)}
            hint={typed[field] === null ? (moments[field] === null ? 'not seen' : 'found in the trace') : 'set by you'}
            onChange={(value) => {
              keep.reset();
              setTyped({ [field]: value });
            }}
            onClear={() => {
              keep.reset();
              setTyped({ [field]: null });
            }}
          />
        ))}
      </Grid>
      {keep.error && !(keep.error instanceof Problem && keep.error.field) && (
        <Notice role="alert">{sentenceOf(keep.error)}</Notice>
      )}
      <Flex gap="2" mt="3" wrap="wrap" align="center">
        <Button
          tone={changed ? 'strong' : 'plain'}
          disabled={!changed || keep.isPending}
          onClick={() => keep.mutate(typed)}
        >
          Save the moments
        </Button>
        <Button
          onClick={() => {
            clear();
            setOpen(false);
            keep.reset();
          }}
        >
          Close
        </Button>
        {keep.isSuccess && !changed && <Box role="status">Kept; the times follow.</Box>}
      </Flex>
    </Box>
  );
}
