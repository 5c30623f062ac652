import { Box, Flex, Grid } from '@chakra-ui/react';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { api, data, sentenceOf } from '../shared/api/client';
import { NumberField } from '../shared/ui/NumberField';
import { Button, Field, H2, Input } from '../shared/ui/elements';
import { number, useUnits } from '../shared/units/units';
import { typedNumber } from '../shared/units/decimals';

interface Props {
  altitude: number;
  onChange: (metres: number) => void;
}

/** The height above sea level, as a number or from a thermometer in boiling water. */
export function WhereStep({ altitude, onChange }: Props) {
  const units = useUnits();
  const [text, setText] = useState('');
  const measure = useMutation({
    mutationFn: (boilingC: number) => data(api.POST('/api/household/altitude', { body: { boilingC } })),
    onSuccess: (next) => onChange(next.altitudeMetres),
  });
  const value = typedNumber(text);
  return (
    <>
      <H2>Where is your machine?</H2>
      <Box mb="3">
        Water boils at a lower temperature the higher you are, and that limits how hot it reaches the coffee.
      </Box>
      <Grid templateColumns={{ base: 'minmax(0,1fr)', sm: 'minmax(0,1fr) minmax(0,1fr)' }} gap="4">
        <NumberField
          label="Height above sea level"
          unit="m"
          step={50}
          digits={0}
          value={altitude}
          hint="To the nearest hundred metres is good enough"
          onChange={onChange}
        />
        <Field
          label="Or a thermometer in boiling water reads"
          unit={units.temperature(0).unit}
          problem={measure.error ? sentenceOf(measure.error) : undefined}
          hint={measure.data ? `That is ${number(measure.data.altitudeMetres, 0)} m above sea level` : undefined}
        >
          {(ids) => (
            <Flex gap="2">
              <Input {...ids} inputMode="decimal" value={text} onChange={(e) => setText(e.target.value)} />
              <Button
                flexShrink={0}
                disabled={measure.isPending || value === null}
                onClick={() => value !== null && measure.mutate(units.toCelsius(value))}
              >
                Use it
              </Button>
            </Flex>
          )}
        </Field>
      </Grid>
    </>
  );
}
