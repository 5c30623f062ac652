import { chakra } from '@chakra-ui/react';
import type { Schemas } from '../api/client';
import { Pane } from './Pane';
import { quantity } from './quantity';
import { lineRows } from './rows';
import { path, roundUp } from './scale';
import { freest } from './labels';
import { number, useUnits } from '../units/units';
import { ink } from '../../theme/system';
import { ownText } from '../units/decimals';

type Shot = Schemas['PredictedShot'];

/** Flow has no axis of its own: it takes the height of the pane at this many g/s. */
const topFlow = 4;

/** Width that a label takes, px. */
const labelWidth = 78;

/** A label that a line may pass: the ground shows round its letters. */
const overLines = { fontSize: '12px', stroke: 'panel', strokeWidth: '4px', paintOrder: 'stroke' } as const;

const secondsOf = (curves?: Schemas['Curves']) =>
  curves ? curves.stepSeconds * Math.max(curves.pressureBar?.length ?? 0, curves.weightGrams?.length ?? 0) : 0;

interface Props {
  shot: Shot;
  yieldGrams: number;
  /** A shot that was pulled, drawn thin beside it. */
  beside?: Schemas['Curves'];
}

/**
 * The predicted shot: pressure, flow and cup against time, the cup with the band that eight shots in ten should lie in.
 */
export function PredictedChart({ shot, yieldGrams, beside }: Props) {
  const units = useUnits();
  const points = shot.points;
  const last = shot.secondsHigh > shot.seconds * 1.6 ? shot.seconds : shot.secondsHigh;
  const highest = roundUp(Math.max(...points.map((s) => s.pressureBar)), 2, 6) * units.pressureFactor;
  const along = (of: (s: (typeof points)[number], i: number) => number) =>
    points.map((s, i) => [s.seconds, of(s, i)] as const);
  return (
    <Pane
      label={
        `Predicted shot: ${ownText(yieldGrams)} g in about ${shot.seconds.toFixed(0)} s, between ` +
        `${shot.secondsLow.toFixed(0)} and ${shot.secondsHigh.toFixed(0)} s`
      }
      height={220}
      room={40}
      xDomain={[0, roundUp(Math.max(last, points.at(-1)!.seconds, secondsOf(beside)), 10, 20)]}
      yDomain={[0, highest]}
      y2Domain={[0, roundUp(yieldGrams, 10, 20)]}
      yColour={quantity.pressure.text}
      yLabel={`Pressure, ${units.pressureUnit}`}
      y2Label="Cup, g (shade: eight in ten)"
      y2Colour={quantity.grams.text}
      xLabel="seconds from the lever's first move"
      table={lineRows('Seconds', 1, [
        {
          name: `Pressure, ${units.pressureUnit}`,
          line: along((s) => s.pressureBar * units.pressureFactor),
          digits: 1,
        },
        { name: 'Flow, g/s', line: along((s) => s.flowGramsPerS), digits: 2 },
        { name: 'Cup, g', line: along((s) => s.cupGrams), digits: 1 },
        { name: 'Cup at most, g', line: along((_, i) => shot.fasterGrams[i] ?? Number.NaN), digits: 1 },
        { name: 'Cup at least, g', line: along((_, i) => shot.slowerGrams[i] ?? Number.NaN), digits: 1 },
      ])}
    >
      {({ x, y, y2: g, top, bottom }) => {
        const edge = (cups: readonly number[]) =>
          points.map((s, i) => `${x(s.seconds).toFixed(1)} ${g(cups[i] ?? 0).toFixed(1)}`);
        const line = (of: (s: (typeof points)[number]) => number, scale: (v: number) => number) =>
          path(
            points.map((s) => [s.seconds, of(s)] as const),
            x,
            scale,
          );
        const end = points.at(-1)!;
        const flowY = (flow: number) => y((flow / topFlow) * highest);
        const [pressures, cups, flows] = [
          points.map((s) => [x(s.seconds), y(s.pressureBar * units.pressureFactor)] as const),
          points.map((s) => [x(s.seconds), g(s.cupGrams)] as const),
          points.map((s) => [x(s.seconds), flowY(s.flowGramsPerS)] as const),
        ];
        const drops = shot.firstDropsSeconds === null ? null : x(shot.firstDropsSeconds) + 4;
        const [endX, endY] = [x(end.seconds), flowY(end.flowGramsPerS)];
        return (
          <>
            <path
              d={`M${edge(shot.fasterGrams).join('L')}L${edge(shot.slowerGrams).reverse().join('L')}Z`}
              fill={ink('grams')}
              opacity="0.14"
            />
            {beside?.weightGrams && (
              <path
                d={path(
                  beside.weightGrams.map((w, i) => [i * beside.stepSeconds, w] as const),
                  x,
                  g,
                )}
                fill="none"
                stroke={ink('quiet')}
                strokeWidth={1}
              />
            )}
            {beside?.pressureBar && (
              <path
                d={path(
                  beside.pressureBar.map((p, i) => [i * beside.stepSeconds, p * units.pressureFactor] as const),
                  x,
                  y,
                )}
                fill="none"
                stroke={ink('quiet')}
                strokeWidth={1}
              />
            )}
            <path
              d={line((s) => s.flowGramsPerS, flowY)}
              fill="none"
              stroke={quantity.flow.stroke}
              strokeWidth={quantity.flow.width}
            />
            <path
              d={line((s) => s.pressureBar * units.pressureFactor, y)}
              fill="none"
              stroke={quantity.pressure.stroke}
              strokeWidth={quantity.pressure.width}
            />
            <path
              d={line((s) => s.cupGrams, g)}
              fill="none"
              stroke={quantity.grams.stroke}
              strokeWidth={quantity.grams.width}
              strokeDasharray={quantity.grams.dash}
            />
            <chakra.text
              x={endX}
              y={freest([endY - 8, endY + 16], [pressures, cups], endX - labelWidth, endX)}
              fill={quantity.flow.text}
              textAnchor="end"
              {...overLines}
            >
              {`Flow ${number(end.flowGramsPerS, 1)} g/s`}
            </chakra.text>
            {drops !== null && (
              <g>
                <line x1={drops - 4} x2={drops - 4} y1={top} y2={bottom} stroke={ink('edge')} strokeDasharray="2 3" />
                <chakra.text
                  x={drops}
                  y={freest(
                    [0.3, 0.08, 0.5, 0.7].map((part) => top + part * (bottom - top)),
                    [pressures, cups, flows],
                    drops,
                    drops + labelWidth,
                  )}
                  fill={ink('quiet')}
                  {...overLines}
                >
                  first drops
                </chakra.text>
              </g>
            )}
          </>
        );
      }}
    </Pane>
  );
}
