import { Box, Grid } from '@chakra-ui/react';
import type { Schemas } from '../shared/api/client';
import { Reading } from '../shared/ui/elements';
import { number, useUnits } from '../shared/units/units';

/** The measures of a shot as label, number, unit; clocks named by where they start. */
export function ShotMeasures({ measures: m }: { measures: Schemas['Measures'] }) {
  const units = useUnits();
  const reference = `${units.pressure(6, 0).value} ${units.pressureUnit}, ${units.channel('Temperature', 93)}`;
  const rows: [label: string, value: string, unit: string][] = [
    ['Time from lever', number(m.secondsFromLever, 1), 's'],
    ['Time from first pressure', number(m.secondsFromPressure, 1), 's'],
    ['Time from first drops', number(m.secondsFromDrops, 1), 's'],
    ['To first drops', number(m.secondsToDrops, 1), 's'],
    ['In the cup', number(m.cupGrams, 1), 'g'],
    ['Ratio', m.ratio === null ? '\u2013' : `1 : ${number(m.ratio, 2)}`, ''],
    ['Peak pressure', units.pressure(m.peakBar, 1).value, units.pressureUnit],
    ['Mean pressure', units.pressure(m.meanBar, 1).value, units.pressureUnit],
    ['Mean flow', number(m.meanFlowGramsPerS, 2), 'g/s'],
    ['Work', number(m.workJoules, 1), 'J'],
    ['Dripped after the stop', number(m.drippedGrams, 1), 'g'],
    ['R10, the grind\u2019s resistance', units.resistance(m.r10).value, units.resistance(m.r10).unit],
  ];
  return (
    <>
      <Grid as="dl" templateColumns="minmax(0,1fr) auto 62px" columnGap="3" rowGap="0.5">
        {rows.map(([label, value, unit]) => (
          <Box key={label} display="contents">
            <Box as="dt" color="quiet">
              {label}
            </Box>
            <Box as="dd" textAlign="end">
              <Reading style={{ fontSize: '18px' }}>{value}</Reading>
            </Box>
            <Box as="dd" color="quiet" fontSize="14px" alignSelf="center">
              {unit}
            </Box>
          </Box>
        ))}
      </Grid>
      <Box fontSize="13px" color="quiet" mt="3">
        R10 is the puck&rsquo;s resistance over the first 10 g, brought to {reference} and a swollen puck. It tells what
        the grind did, free of what the arm did: higher is finer.
      </Box>
    </>
  );
}
