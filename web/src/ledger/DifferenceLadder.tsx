import { Box, chakra } from '@chakra-ui/react';
import type { Schemas } from '../shared/api/client';
import { linear } from '../shared/plot/scale';
import { useWidth } from '../shared/plot/useSize';
import { ink } from '../theme/system';

const rowPx = 34;
const barPx = 14;
const labelPx = { wide: 150, narrow: 104 };
const valuePx = 62;

interface Props {
  quantity: Schemas['ExplainedQuantity'];
  /** In the reader's unit, with the unit. */
  say: (value: number, signed?: boolean) => string;
}

/** From one shot to the other, rung by rung: each bar is what one thing explains, the hatched one what nothing does. */
export function DifferenceLadder({ quantity: q, say }: Props) {
  const [ref, width] = useWidth<HTMLDivElement>();
  const steps = [
    ...q.parts.map((p) => ({ ...p, left: false })),
    { name: 'Not explained', by: q.unexplained, left: true },
  ];
  let at = q.a;
  const rungs = steps.map((step) => {
    const from = at;
    at += step.by;
    const [low, high] = 'low' in step ? [from + (step.low as number), from + (step.high as number)] : [at, at];
    return { ...step, from, to: at, low, high };
  });
  const all = [q.a, q.b, ...rungs.flatMap((r) => [r.to, r.low, r.high])];
  const [least, most] = [Math.min(...all), Math.max(...all)];
  const room = Math.max(1e-6, most - least) * 0.06;
  const label = width < 520 ? labelPx.narrow : labelPx.wide;
  const x = linear([least - room, most + room], [label + 8, Math.max(label + 80, width - valuePx)]);
  const height = (rungs.length + 2) * rowPx + 6;
  const middle = (row: number) => row * rowPx + rowPx / 2;
  const end = (row: number, letter: string, value: number) => (
    <g>
      <Word x={0} y={middle(row) + 4} strong>
        {letter}
      </Word>
      <circle cx={x(value)} cy={middle(row)} r="9" fill={ink('panel')} stroke={ink('text')} strokeWidth={1.5} />
      <Word x={x(value)} y={middle(row) + 4} anchor="middle" strong>
        {letter}
      </Word>
      <Word x={width} y={middle(row) + 4} anchor="end" strong>
        {say(value)}
      </Word>
    </g>
  );
  return (
    <Box ref={ref}>
      {width > 0 && (
        <svg
          width={width}
          height={height}
          role="img"
          aria-label={`${q.name}: from ${say(q.a)} to ${say(q.b)}, rung by rung`}
        >
          <defs>
            <pattern id="left-over" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
              <line x1="0" y1="0" x2="0" y2="6" stroke={ink('plan')} strokeWidth="2" />
            </pattern>
          </defs>
          {end(0, 'A', q.a)}
          {rungs.map((rung, i) => (
            <g key={rung.name}>
              <line
                x1={x(rung.from)}
                x2={x(rung.from)}
                y1={middle(i) + 9}
                y2={middle(i + 1)}
                stroke={ink('edge')}
                strokeDasharray="2 3"
              />
              <Word x={0} y={middle(i + 1) + 4}>
                {rung.name}
              </Word>
              <rect
                x={Math.min(x(rung.from), x(rung.to))}
                y={middle(i + 1) - barPx / 2}
                width={Math.max(1.5, Math.abs(x(rung.to) - x(rung.from)))}
                height={barPx}
                fill={rung.left ? 'url(#left-over)' : ink('resistance')}
                stroke={rung.left ? ink('plan') : 'none'}
              />
              {!rung.left && (
                <path
                  d={`M${x(rung.low)} ${middle(i + 1) - 4}v8M${x(rung.low)} ${middle(i + 1)}H${x(rung.high)}m0 -4v8`}
                  stroke={ink('text')}
                  fill="none"
                />
              )}
              <Word x={width} y={middle(i + 1) + 4} anchor="end">
                {say(rung.by, true)}
              </Word>
            </g>
          ))}
          {end(rungs.length + 1, 'B', q.b)}
        </svg>
      )}
    </Box>
  );
}

interface WordProps {
  x: number;
  y: number;
  anchor?: 'start' | 'middle' | 'end';
  strong?: boolean;
  children: string;
}

function Word({ x, y, anchor = 'start', strong, children }: WordProps) {
  return (
    <chakra.text x={x} y={y} textAnchor={anchor} fill={ink('text')} fontSize="13px" fontWeight={strong ? 650 : 400}>
      {children}
    </chakra.text>
  );
}
