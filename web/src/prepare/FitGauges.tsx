import { Box, Grid } from '@chakra-ui/react';
import { memo } from 'react';
import type { Schemas } from '../shared/api/client';
import { Announce } from '../shared/ui/Announce';
import { Notice } from '../shared/ui/elements';
import { TextLink } from '../shared/ui/TextLink';
import { number, useUnits, type Units } from '../shared/units/units';
import { Gauge } from './Gauge';
import { inOurUnits } from '../shared/units/marks';

interface Props {
  answer: Schemas['SheetAnswer'];
  hasBoiler: boolean;
  pumps: boolean;
}

/** How the water's temperature goes through the shot; nothing where it hardly changes. */
function courseOf(answer: Schemas['SheetAnswer'], units: Units): string {
  const points = answer.waterCourse.points;
  const first = points[0]!.waterC;
  const last = points.at(-1)!.waterC;
  if (Math.abs(last - first) < 1) return 'how it is warmed';
  return `${units.temperature(first).value} to ${units.temperature(last).value}`;
}

/** Water, force and headspace against what there is of each; they speak up where something does not fit. */
export const FitGauges = memo(function FitGauges({ answer, hasBoiler, pumps }: Props) {
  const units = useUnits();
  const force = units.force(answer.handForceKgf, 0);
  const tooMuchWater = answer.waterGrams !== null && !answer.fits;
  const tooMuchForce = answer.handForceKgf !== null && answer.handForceKgf > answer.willingForceKgf;
  const puck = answer.puck;
  const several = answer.strokes !== null && answer.strokes > 1;
  const ratio = answer.ratio === null ? 'unknown' : `1 to ${number(answer.ratio, 1)}`;
  const atTheHand = answer.handForceKgf === null ? '' : `, ${force.value} ${force.unit} at the hand`;
  const fits = answer.fits ? '' : ', which does not fit';
  const said = `Ratio ${ratio}, ${number(answer.waterGrams, 0)} g of water${fits}${atTheHand}.`;
  return (
    <Box mt={{ base: '2', sm: '3' }}>
      <Announce>{said}</Announce>
      <Grid templateColumns={{ base: 'repeat(2, minmax(0,1fr))', sm: 'repeat(4, minmax(0,1fr))' }} gap="3" rowGap="2">
        <Gauge
          why="water"
          label={hasBoiler ? 'Water to move' : 'Water to pour'}
          value={number(answer.waterGrams, 0)}
          unit="g"
          share={answer.waterGrams === null ? null : answer.waterGrams / answer.mostWaterGrams}
          bad={tooMuchWater}
          note={`of ${number(answer.mostWaterGrams, 0)} g`}
        />
        <Gauge
          why="force"
          label="Hand force"
          value={force.value}
          unit={answer.handForceKgf === null ? '' : force.unit}
          share={answer.handForceKgf === null ? null : answer.handForceKgf / answer.willingForceKgf}
          bad={tooMuchForce}
          note={
            answer.handForceKgf === null
              ? 'the spring works'
              : `of ${units.force(answer.willingForceKgf).value}, at ` +
                `${units.pressure(answer.peakBar, 1).value} ${units.pressureUnit}`
          }
        />
        <Gauge
          why="headspace"
          label="Headspace"
          value={puck ? number(puck.headspaceMm, 1) : '\u2013'}
          unit={puck ? 'mm' : ''}
          share={null}
          bad={puck?.headspace === 'TooMuch'}
          note={puck ? headspaces[puck.headspace] : 'no basket chosen'}
        />
        <Gauge
          why="waterC"
          label="Water at the puck"
          value={units.temperature(answer.waterC).value}
          unit={`\u00b1${units.temperatureStep(answer.waterPlusMinusC).value} ${units.temperature(0).unit}`}
          share={null}
          colour="temperatureText"
          note={
            <TextLink to="/warm" display="inline-block" py="1">
              {courseOf(answer, units)}
            </TextLink>
          }
        />
      </Grid>
      {(tooMuchWater || several) && (
        <Box mt="2">
          <Notice role={tooMuchWater ? 'alert' : 'status'}>
            {units.sentence(answer.fitSentence)}
            {several ? ` This cup takes ${answer.strokes} ${pumps ? 'pump strokes' : 'strokes'}.` : ''}
          </Notice>
        </Box>
      )}
      {(tooMuchForce || answer.handForceKgf === null) && (
        <Box mt="2">
          <Notice role={tooMuchForce ? 'alert' : 'status'}>{units.sentence(answer.forceSentence)}</Notice>
        </Box>
      )}
      {puck?.headspace === 'TooMuch' && (
        <Box mt="2">
          <Notice role="alert">{inOurUnits(puck.sentence)}</Notice>
        </Box>
      )}
    </Box>
  );
});

const headspaces: Record<Schemas['Headspace'], string> = {
  TooMuch: 'too full',
  Tight: 'tight',
  Right: 'stands right',
  TooLittle: 'a lot',
};
