import { chakra } from '@chakra-ui/react';
import { ink } from '../../theme/system';
import { beside } from './labels';
import type { linear } from './scale';
import { number } from '../units/units';
import { condensed } from '../../theme/type';

const stepSeconds = 0.1;
const stridesSeconds = 1;
const hitPx = 44;

interface Props {
  word: string;
  /** The word with its time. */
  label: string;
  at: number;
  x: ReturnType<typeof linear>;
  top: number;
  bottom: number;
  /** Where its label stands. */
  labelX: number;
  labelY: number;
  /** Baselines of labels that its line would pass through: it gives way to them. */
  past: readonly number[];
  /** Moves it to so many seconds; without it the mark stands still. */
  move?: (seconds: number) => void;
}

const Grip = chakra('g', {
  base: {
    cursor: 'ew-resize',
    touchAction: 'none',
    _focusVisible: { outline: 'none', '& line': { strokeWidth: 3, strokeDasharray: 'none' } },
  },
});

/** A moment of a pull on its trace: a line with its name, moved by pointer or by arrow keys. */
export function MomentMark({ word, label, at, x, top, bottom, labelX, labelY, past, move }: Props) {
  const px = x(at);
  const drawn = (
    <>
      {beside(top, bottom, past).map(([from, to]) => (
        <line key={from} x1={px} x2={px} y1={from} y2={to} stroke={ink('edge')} strokeDasharray="2 3" />
      ))}
      <chakra.text x={labelX} y={labelY} fill={ink('text')} fontSize="12px" fontStretch={condensed}>
        {label}
      </chakra.text>
    </>
  );
  if (!move) return <g>{drawn}</g>;
  const [from, to] = x.domain() as [number, number];
  const put = (seconds: number) => move(Math.round(Math.max(from, Math.min(to, seconds)) * 10) / 10);
  return (
    <Grip
      role="slider"
      tabIndex={0}
      aria-label={`Moment: ${word}`}
      aria-valuemin={from}
      aria-valuemax={to}
      aria-valuenow={at}
      aria-valuetext={`${number(at, 1)} s`}
      onKeyDown={(e: React.KeyboardEvent) => {
        const by = e.shiftKey ? stridesSeconds : stepSeconds;
        if (e.key === 'ArrowLeft' || e.key === 'ArrowDown') put(at - by);
        else if (e.key === 'ArrowRight' || e.key === 'ArrowUp') put(at + by);
        else return;
        e.preventDefault();
      }}
      onPointerDown={(e: React.PointerEvent<SVGGElement>) => {
        e.preventDefault();
        e.currentTarget.setPointerCapture(e.pointerId);
        e.currentTarget.focus();
      }}
      onPointerMove={(e: React.PointerEvent<SVGGElement>) => {
        if (!e.currentTarget.hasPointerCapture(e.pointerId)) return;
        put(x.invert(e.clientX - e.currentTarget.ownerSVGElement!.getBoundingClientRect().left));
      }}
    >
      {drawn}
      {/* as wide as a finger, as far as its neighbours allow */}
      <rect x={px - hitPx / 4} y={top} width={hitPx / 2} height={bottom - top} fill="transparent" />
      <rect x={labelX - 3} y={labelY - 14} width={hitPx * 1.5} height={20} fill="transparent" />
    </Grip>
  );
}
