import { Grid } from '@chakra-ui/react';
import { memo } from 'react';
import { Link } from 'react-router';
import type { Schemas } from '../shared/api/client';
import { Announce } from '../shared/ui/Announce';
import { Figure, H2, Panel } from '../shared/ui/elements';
import { number, useUnits, type Units } from '../shared/units/units';
import { Gauge } from './Gauge';

interface Props {
  answer: Schemas['SheetAnswer'];
  hasBoiler: boolean;
  pumps: boolean;
}

/** How the water's temperature goes through the shot, or what decides it where it hardly changes. */
function courseOf(answer: Schemas['SheetAnswer'], units: Units): string {
  const points = answer.waterCourse.points;
  const first = points[0]!.waterC;
  const last = points.at(-1)!.waterC;
  if (Math.abs(last - first) < 1) return 'how it is warmed decides';
  return `${units.temperature(first).value} to ${units.temperature(last).value} through the shot`;
}

/** What comes of the sheet: ratio, water, how much of the machine it takes. Drawn anew only with a new answer. */
export const AnswerPanel = memo(function AnswerPanel({ answer, hasBoiler, pumps }: Props) {
  const units = useUnits();
  const force = units.force(answer.handForceKgf, 0);
  return (
    <Panel order={5}>
      <H2>Result</H2>
      <Announce>
        {`Ratio ${answer.ratio === null ? 'unknown' : `1 to ${number(answer.ratio, 1)}`}, ${number(answer.waterGrams, 0)} g of water${answer.fits ? '' : ', which does not fit'}${answer.handForceKgf === null ? '' : `, ${force.value} ${force.unit} at the hand`}.`}
      </Announce>
      <Grid templateColumns={{ base: 'minmax(0,1fr)', sm: 'minmax(0,1fr) minmax(0,1fr)' }} gap="5">
        <Figure
          label="Ratio, dose to yield"
          value={answer.ratio === null ? '\u2013' : `1 : ${number(answer.ratio, 2)}`}
        />
        <Figure
          label="Water at the puck"
          value={units.temperature(answer.waterC).value}
          unit={`\u00b1${units.temperatureStep(answer.waterPlusMinusC).value} ${units.temperature(0).unit}`}
          colour="temperatureText"
          note={
            <Link to="/warm" style={{ textDecoration: 'underline' }}>
              {courseOf(answer, units)}
            </Link>
          }
        />
        <Gauge
          label={hasBoiler ? 'Water to move' : 'Water to pour'}
          value={number(answer.waterGrams, 0)}
          unit={`g${answer.waterMl !== null ? `, ${number(answer.waterMl, 0)} ml` : ''}`}
          share={answer.waterGrams === null ? null : answer.waterGrams / answer.mostWaterGrams}
          wholeLabel={`of ${number(answer.mostWaterGrams, 0)} g`}
          bad={answer.waterGrams !== null && !answer.fits}
        >
          {units.sentence(answer.fitSentence)}
          {answer.strokes !== null && answer.strokes > 1
            ? ` This cup takes ${answer.strokes} ${pumps ? 'pump strokes' : 'of them'}.`
            : ''}
        </Gauge>
        <Gauge
          label={`Hand force at ${units.pressure(answer.peakBar, 1).value} ${units.pressureUnit}`}
          value={force.value}
          unit={answer.handForceKgf === null ? '' : force.unit}
          share={answer.handForceKgf === null ? null : answer.handForceKgf / answer.willingForceKgf}
          wholeLabel={
            answer.handForceKgf === null ? '' : `of ${units.force(answer.willingForceKgf).value} ${force.unit}`
          }
          bad={answer.handForceKgf !== null && answer.handForceKgf > answer.willingForceKgf}
        >
          {units.sentence(answer.forceSentence)}
        </Gauge>
      </Grid>
    </Panel>
  );
});
