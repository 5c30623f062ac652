import { Box, Flex } from '@chakra-ui/react';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { memo, useState } from 'react';
import { api, data, sentenceOf, type Schemas } from '../shared/api/client';
import { Fold } from '../shared/ui/Fold';
import { Button, Input, Notice } from '../shared/ui/elements';
import { number, useUnits } from '../shared/units/units';
import { LastWhy } from './LastWhy';
import { TextLink } from '../shared/ui/TextLink';
import { ownText } from '../shared/units/decimals';

interface Props {
  lastTime: Schemas['LastTime'] | null;
  since: Schemas['SinceShot'] | null;
  change: (part: Partial<Schemas['Sheet']>) => void;
}

/** Start from a shot that was, and see what is no longer the same. */
export const SameAs = memo(function SameAs({ lastTime: last, since, change }: Props) {
  const queries = useQueryClient();
  const units = useUnits();
  const [text, setText] = useState('');
  const same = useMutation({
    mutationFn: (shotId: number) => data(api.POST('/api/prepare/same-as/{shotId}', { params: { path: { shotId } } })),
    onSuccess: async (got) => {
      setText('');
      queries.setQueryData(['prepare'], got);
      await queries.invalidateQueries({ queryKey: ['session'] });
    },
  });
  return (
    <Box fontSize="14px" mt="1">
      {last && <LastWhy shotId={last.shotId} />}
      {since && (
        <Box mt={since.things.length > 0 || since.warning ? '2' : '0'} role="status">
          {since.things.length > 0 && (
            <>
              The same as shot {since.shotId} but for{' '}
              {since.things.map((t, i) => (
                <span key={t.what}>
                  {i > 0 ? ', ' : ''}
                  <b>{t.what}</b> {units.sentence(`${t.now} (was ${t.was})`)}
                </span>
              ))}
              .
            </>
          )}
          {since.warning && (
            <Box mt="2">
              <Notice role="alert">{since.warning}</Notice>
            </Box>
          )}
        </Box>
      )}
      <Fold
        title="Repeat a shot with one change"
        note={
          since?.things.length === 0
            ? `The same as shot ${since.shotId}, nothing changed yet.`
            : last &&
              `last: shot ${last.shotId}, ${number(last.cupGrams, 1)} g in ${number(last.secondsFromPressure, 0)} s`
        }
      >
        {last && (
          <Box color="quiet">
            Last time, <TextLink to={`/taste/${last.shotId}`}>shot {last.shotId}</TextLink>: {number(last.doseGrams, 1)}{' '}
            g{last.grindSetting !== null ? ` at ${ownText(last.grindSetting)}` : ''} gave {number(last.cupGrams, 1)} g
            in {number(last.secondsFromPressure, 0)} s from first pressure
            {last.r10 !== null ? `, R10 ${units.resistance(last.r10).value} ${units.resistance(last.r10).unit}` : ''}
            {last.liking !== null ? `, liked ${last.liking} of 5` : ''}.
          </Box>
        )}
        <form
          onSubmit={(e) => {
            e.preventDefault();
            const id = Number(text);
            if (Number.isInteger(id) && id > 0) same.mutate(id);
          }}
        >
          <Flex gap="2" mt="2" align="center" wrap="wrap">
            {last && since?.shotId !== last.shotId && (
              <Button type="button" onClick={() => same.mutate(last.shotId)} disabled={same.isPending}>
                Same as last time
              </Button>
            )}
            <label htmlFor="same-as">Same as shot</label>
            <Input
              id="same-as"
              inputMode="numeric"
              value={text}
              width="84px"
              onChange={(e) => setText(e.target.value)}
              textAlign="center"
            />
            <Button type="submit" disabled={same.isPending || text.trim() === ''}>
              Start from it
            </Button>
            {since && (
              <Button type="button" tone="quiet" onClick={() => change({ sameAsShotId: null })}>
                Stop comparing
              </Button>
            )}
          </Flex>
        </form>
      </Fold>
      {same.error && (
        <Box mt="2">
          <Notice role="alert">{sentenceOf(same.error)}</Notice>
        </Box>
      )}
    </Box>
  );
});
