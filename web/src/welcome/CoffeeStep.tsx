import { fieldDay } from '../shared/clock';
import { Box, Grid } from '@chakra-ui/react';
import { Field, H2, Input, Select } from '../shared/ui/elements';
import type { Coffee } from './firstMorning';

interface Props {
  coffee: Coffee;
  onChange: (part: Partial<Coffee>) => void;
}

const two = { base: 'minmax(0,1fr)', sm: 'minmax(0,1fr) minmax(0,1fr)' };

/** First beans and grinder; leaving either empty leaves it out. */
export function CoffeeStep({ coffee, onChange }: Props) {
  return (
    <>
      <H2>Which coffee, and which grinder?</H2>
      <Box mb="3" color="quiet">
        You can skip both: leave empty what you do not know.
      </Box>
      <Grid templateColumns={two} gap="3">
        <Field label="Coffee">
          {(ids) => (
            <Input {...ids} value={coffee.name} maxLength={80} onChange={(e) => onChange({ name: e.target.value })} />
          )}
        </Field>
        <Field label="Roasted on" hint="empty: today">
          {(ids) => (
            <Input
              {...ids}
              type="date"
              value={coffee.roastedOn}
              max={fieldDay()}
              onChange={(e) => onChange({ roastedOn: e.target.value })}
            />
          )}
        </Field>
        <Field label="Roast">
          {(ids) => (
            <Select {...ids} value={coffee.roastLevel} onChange={(e) => onChange({ roastLevel: e.target.value })}>
              {['light', 'medium', 'dark'].map((r) => (
                <option key={r}>{r}</option>
              ))}
            </Select>
          )}
        </Field>
      </Grid>
      <Grid templateColumns={two} gap="3" mt="4">
        <Field label="Grinder">
          {(ids) => (
            <Input
              {...ids}
              value={coffee.grinder}
              maxLength={80}
              onChange={(e) => onChange({ grinder: e.target.value })}
            />
          )}
        </Field>
        <Field label="Finer is">
          {(ids) => (
            <Select
              {...ids}
              value={coffee.finerIsLower ? 'lower' : 'higher'}
              onChange={(e) => onChange({ finerIsLower: e.target.value === 'lower' })}
            >
              <option value="lower">a smaller number</option>
              <option value="higher">a larger number</option>
            </Select>
          )}
        </Field>
        <Field label="Name of a step">
          {(ids) => (
            <Input
              {...ids}
              value={coffee.scaleUnit}
              maxLength={20}
              onChange={(e) => onChange({ scaleUnit: e.target.value })}
            />
          )}
        </Field>
      </Grid>
    </>
  );
}
