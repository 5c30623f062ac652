import { Box } from '@chakra-ui/react';
import { Problem, sentenceOf } from '../shared/api/client';
import { useHousehold } from '../shared/api/queries';
import { useHouseholdChange } from '../shared/bench/useHouseholdChange';
import { useDraft } from '../shared/edit/useDraft';
import { Button, Field, H2, Notice, Panel, Textarea } from '../shared/ui/elements';

/** The words to pick from when a shot is tasted. */
export function WordSettings() {
  const { data: household } = useHousehold();
  const { value: draft, set, clear } = useDraft({ words: (household?.tasteWords ?? []).join('\n') });
  const change = useHouseholdChange(household, clear);
  if (!household) return null;
  const wrong = change.error instanceof Problem && change.error.field === 'tasteWords';
  return (
    <Panel>
      <H2>Words for tasting</H2>
      <form
        onSubmit={(e) => {
          e.preventDefault();
          change.mutate({ tasteWords: draft.words.split('\n') });
        }}
      >
        <Field label="One to a line" problem={wrong ? change.error?.message : undefined}>
          {(ids) => (
            <Textarea
              {...ids}
              rows={6}
              value={draft.words}
              onChange={(e) => {
                set({ words: e.target.value });
                change.reset();
              }}
            />
          )}
        </Field>
        <Box mt="3">
          <Button type="submit" disabled={change.isPending}>
            Save the words
          </Button>{' '}
          <Box as="span" role="status">
            {change.isSuccess ? 'Saved.' : ''}
          </Box>
        </Box>
        {change.error && !wrong && <Notice role="alert">{sentenceOf(change.error)}</Notice>}
      </form>
    </Panel>
  );
}
