import { Box, Grid } from '@chakra-ui/react';
import type { Schemas } from '../shared/api/client';
import { readsWords } from './words';

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
      <legend style={{ fontStretch: '118%', fontWeight: 650, fontSize: 17, marginBottom: 8 }}>{legend}</legend>
      <Grid templateColumns={{ base: 'minmax(0,1fr)', sm: 'minmax(0,1fr) minmax(0,1fr)' }} gap="1">
        {options.map((r) => (
          <label key={r} style={{ display: 'flex', gap: 10, alignItems: 'center', minHeight: 44 }}>
            <input
              type="checkbox"
              checked={value.includes(r)}
              onChange={(e) => onChange(e.target.checked ? [...value, r] : value.filter((x) => x !== r))}
              style={{ width: 20, height: 20, flexShrink: 0 }}
            />
            {readsWords[r]}
          </label>
        ))}
      </Grid>
    </Box>
  );
}
