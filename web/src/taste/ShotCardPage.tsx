import { useParams } from 'react-router';
import type { Schemas } from '../shared/api/client';
import { useShot } from '../shared/api/queries';
import { CardPage, cardWidth } from '../shared/card/CardPage';
import { cardEdge, CardSheet, CardText, wrapped } from '../shared/card/CardParts';
import { momentOf } from '../shared/clock';
import { TraceDrawing } from '../shared/plot/TraceChart';
import { Waiting } from '../shared/ui/elements';
import { number, useUnits, type Units } from '../shared/units/units';
import { inShort } from './TasteForm';
import { ownText } from '../shared/units/decimals';

const top = 190;
const chartHeight = 340;
const wordsAt = top + chartHeight + 34;
const lineLength = 110;
const mostLines = 4;

/** One shot on one sheet: what was set, its trace, its numbers, its taste. */
export default function ShotCardPage() {
  const { id } = useParams();
  const { data: view, error } = useShot(Number(id));
  const units = useUnits();
  if (!view) return <Waiting error={error} />;
  const { shot } = view;
  const words = wrapped(shot.taste.words, lineLength).slice(0, mostLines);
  const height = wordsAt + 24 * (words.length + 1) + 30;
  return (
    <CardPage
      title={`Card of shot ${shot.id}`}
      back={{ to: `/taste/${shot.id}`, word: 'Back to the shot' }}
      fileName={`shot-${shot.id}`}
      height={height}
      label={`Card of shot ${shot.id}`}
    >
      <CardSheet
        height={height}
        title={[`Shot ${shot.id}`, shot.bag].filter(Boolean).join(', ')}
        lines={[
          [momentOf(shot.pulledAt), shot.machine, shot.brewer, shot.roaster && `roasted by ${shot.roaster}`]
            .filter(Boolean)
            .join(', '),
          [
            `${number(shot.doseGrams, 1)} g`,
            shot.grindSetting !== null && `${shot.grinder} at ${ownText(shot.grindSetting)} ${shot.scaleUnit}`,
            view.basket,
            `plan: ${shot.plan.toLowerCase()}`,
          ]
            .filter(Boolean)
            .join(', '),
        ]}
      />
      {figures(shot.measures, units).map(([label, value, unit], i, all) => {
        const x = cardEdge + (i * (cardWidth - 2 * cardEdge)) / all.length;
        return (
          <g key={label}>
            <CardText x={x} y={126} size={12} quiet>
              {label}
            </CardText>
            <CardText x={x} y={152} size={22} strong>
              {value}
            </CardText>
            <CardText x={x} y={170} size={12} quiet>
              {unit}
            </CardText>
          </g>
        );
      })}
      {view.curves.pressureBar || view.curves.weightGrams ? (
        <svg x={cardEdge - 12} y={top} width={cardWidth - 2 * cardEdge + 24} height={chartHeight} overflow="visible">
          <TraceDrawing
            curves={view.curves}
            moments={view.moments}
            bandBar={view.plan.bandBar}
            width={cardWidth - 2 * cardEdge + 24}
            height={chartHeight}
            label={`Trace of shot ${shot.id}`}
          />
        </svg>
      ) : (
        <CardText x={cardEdge} y={top + 40} quiet>
          No instrument recorded this pull.
        </CardText>
      )}
      <CardText x={cardEdge} y={wordsAt} strong>
        {`Taste: ${inShort(shot.taste)}`}
      </CardText>
      {words.map((line, i) => (
        <CardText key={line} x={cardEdge} y={wordsAt + 24 * (i + 1)}>
          {line}
        </CardText>
      ))}
    </CardPage>
  );
}

const figures = (m: Schemas['Measures'], units: Units): [label: string, value: string, unit: string][] => [
  ['In the cup', number(m.cupGrams, 1), 'g'],
  ['Ratio', m.ratio === null ? '\u2013' : `1 : ${number(m.ratio, 2)}`, ''],
  ['From pressure', number(m.secondsFromPressure, 0), 's'],
  ['First drops', number(m.secondsToDrops, 1), 's'],
  ['Peak pressure', units.pressure(m.peakBar, 1).value, units.pressureUnit],
  ['Mean flow', number(m.meanFlowGramsPerS, 2), 'g/s'],
  ['R10', units.resistance(m.r10).value, units.resistance(m.r10).unit],
];
