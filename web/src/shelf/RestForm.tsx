import { Flex, Grid } from '@chakra-ui/react';
import type { Schemas } from '../shared/api/client';
import { useChecked } from '../shared/edit/useChecked';
import { NumberField } from '../shared/ui/NumberField';
import { Button } from '../shared/ui/elements';
import * as schemas from './schemas';

type Rest = Schemas['RestWindow'];

interface Props {
  start: Rest;
  schools: readonly Schemas['NamedRest'][];
  save: (rest: Rest) => void;
  cancel: () => void;
  wrong: (field: string) => string | undefined;
}

/** How long this household rests its beans. */
export function RestForm({ start, schools, save, cancel, wrong }: Props) {
  const { form, problem, set } = useChecked<Rest>(schemas.rest, start, start);
  const day = (label: string, key: keyof Rest) => (
    <NumberField
      label={label}
      step={1}
      digits={0}
      value={form.watch(key)}
      problem={problem(key) ?? wrong(key)}
      onChange={(v) => set(key, Math.round(v))}
    />
  );
  return (
    <form onSubmit={form.handleSubmit(save)}>
      <Flex gap="2" wrap="wrap" mb="3">
        {schools.map(({ name, window }) => (
          <Button
            key={name}
            type="button"
            onClick={() => form.reset(window, { keepDefaultValues: true, keepDirtyValues: false })}
          >
            {name}
          </Button>
        ))}
      </Flex>
      <Grid templateColumns={{ base: 'minmax(0,1fr)', sm: 'minmax(0,1fr) minmax(0,1fr)' }} gap="3">
        {day('Drinkable from day', 'usableFrom')}
        {day('At its best from day', 'bestFrom')}
        {day('Stop at day', 'bestTo')}
        {day('Crema to day', 'cremaTo')}
      </Grid>
      <Flex gap="2" mt="3">
        <Button tone="strong" type="submit">
          Save the window
        </Button>
        <Button type="button" onClick={cancel}>
          Cancel
        </Button>
      </Flex>
    </form>
  );
}
