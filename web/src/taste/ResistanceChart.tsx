import type { Schemas } from '../shared/api/client';
import { Pane } from '../shared/plot/Pane';
import { quantity } from '../shared/plot/quantity';
import { lineRows } from '../shared/plot/rows';
import { path, roundUp, type Point } from '../shared/plot/scale';
import { useUnits } from '../shared/units/units';
import { ink } from '../theme/system';

interface Props {
  measured: readonly Schemas['ResistancePoint'][];
  /** Eight in ten, from earlier shots; empty where nothing was expected. */
  expected: readonly Schemas['ExpectedPoint'][];
  r10: number | null;
}

/** The puck's resistance as the cup filled, over what was to be expected of this grind under this arm. */
export function ResistanceChart({ measured, expected, r10 }: Props) {
  const units = useUnits();
  const shown = (barSPerMl: number) => barSPerMl * units.pressureFactor;
  // what the first drops resist runs off any scale
  const high = [...expected.map((p) => p.highBarSPerMl), ...measured.map((p) => p.resistanceBarSPerMl)].toSorted(
    (a, b) => a - b,
  );
  const top = roundUp(shown(high[Math.floor(0.97 * (high.length - 1))]! * 1.1), 1, 4);
  const most = roundUp(measured.at(-1)!.grams, 10, 20);
  const named = r10 === null ? '' : `, R10 ${units.resistance(r10).value} ${units.resistance(r10).unit}`;
  return (
    <Pane
      label={`Resistance against grams in the cup${named}${expected.length > 0 ? ', over the band expected' : ''}`}
      height={170}
      xDomain={[0, most]}
      yDomain={[0, top]}
      xLabel="grams in the cup"
      yLabel={`Resistance, ${units.resistance(1).unit}${expected.length > 0 ? ' (shade: eight in ten expected)' : ''}`}
      yColour={quantity.resistance.text}
      table={lineRows('Grams', 0, [
        { name: 'Measured', line: measured.map((p) => [p.grams, shown(p.resistanceBarSPerMl)]), digits: 1 },
        { name: 'Expected, low', line: expected.map((p) => [p.grams, shown(p.lowBarSPerMl)]), digits: 1 },
        { name: 'Expected, high', line: expected.map((p) => [p.grams, shown(p.highBarSPerMl)]), digits: 1 },
      ])}
    >
      {({ x, y }) => {
        const at = (grams: number, r: number) => `${x(grams).toFixed(1)} ${y(Math.min(top, shown(r))).toFixed(1)}`;
        const points: Point[] = measured.map((p) => [p.grams, Math.min(top, shown(p.resistanceBarSPerMl))]);
        return (
          <>
            {expected.length > 1 && (
              <path
                d={`M${expected.map((p) => at(p.grams, p.highBarSPerMl)).join('L')}L${expected
                  .map((p) => at(p.grams, p.lowBarSPerMl))
                  .toReversed()
                  .join('L')}Z`}
                fill={ink('resistance')}
                opacity="0.22"
              />
            )}
            <path
              d={path(points, x, y)}
              fill="none"
              stroke={quantity.resistance.stroke}
              strokeDasharray={quantity.resistance.dash}
              strokeWidth={2.4}
            />
          </>
        );
      }}
    </Pane>
  );
}
