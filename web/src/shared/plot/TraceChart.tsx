import { Box } from '@chakra-ui/react';
import { useId } from 'react';
import type { Schemas } from '../api/client';
import { useUnits } from '../units/units';
import { Hatch } from './Frame';
import { MomentMark } from './MomentMark';
import { CupFrame, PressureFrame } from './ShotFrames';
import { quantity } from './quantity';
import { staggered } from './labels';
import { lineRows } from './rows';
import { bandPath, evenly, linear, path, roundUp } from './scale';
import { Tabled } from './Tabled';
import { useWidth } from './useSize';

interface Props {
  curves: Schemas['Curves'];
  moments?: Schemas['Moments'];
  bandBar?: number;
  height?: number;
  label: string;
  /** Moves a moment to so many seconds; without it they stand still. */
  move?: (moment: keyof Schemas['Moments'], seconds: number) => void;
}

const momentWords: [keyof Schemas['Moments'], string][] = [
  ['firstDrops', 'first drops'],
  ['peak', 'peak'],
  ['ease', 'ease'],
  ['blonding', 'blonding'],
  ['stop', 'stop'],
];

/** Width of a letter of a moment's label, on average, px. */
const letterPx = 4.7;
/** From one line of labels to the next, px. */
const linePx = 14;

/** Width of the name of a scale, px. */
const namePx = 100;

const linesOf = (curves: Schemas['Curves'], factor: number) => ({
  pressure: evenly(curves.pressureBar, curves.stepSeconds, { factor }),
  plan: evenly(curves.planBar, curves.stepSeconds, { factor }),
  grams: evenly(curves.weightGrams, curves.stepSeconds),
  flow: evenly(curves.flowGramsPerS, curves.stepSeconds),
});

/** One shot: pressure against its plan above, cup and flow below, with its moments. */
export function TraceChart(props: Props) {
  const { curves, height = 420, label } = props;
  const [ref, width] = useWidth<HTMLDivElement>();
  const units = useUnits();
  const { pressure, plan, grams, flow } = linesOf(curves, units.pressureFactor);
  return (
    <Box ref={ref} width="100%">
      <Tabled
        label={label}
        height={height}
        table={lineRows('Seconds', 1, [
          ...(curves.pressureBar ? [{ name: `Pressure, ${units.pressureUnit}`, line: pressure, digits: 1 }] : []),
          ...(curves.planBar ? [{ name: `Plan, ${units.pressureUnit}`, line: plan, digits: 1 }] : []),
          ...(curves.weightGrams
            ? [
                { name: 'Cup, g', line: grams, digits: 1 },
                { name: 'Flow, g/s', line: flow, digits: 2 },
              ]
            : []),
        ])}
      >
        {width > 0 && <TraceDrawing {...props} width={width} />}
      </Tabled>
    </Box>
  );
}

/** The drawing alone, of a width in px. */
export function TraceDrawing({
  curves,
  moments,
  bandBar = 0.6,
  height = 420,
  label,
  move,
  width,
  y: offset,
}: Props & { width: number; y?: number }) {
  const units = useUnits();
  const hatch = useId();
  const f = units.pressureFactor;
  const step = curves.stepSeconds;
  const end = Math.max(curves.pressureBar?.length ?? 0, curves.weightGrams?.length ?? 0) * step;
  const left = 40;
  const right = Math.max(left + 50, width - 40);
  const split = curves.weightGrams ? Math.round(height * (height < 360 ? 0.47 : 0.55)) : height - 36;
  const top = 26;
  const x = linear([0, roundUp(end, 5, 10)], [left, right]);

  const marks = moments
    ? momentWords.flatMap(([key, word]) => {
        const at = moments[key];
        return at === null || at === undefined ? [] : [{ key, word, at }];
      })
    : [];
  const wide = marks
    .sort((a, b) => a.at - b.at)
    .map((mark) => {
      const px = x(mark.at);
      const label = `${mark.word} ${mark.at.toFixed(0)} s`;
      const width = label.length * letterPx;
      const from = Math.min(px + 3, right - width);
      return { ...mark, px, label, from, to: from + width };
    });
  const lines = staggered(wide, 3);
  const placed = wide.map((mark, i) => ({ ...mark, labelX: mark.from, labelY: split + 16 + linePx * lines[i]! }));
  // a third line of labels makes the drawing higher, not the cup's part of it lower
  const third = linePx * Math.max(0, Math.max(0, ...lines) - 1);
  const bottomTop = split + 54 + third;
  const bottom = height - 36 + third;
  const { pressure, plan, grams, flow } = linesOf(curves, f);
  const y = linear([0, roundUp(Math.max(9 * f, ...pressure.map((p) => p[1])), f, 9 * f)], [split, top]);
  const g = linear([0, roundUp(Math.max(...grams.map((p) => p[1]), 0), 10, 20)], [bottom, bottomTop]);
  const q = linear([0, roundUp(Math.max(...flow.map((p) => p[1]), 0), 1, 2)], [bottom, bottomTop]);

  const names = curves.weightGrams
    ? [left, right - namePx].map((from) => ({ from, to: from + namePx, baseline: bottomTop - 7 }))
    : [];
  const labels = placed.map(({ from, to, labelY }) => ({ from, to, baseline: labelY }));
  /** What the line of a moment would pass through. */
  const pastOf = (px: number) =>
    [...labels, ...names].filter(({ from, to }) => from < px && px < to).map(({ baseline }) => baseline);

  return (
    <svg width={width} height={height + third} y={offset} role={move ? 'group' : 'img'} aria-label={label}>
      <defs>
        <Hatch id={hatch} />
      </defs>
      {curves.pressureBar && (
        <PressureFrame
          left={left}
          right={right}
          top={top}
          bottom={split}
          x={x}
          y={y}
          alone={!curves.weightGrams}
          planned={plan.length > 0}
        >
          <path d={bandPath(plan, bandBar * f, x, y)} fill={`url(#${hatch})`} />
          <path
            d={path(pressure, x, y)}
            fill="none"
            stroke={quantity.pressure.stroke}
            strokeWidth={quantity.pressure.width}
            strokeLinejoin="round"
          />
        </PressureFrame>
      )}
      {curves.weightGrams && (
        <CupFrame left={left} right={right} top={bottomTop} bottom={bottom} x={x} grams={g} flow={q} ticks={4}>
          <path
            d={path(flow, x, (v) => q(Math.max(0, v)))}
            fill="none"
            stroke={quantity.flow.stroke}
            strokeWidth={quantity.flow.width}
          />
          <path
            d={path(grams, x, g)}
            fill="none"
            stroke={quantity.grams.stroke}
            strokeWidth={quantity.grams.width}
            strokeDasharray={quantity.grams.dash}
          />
        </CupFrame>
      )}
      {placed.map((mark) => (
        <MomentMark
          key={mark.word}
          word={mark.word}
          label={mark.label}
          at={mark.at}
          x={x}
          top={top - 4}
          bottom={bottom}
          labelX={mark.labelX}
          labelY={mark.labelY}
          past={pastOf(mark.px)}
          move={move && ((seconds) => move(mark.key, seconds))}
        />
      ))}
    </svg>
  );
}
