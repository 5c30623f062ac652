import { Box } from '@chakra-ui/react';
import { type Schemas } from '../shared/api/client';
import { wrongOf } from '../shared/edit/wrongOf';
import { useHousehold } from '../shared/api/queries';
import { useHouseholdChange } from '../shared/bench/useHouseholdChange';
import { useChecked } from '../shared/edit/useChecked';
import { Button, Field, H2, Notice, Panel, Textarea } from '../shared/ui/elements';
import * as schemas from './schemas';

const wordsOf = (household: Schemas['HouseholdView'] | undefined) => ({
  words: (household?.tasteWords ?? []).join('\n'),
});

/** The words to pick from when a shot is tasted. */
export function WordSettings() {
  const { data: household } = useHousehold();
  const now = wordsOf(household);
  const { form, kept } = useChecked(schemas.words, now, now);
  const change = useHouseholdChange(household, (next) => kept(wordsOf(next)));
  if (!household) return null;
  const { wrong, elsewhere } = wrongOf(change.error, ['tasteWords']);
  return (
    <Panel>
      <H2>Words for tasting</H2>
      <form onSubmit={form.handleSubmit(({ words }) => change.mutate({ tasteWords: words.split('\n') }))}>
        <Field label="One per line" problem={wrong('tasteWords')}>
          {(ids) => <Textarea {...ids} rows={6} {...form.register('words', { onChange: change.reset })} />}
        </Field>
        <Box mt="3">
          <Button type="submit" disabled={change.isPending}>
            Save the words
          </Button>{' '}
          <Box as="span" role="status">
            {change.isSuccess ? 'Saved.' : ''}
          </Box>
        </Box>
        {elsewhere && <Notice role="alert">{elsewhere}</Notice>}
      </form>
    </Panel>
  );
}
