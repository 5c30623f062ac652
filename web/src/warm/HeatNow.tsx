import { Grid } from '@chakra-ui/react';
import type { Schemas } from '../shared/api/client';
import { Figure } from '../shared/ui/elements';
import { number, useUnits } from '../shared/units/units';

type Session = Schemas['SessionView'];

/** How warm it is now, in figures. */
export function HeatNow({ session }: { session: Session }) {
  const units = useUnits();
  const degree = units.temperature(0).unit;
  const { now } = session;
  const banded = session.hasBoiler || session.hasHeater;
  return (
    <Grid templateColumns={{ base: 'minmax(0,1fr) minmax(0,1fr)', sm: 'repeat(4, minmax(0,1fr))' }} gap="3" mb="2">
      <Figure
        why={{ of: 'group', from: 'session' }}
        label={session.hasBoiler ? 'Group now' : 'Chamber now'}
        value={units.temperature(now.groupC).value}
        unit={`\u00b1${units.temperatureStep(now.plusMinusK).value} ${degree}`}
        colour="temperatureText"
        note={
          banded
            ? now.inBand
              ? 'in its band'
              : `band ${units.temperature(session.bandLowC).value} to ${units.temperature(session.bandHighC).value}`
            : 'metal'
        }
      />
      {session.hasBoiler ? (
        <Figure
          why={{ of: 'boiler', from: 'session' }}
          label="Boiler"
          value={units.temperature(now.boilerC).value}
          unit={degree}
          note={
            now.false
              ? `false pressure: ${units.pressure(now.false.gaugeBar, 2).value} ${units.pressureUnit} on ` +
                `the gauge would be ${units.temperature(now.false.bledC).value} if bled`
              : `${units.pressure(now.gaugeBar, 2).value} ${units.pressureUnit} on the ` +
                `gauge${now.elementOn ? ', heating' : ''}`
          }
        />
      ) : (
        <Figure label="Boiling point here" value={units.temperature(session.boilingPointC, 1).value} unit={degree} />
      )}
      <Figure
        why={{ of: 'puckWater', from: 'session' }}
        label="Water at the puck"
        value={units.temperature(now.waterC).value}
        unit={`\u00b1${units.temperatureStep(now.waterPlusMinusK).value} ${degree}`}
        colour="temperatureText"
        note="if you pulled now"
      />
      <Figure
        why={{ of: 'shotsLeft', from: 'session' }}
        label="Shots left"
        value={session.hasBoiler ? String(now.shotsLeft) : String(session.water.shotsLeft)}
        note={
          session.hasBoiler
            ? `in band in a row; water for ${session.water.shotsLeft}, or ` +
              `${number(session.water.steamGramsLeft, 0)} g of steam`
            : `in ${number(session.water.nowGrams, 0)} g of kettle water`
        }
      />
    </Grid>
  );
}
