import { Box, Grid } from '@chakra-ui/react';
import type { Schemas } from '../shared/api/client';
import { Figure } from '../shared/ui/elements';
import { number, useUnits } from '../shared/units/units';

interface Props {
  shotId: number;
  measures: Schemas['Measures'];
  /** What the trace says of a channel. */
  sign: Schemas['ChannelEvidence'] | null;
}

/** The measures of a shot as label, number, unit; clocks named by where they start. */
export function ShotMeasures({ shotId, measures: m, sign }: Props) {
  const units = useUnits();
  const figures: [label: string, value: string, unit: string, why?: string][] = [
    ['From lever', number(m.secondsFromLever, 1), 's'],
    ['From pressure', number(m.secondsFromPressure, 1), 's'],
    ['From first drops', number(m.secondsFromDrops, 1), 's'],
    ['First drops', number(m.secondsToDrops, 1), 's'],
    ['In the cup', number(m.cupGrams, 1), 'g'],
    ['Ratio', m.ratio === null ? '\u2013' : `1 : ${number(m.ratio, 2)}`, ''],
    ['Peak pressure', units.pressure(m.peakBar, 1).value, units.pressureUnit],
    ['Mean pressure', units.pressure(m.meanBar, 1).value, units.pressureUnit],
    ['Mean flow', number(m.meanFlowGramsPerS, 2), 'g/s', 'meanFlow'],
    ['Work', number(m.workJoules, 1), 'J', 'work'],
    ['Dripped after', number(m.drippedGrams, 1), 'g'],
    ['R10', units.resistance(m.r10).value, units.resistance(m.r10).unit, m.r10 === null ? undefined : 'r10'],
  ];
  return (
    <>
      <Grid templateColumns={{ base: 'repeat(3, minmax(0,1fr))', sm: 'repeat(6, minmax(0,1fr))' }} gap="3">
        {figures.map(([label, value, unit, why]) => (
          <Figure
            key={label}
            label={label}
            size={22}
            value={value}
            unit={unit}
            why={why ? { of: why, from: { shot: shotId } } : undefined}
          />
        ))}
      </Grid>
      {sign && (
        <Box mt="3" fontSize="14px">
          {`At ${number(sign.atSeconds, 0)} s the resistance fell by ${number(sign.fall * 100, 0)} % ` +
            'more than a puck\u2019s own, with the pressure not rising: a sign of a channel.'}
        </Box>
      )}
    </>
  );
}
