import { chakra } from '@chakra-ui/react';
import type { Schemas } from '../shared/api/client';
import { linear, path } from '../shared/plot/scale';
import { ink } from '../theme/system';

type Preview = Schemas['PlanPreview'];
type Move = Schemas['ArmMove'];

const armWords: Record<Move, string> = {
  Press: 'press',
  Hold: 'hold',
  Ease: 'ease',
  Lift: 'lift',
  Wait: 'wait',
};

/** The way of the hand at the handle: down, still, slowly up, up, off. */
const glyphs: Record<Move, string> = {
  Press: 'M0 -5V4M-3.5 0.5L0 4.5L3.5 0.5',
  Hold: 'M-4.5 -2H4.5M-4.5 2H4.5',
  Ease: 'M-4 -4L3.5 3.5M3.5 -1V3.5H-1',
  Lift: 'M0 5V-4M-3.5 -0.5L0 -4.5L3.5 -0.5',
  Wait: 'M-4 0H-3.9M0 0H0.1M4 0H4.1',
};

/** What the arm does, as a small drawing about a point. */
export const ArmGlyph = ({ move, x, y, stroke }: { move: Move; x: number; y: number; stroke: string }) => (
  <path
    d={glyphs[move]}
    transform={`translate(${x} ${y})`}
    stroke={stroke}
    strokeWidth="1.9"
    strokeLinecap="round"
    strokeLinejoin="round"
    fill="none"
    pointerEvents="none"
  />
);

interface Props {
  preview: Preview;
  x: ReturnType<typeof linear>;
  left: number;
  right: number;
  top: number;
  bottom: number;
  selected: number;
}

const widestWordPx = 44;

/** The arm's work along the clock: where the piston stands in its stroke, and what the hand does meanwhile. */
export function ArmPane({ preview, x, left, right, top, bottom, selected }: Props) {
  const y = linear([0, 1], [top + 18, bottom]);
  const { points, arm } = preview;
  const spans = arm.flatMap(({ move }, i) => {
    const inIt = points.filter((p) => p.phase === i);
    return inIt.length === 0 ? [] : [{ i, move, from: x(inIt[0]!.seconds), to: x(inIt.at(-1)!.seconds) }];
  });
  return (
    <g>
      <chakra.text x={left} y={top - 6} fill={ink('text')} fontSize="12px" fontWeight={650}>
        What the arm does; the piston from top to bottom of its stroke
      </chakra.text>
      <line x1={left} x2={right} y1={y(0)} y2={y(0)} stroke={ink('hairline')} />
      <line x1={left} x2={right} y1={y(1)} y2={y(1)} stroke={ink('edge')} />
      {spans.map(({ i, move, from, to }) => (
        <g key={i}>
          {i === selected && <rect x={from} y={top} width={to - from} height={bottom - top} fill={ink('page')} />}
          <line x1={from} x2={from} y1={top} y2={bottom} stroke={ink('edge')} strokeDasharray="2 3" />
          {to - from > widestWordPx ? (
            <chakra.text
              x={(from + to) / 2}
              y={top + 12}
              textAnchor="middle"
              fill={ink('text')}
              fontSize="12px"
              fontWeight={i === selected ? 650 : 400}
            >
              {armWords[move]}
            </chakra.text>
          ) : (
            to - from > 12 && <ArmGlyph move={move} x={(from + to) / 2} y={top + 8} stroke={ink('text')} />
          )}
        </g>
      ))}
      <path
        d={path(
          points.map((p) => [p.seconds, p.strokeShare] as const),
          x,
          y,
        )}
        fill="none"
        stroke={ink('text')}
        strokeWidth="2"
      />
    </g>
  );
}
