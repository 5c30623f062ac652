import { chakra } from '@chakra-ui/react';
import { useId, useRef } from 'react';
import { Hatch } from '../plot/Frame';
import { linear } from '../plot/scale';
import type { Instrument } from './instrument';
import { useUnits } from '../units/units';
import { ink } from '../../theme/system';
import { useLiveDrawing } from './useLiveDrawing';
import { writeAttribute, writeText } from './write';
import { ownText } from '../units/decimals';
import { condensed } from '../../theme/type';

/** A tall tape: where the pressure stands, the plan's band at this moment, and the mark to hold. */
export function PressureTape({ view, height }: { view: Instrument; height: number }) {
  const units = useUnits();
  const hatch = useId();
  const fill = useRef<SVGRectElement>(null);
  const bandRect = useRef<SVGRectElement>(null);
  const hold = useRef<SVGGElement>(null);
  const holdText = useRef<SVGTextElement>(null);
  const whose = useRef<SVGTextElement>(null);
  const f = units.pressureFactor;
  const width = 128;
  const tapeLeft = 40;
  const tapeRight = 76;
  const y = linear([0, 10 * f], [height - 14, 26]);

  useLiveDrawing(view, (frame) => {
    const bar = Math.max(0, Math.min(10, frame.reading?.pressureBar ?? 0)) * f;
    writeAttribute(fill, 'y', y(bar));
    writeAttribute(fill, 'height', Math.max(0, y(0) - y(bar)));
    // what the coach says stands before the plan
    const advised = frame.reading?.coach?.advice?.holdBar;
    const target = advised ?? frame.reading?.targetBar ?? 0;
    const active = frame.stage === 'Running' && target > 0;
    writeAttribute(hold, 'visibility', active ? 'visible' : 'hidden');
    writeAttribute(bandRect, 'visibility', active ? 'visible' : 'hidden');
    if (!active) return;
    const high = Math.min(10, target + view.plan.bandBar) * f;
    const low = Math.max(0, target - view.plan.bandBar) * f;
    writeAttribute(bandRect, 'y', y(high));
    writeAttribute(bandRect, 'height', y(low) - y(high));
    writeAttribute(hold, 'transform', `translate(${tapeRight + 3} ${y(target * f)})`);
    writeText(holdText, units.pressure(target, 1).value);
    writeText(whose, advised == null ? 'plan' : 'coach');
  });

  return (
    <svg
      width={width}
      height={height}
      role="img"
      aria-label="Pressure now, and the pressure to hold"
      style={{ display: 'block', flexShrink: 0 }}
    >
      <defs>
        <Hatch id={hatch} />
      </defs>
      <chakra.text x={0} y={14} fill={ink('pressure')} fontSize="13px" fontWeight={650}>
        {units.pressureUnit}
      </chakra.text>
      <rect
        x={tapeLeft}
        y={y(10 * f)}
        width={tapeRight - tapeLeft}
        height={y(0) - y(10 * f)}
        fill={ink('panel')}
        stroke={ink('edge')}
      />
      <rect ref={fill} x={tapeLeft} width={tapeRight - tapeLeft} y={y(0)} height={0} fill={ink('pressure')} />
      <rect
        ref={bandRect}
        x={tapeLeft - 6}
        width={tapeRight - tapeLeft + 12}
        fill={`url(#${hatch})`}
        stroke={ink('text')}
        visibility="hidden"
      />
      {y.ticks(10).map((tick) => (
        <g key={tick}>
          <line x1={tapeLeft - 5} x2={tapeLeft} y1={y(tick)} y2={y(tick)} stroke={ink('edge')} />
          <chakra.text
            x={tapeLeft - 9}
            y={y(tick) + 5}
            textAnchor="end"
            fill={ink('text')}
            fontSize="15px"
            fontStretch={condensed}
            fontVariantNumeric="tabular-nums"
          >
            {ownText(tick)}
          </chakra.text>
        </g>
      ))}
      <g ref={hold} visibility="hidden">
        <path d="M0 0 L11 -9 L11 9 Z" fill={ink('text')} />
        <chakra.text x={13} y={-3} fill={ink('text')} fontSize="12px">
          hold
        </chakra.text>
        <chakra.text ref={whose} x={13} y={27} fill={ink('text')} fontSize="12px" />
        <chakra.text
          ref={holdText}
          x={13}
          y={13}
          fill={ink('text')}
          fontSize="18px"
          fontWeight={650}
          fontStretch={condensed}
        />
      </g>
    </svg>
  );
}
