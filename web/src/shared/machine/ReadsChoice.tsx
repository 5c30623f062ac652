import { Box, chakra, Grid } from '@chakra-ui/react';
import type { Schemas } from '../api/client';
import { readsWords } from './words';
import { Check } from '../ui/Check';
import { wide } from '../../theme/type';

type Reads = Schemas['Reads'];

interface Props {
  legend: string;
  boiler: boolean;
  value: readonly Reads[];
  onChange: (value: Reads[]) => void;
}

/** What can be read on or beside a machine; what only a boiler has is asked of boilers only. */
export function ReadsChoice({ legend, boiler, value, onChange }: Props) {
  const options: Reads[] = boiler
    ? ['Gauge', 'BoilerGauge', 'Lamp', 'Strip', 'Probe', 'Scale']
    : ['Gauge', 'Probe', 'Strip', 'Scale'];
  return (
    <Box as="fieldset" borderWidth="0">
      <chakra.legend {...wide} fontSize="17px" mb="2">
        {legend}
      </chakra.legend>
      <Grid templateColumns={{ base: 'minmax(0,1fr)', sm: 'minmax(0,1fr) minmax(0,1fr)' }} gap="1">
        {options.map((r) => (
          <Check
            key={r}
            checked={value.includes(r)}
            onChange={(on) => onChange(on ? [...value, r] : value.filter((x) => x !== r))}
          >
            {readsWords[r]}
          </Check>
        ))}
      </Grid>
    </Box>
  );
}
