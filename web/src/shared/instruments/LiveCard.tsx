import { Box, chakra } from '@chakra-ui/react';
import { useRef } from 'react';
import { cardPaths } from '../plot/card';
import { Frame } from '../plot/Frame';
import { quantity } from '../plot/quantity';
import { linear, path, roundUp, type Point } from '../plot/scale';
import { useWidth } from '../plot/useSize';
import { useUnits } from '../units/units';
import { ink } from '../../theme/system';
import { useLiveDrawing } from './useLiveDrawing';
import type { Recording } from './Recording';
import type { Instrument } from './instrument';

/** Pressure at the moments at which the stroke's water is known: pairs of ml and bar. */
export function cardPoints(pressure: readonly (readonly number[])[], stroke: readonly (readonly number[])[]): Point[] {
  const points: Point[] = [];
  let at = 0;
  for (const [seconds, ml] of stroke) {
    while (at + 1 < pressure.length && pressure[at + 1]![0]! <= seconds!) at++;
    const p = pressure[at];
    if (p && p[0]! <= seconds!) points.push([ml!, p[1]!]);
  }
  return points;
}

/**
 * The indicator card while it is drawn: pressure against the water of the stroke. A free spring runs down a straight
 * line; the
 * area is work.
 */
export function LiveCard({ view, recording, height }: { view: Instrument; recording: Recording; height: number }) {
  const [ref, width] = useWidth<HTMLDivElement>();
  const units = useUnits();
  const line = useRef<SVGPathElement>(null);
  const area = useRef<SVGPathElement>(null);
  const f = units.pressureFactor;
  const [left, right, top, bottom] = [38, Math.max(98, width - 20), 26, height - 34];
  const most = roundUp(Math.max(view.yieldGrams * 1.8, view.pressureBy === 'Strokes' ? 0 : view.strokeMl), 10, 40);
  const x = linear([0, most], [left, right]);
  const y = linear([0, 10 * f], [bottom, top]);
  const spring = view.pressureBy === 'Spring';

  useLiveDrawing(view, () => {
    const points = cardPoints(recording.pressure, recording.stroke).map(
      ([ml, bar]) => [ml, Math.max(0, bar) * f] as Point,
    );
    const paths = cardPaths(points, x, y);
    line.current?.setAttribute('d', paths.line);
    area.current?.setAttribute('d', paths.area);
  });

  return (
    <Box ref={ref} minWidth={0} height={`${height}px`}>
      {width > 0 && (
        <svg
          width={width}
          height={height}
          role="img"
          aria-label="Indicator card: pressure against the water of the stroke"
        >
          <Frame
            left={left}
            right={right}
            top={top}
            bottom={bottom}
            x={x}
            y={y}
            yLabel={`Pressure, ${units.pressureUnit}`}
            yColour={quantity.pressure.text}
            xLabel={view.pressureBy === 'Strokes' ? 'water moved, ml' : 'water of the stroke, ml'}
          >
            {view.pressureBy !== 'Strokes' && (
              <path
                d={path(
                  view.reach.map((r) => [Math.min(most, r.movedMl), Math.min(10, r.mostBar) * f] as Point),
                  x,
                  y,
                )}
                fill="none"
                stroke={ink('plan')}
                strokeWidth="2"
                strokeDasharray="3 5"
              />
            )}
            <path ref={area} fill={ink('pressure')} opacity="0.14" />
            <path ref={line} fill="none" stroke={ink('pressure')} strokeWidth="3.2" strokeLinejoin="round" />
            <chakra.text x={right} y={top - 7} textAnchor="end" fill={ink('quiet')} fontSize="13px">
              {view.pressureBy === 'Strokes'
                ? ''
                : spring
                  ? 'dashes: the free spring'
                  : 'dashes: your force at its limit'}
            </chakra.text>
          </Frame>
        </svg>
      )}
    </Box>
  );
}
