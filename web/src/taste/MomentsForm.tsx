import { Box, Flex, Grid } from '@chakra-ui/react';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import type { ReactNode } from 'react';
import { api, data, Problem, type Schemas } from '../shared/api/client';
import { wrongOf } from '../shared/edit/wrongOf';
import { useChecked } from '../shared/edit/useChecked';
import { Fold } from '../shared/ui/Fold';
import { Folds } from '../shared/ui/Folds';
import { NumberField } from '../shared/ui/NumberField';
import { Button, Notice } from '../shared/ui/elements';
import { moments as schema } from './schemas';

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
  /** What else there is to open under the trace. */
  more: ReactNode;
  /** Draws the trace with the moments as they are being moved. */
  children: (moments: Moments, move: (moment: keyof Moments, seconds: number) => void) => ReactNode;
}

/**
 * Every moment of a pull can be moved afterwards, on its trace or as a number; times and R10 follow. One that is taken
 * back is found in the trace again.
 */
export function MomentsForm({ shotId, version, moments, marked, more, children }: Props) {
  const queries = useQueryClient();
  const { form, submit, changed, typed: part, set: type, kept, keptAs } = useChecked<Moments>(schema, marked, marked);
  const typed = form.watch();
  const keep = useMutation({
    mutationFn: (body: Moments) =>
      data(api.PUT('/api/shots/{id}/moments', { params: { path: { id: shotId }, query: { version } }, body })),
    onSuccess: async (view, sent) => {
      queries.setQueryData(['shot', shotId], view);
      await queries.invalidateQueries({ queryKey: ['shots'] });
      await queries.invalidateQueries({ queryKey: ['shot', shotId] });
      keptAs(sent);
    },
    onError: (error) =>
      error instanceof Problem && error.status === 409 && queries.invalidateQueries({ queryKey: ['shot', shotId] }),
  });
  const { wrong, elsewhere } = wrongOf(
    keep.error,
    fields.map(([field]) => field),
  );
  // what is being moved stands where it is moved to; what is taken back, where it was found
  const shown = {
    ...moments,
    ...Object.fromEntries(Object.entries(part()).filter(([, at]) => at !== null)),
  } as Moments;
  const set = (field: keyof Moments, value: number | null) => {
    keep.reset();
    type(field, value);
  };
  return (
    <>
      {children(shown, set)}
      {changed && (
        <Flex gap="2" mt="2" wrap="wrap" align="center">
          <Button tone="strong" disabled={keep.isPending} onClick={submit((_, all) => keep.mutate(all))}>
            Save the moments
          </Button>
          <Button
            onClick={() => {
              kept(marked);
              keep.reset();
            }}
          >
            Cancel
          </Button>
        </Flex>
      )}
      <Box role="status" fontSize="14px">
        {keep.isSuccess && !changed ? 'Saved; the times follow.' : ''}
      </Box>
      {elsewhere && <Notice role="alert">{elsewhere}</Notice>}
      <Folds>
        <Fold title="Moments as numbers" open={fields.some(([field]) => wrong(field) !== undefined)}>
          <Grid
            as="section"
            aria-label="Moments of the pull"
            templateColumns={{ base: 'minmax(0,1fr)', sm: 'repeat(3, minmax(0,1fr))' }}
            gap="3"
          >
            {fields.map(([field, label]) => (
              <NumberField
                key={field}
                label={label}
                unit="s"
                step={0.1}
                value={typed[field] ?? moments[field] ?? null}
                problem={wrong(field)}
                hint={
                  typed[field] === null ? (moments[field] === null ? 'not seen' : 'found in the trace') : 'set by you'
                }
                onChange={(value) => set(field, value)}
                onClear={() => set(field, null)}
              />
            ))}
          </Grid>
        </Fold>
        {more}
      </Folds>
    </>
  );
}
