import { chakra } from '@chakra-ui/react';
import { useRef } from 'react';
import { number } from '../units/units';
import { ink } from '../../theme/system';
import type { Instrument } from './instrument';
import { useLiveDrawing } from './useLiveDrawing';
import { writeAttribute, writeText } from './write';

const turns = 9;
const width = 92;
const middle = 40;
const half = 24;

/** A coil between two plates, seen from the side, from one height to another. */
export function coilPath(from: number, to: number): string {
  const step = (to - from) / turns;
  let d = `M${middle} ${from.toFixed(1)}`;
  for (let i = 0; i < turns; i++) {
    const y = from + i * step;
    d +=
      `C${middle + half * 1.5} ${y.toFixed(1)} ${middle + half * 1.5} ` +
      `${(y + step * 0.5).toFixed(1)} ${middle} ${(y + step * 0.5).toFixed(1)}`;
    d += `S${middle - half * 1.5} ${(y + step).toFixed(1)} ${middle} ${(y + step).toFixed(1)}`;
  }
  return d;
}

/** A coil that is pressed together as the stroke is used up, with the water it has moved. */
export function Coil({ view, height }: { view: Instrument; height: number }) {
  const coil = useRef<SVGPathElement>(null);
  const plate = useRef<SVGRectElement>(null);
  const moved = useRef<SVGTextElement>(null);
  const stroke = useRef<SVGTextElement>(null);
  const [top, foot] = [26, height - 60];
  const strokes = view.pressureBy === 'Strokes';

  useLiveDrawing(view, (frame) => {
    const coach = frame.reading?.coach;
    const used = coach?.strokeShare ?? 0;
    // a third of the height is left when nothing is left of the stroke
    const at = top + used * (foot - top) * 0.68;
    writeAttribute(coil, 'd', coilPath(at, foot));
    writeAttribute(plate, 'y', at - 8);
    writeText(moved, `${number(coach?.movedMl ?? 0, 0)} ml in`);
    const pull = coach?.stroke ?? 1;
    writeText(stroke, strokes ? `stroke ${pull}` : pull > 1 ? `pull ${pull}` : `of ${number(view.strokeMl, 0)} ml`);
  });

  return (
    <svg
      width={width}
      height={height}
      role="img"
      aria-label="Stroke used up, and water moved"
      style={{ display: 'block', flexShrink: 0 }}
    >
      <chakra.text x={0} y={14} fill={ink('text')} fontSize="13px" fontWeight={650}>
        Stroke
      </chakra.text>
      <line x1={middle - 34} x2={middle - 34} y1={top - 8} y2={foot} stroke={ink('edge')} />
      <line x1={middle + 34} x2={middle + 34} y1={top - 8} y2={foot} stroke={ink('edge')} />
      <path ref={coil} fill="none" stroke={ink('text')} strokeWidth="4" strokeLinecap="round" />
      <rect ref={plate} x={middle - 32} width={64} height={8} fill={ink('text')} />
      <rect x={middle - 36} y={foot} width={72} height={6} fill={ink('edge')} />
      <chakra.text
        ref={moved}
        x={middle}
        y={foot + 28}
        textAnchor="middle"
        fill={ink('text')}
        fontSize="18px"
        fontWeight={650}
      />
      <chakra.text ref={stroke} x={middle} y={foot + 48} textAnchor="middle" fill={ink('text')} fontSize="14px" />
    </svg>
  );
}
