import { Box } from '@chakra-ui/react';
import { useCallback, useId, useLayoutEffect, useRef, useState } from 'react';
import { Hatch } from '../plot/Frame';
import { CupFrame, PressureFrame } from '../plot/ShotFrames';
import { quantity } from '../plot/quantity';
import { bandPath, linear, thinned, type Point } from '../plot/scale';
import { useWidth } from '../plot/useSize';
import type { Recording } from './Recording';
import type { Instrument } from './instrument';
import { useUnits } from '../units/units';
import { GrowingLine } from './growingLine';
import { planAhead } from './planAhead';
import { useLiveDrawing } from './useLiveDrawing';
import { writeAttribute } from './write';

interface Props {
  view: Instrument;
  recording: Recording;
  height: number;
}

const lowestForBoth = 290;
const bucketPixels = 1.5;
const bandEverySeconds = 0.2;
/** Share of the axis that is used before it moves on, and the share that is kept of what was on it. */
const fullAt = 0.96;
const keeps = 0.75;

/**
 * The trace while it is being pulled. Samples go into arrays and from there straight into SVG paths, on animation
 * frames; React draws only
 * axes, and those again when the pull outgrows them.
 */
export function LiveCanvas({ view, recording, height }: Props) {
  const [ref, width] = useWidth<HTMLDivElement>();
  const units = useUnits();
  const hatch = useId();
  const pressure = useLine();
  const weight = useLine();
  const flow = useLine();
  const band = useRef<SVGPathElement>(null);
  const banded = useRef(-1);

  const left = 38;
  const right = Math.max(left + 60, width - 34);
  // where there is little room the pressure alone is drawn; cup and flow are figures anyway
  const both = height >= lowestForBoth;
  const split = both ? Math.round(height * 0.64) : height - 34;
  const longest = Math.max(40, Math.ceil((view.planSeconds * 1.25) / 10) * 10);
  // a pull that outgrows the axis moves it on, by whole steps: a line that stands is not painted again
  const [moved, setMoved] = useState({ recording, from: 0 });
  const from = moved.recording === recording ? moved.from : 0;
  const f = units.pressureFactor;
  const top = 26;
  const x = linear([from, from + longest], [left, right]);
  const y = linear([0, 10 * f], [split, top]);
  const g = linear([0, Math.ceil((view.yieldGrams * 1.2) / 10) * 10], [height - 34, split + 28]);
  const q = linear([0, 3], [height - 34, split + 28]);
  const pixelsPerX = (right - left) / longest;

  // after a render everything is drawn again
  useLayoutEffect(() => {
    banded.current = -1;
    for (const line of [pressure, weight, flow]) line.line.current?.clear();
  });
  useLiveDrawing(view, () => {
    const now = recording.last.reading?.seconds ?? 0;
    if (now > from + longest * fullAt) {
      setMoved({ recording, from: Math.ceil((now - longest * keeps) / 5) * 5 });
      return;
    }
    const place = { x, from, pixelsPerX };
    pressure.line.current?.draw(recording.pressure, { ...place, y: (v) => y(Math.max(0, v * f)) });
    // how many samples have reached the screen, also of those that the axis has left behind
    if (pressure.group.current) pressure.group.current.dataset.points = String(recording.pressure.length);
    weight.line.current?.draw(recording.weight, { ...place, y: (v) => g(Math.max(0, v)) });
    flow.line.current?.draw(recording.flow, { ...place, y: (v) => q(Math.min(3, v)) });
    // the plan's band is a wide hatching: it follows the lines a little later
    if (now - banded.current < bandEverySeconds && now >= banded.current) return;
    banded.current = now;
    const ahead = planAhead(view.planCourse, recording.phaseBegan, recording.last.reading?.phaseIndex ?? 0, now);
    const course = [...thinned(recording.targets, from, bucketPixels / pixelsPerX), ...ahead]
      .filter((p) => p[0] <= from + longest)
      .map(([px, py]) => [px, py * f] as Point);
    writeAttribute(band, 'd', bandPath(course, view.plan.bandBar * f, x, y));
  });

  return (
    <Box ref={ref} minWidth={0} height={`${height}px`} position="relative">
      {width > 0 && (
        <svg
          width={width}
          height={height}
          role="img"
          aria-label="Pressure, cup and flow against seconds, with the plan"
        >
          <defs>
            <Hatch id={hatch} />
            <clipPath id={`${hatch}-clip`}>
              <rect x={left} y={top - 4} width={right - left} height={height} />
            </clipPath>
          </defs>
          <PressureFrame left={left} right={right} top={top} bottom={split} x={x} y={y} alone={!both} planned>
            <g clipPath={`url(#${hatch}-clip)`}>
              <path ref={band} data-testid="plan-band" fill={`url(#${hatch})`} />
            </g>
          </PressureFrame>
          {both && (
            <CupFrame
              left={left}
              right={right}
              top={split + 28}
              bottom={height - 34}
              x={x}
              grams={g}
              flow={q}
              ticks={3}
            />
          )}
        </svg>
      )}
      {width > 0 && (
        // what moves has a layer of its own, so that grid and hatching are not painted again with it
        <svg
          width={width}
          height={height}
          aria-hidden="true"
          style={{ position: 'absolute', inset: 0, willChange: 'transform', pointerEvents: 'none' }}
        >
          <g clipPath={`url(#${hatch}-clip)`}>
            <g
              ref={pressure.ref}
              data-testid="trace-pressure"
              fill="none"
              stroke={quantity.pressure.stroke}
              strokeWidth={3.2}
              strokeLinejoin="round"
              strokeLinecap="round"
            />
            {both && (
              <>
                <g ref={flow.ref} fill="none" stroke={quantity.flow.stroke} strokeWidth={2} strokeLinecap="round" />
                <g
                  ref={weight.ref}
                  fill="none"
                  stroke={quantity.grams.stroke}
                  strokeWidth={2}
                  strokeDasharray={quantity.grams.dash}
                />
              </>
            )}
          </g>
        </svg>
      )}
    </Box>
  );
}

/** A line that grows, and the group that it is drawn into. */
function useLine() {
  const line = useRef<GrowingLine | null>(null);
  const group = useRef<SVGGElement | null>(null);
  const ref = useCallback((element: SVGGElement | null) => {
    group.current = element;
    line.current = element && new GrowingLine(element);
  }, []);
  return { line, group, ref };
}
