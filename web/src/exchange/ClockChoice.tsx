import { Box } from '@chakra-ui/react';
import type { Schemas } from '../shared/api/client';
import { Field, Select } from '../shared/ui/elements';

type Clock = NonNullable<Schemas['ClockStart']>;

const words: Record<Clock, string> = {
  Lever: 'the lever\u2019s first move',
  FirstPressure: 'first pressure',
  FirstDrops: 'first drops',
};

interface Props {
  clock: Clock | null;
  isRemembered: boolean;
  onChange: (clock: Clock) => void;
}

/** What the times of a file count from: people and instruments start the clock at different moments. */
export function ClockChoice({ clock, isRemembered, onChange }: Props) {
  return (
    <Box maxWidth="340px">
      <Field
        label="The clock starts at"
        hint={isRemembered ? 'as for the last file with these columns' : undefined}
        problem={clock === null ? 'Choose one: the times mean nothing without it.' : undefined}
      >
        {(ids) => (
          <Select {...ids} value={clock ?? ''} onChange={(e) => e.target.value && onChange(e.target.value as Clock)}>
            {clock === null && <option value="">choose</option>}
            {Object.entries(words).map(([key, word]) => (
              <option key={key} value={key}>
                {word}
              </option>
            ))}
          </Select>
        )}
      </Field>
    </Box>
  );
}
