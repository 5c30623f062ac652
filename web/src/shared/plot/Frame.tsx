import { chakra } from '@chakra-ui/react';
import type { ReactNode } from 'react';
import { hatchGround, ink } from '../../theme/system';
import { readText } from '../units/decimals';
import { condensed } from '../../theme/type';

interface Scale {
  (value: number): number | undefined;
  ticks: (count: number) => number[];
  domain: () => number[];
}

interface Props {
  left: number;
  right: number;
  top: number;
  bottom: number;
  x: Scale;
  y: Scale;
  /** Names of the axes with units; a chart without them says nothing. */
  yLabel: string;
  xLabel?: string;
  yColour: string;
  yTicks?: number;
  /** A second scale at the right. */
  y2?: Scale;
  y2Label?: string;
  y2Colour?: string;
  children?: ReactNode;
}

const tick = { fontSize: '12px', fontStretch: condensed, fontVariantNumeric: 'tabular-nums' } as const;

/** Width below which a pane's names do not stand beside each other as they are, px. */
const narrowest = 230;
/** Width of a sign of a name that stands close, px. */
const closeSign = 5.5;

/** Axes, grid and labels of one pane. */
export function Frame(p: Props) {
  const width = p.right - p.left;
  const xs = p.x.ticks(width > 500 ? 8 : 5);
  // on the narrowest phones the names stand closer, and without what is in brackets where they would still meet
  const narrow = width < narrowest;
  const meet = narrow && (p.yLabel.length + (p.y2Label?.length ?? 0)) * closeSign > width;
  const name = (label: string) => (meet ? label.split(' (')[0] : label);
  const fontStretch = narrow ? condensed : undefined;
  return (
    <g>
      {p.y.ticks(p.yTicks ?? 5).map((value) => (
        <g key={value}>
          <line x1={p.left} x2={p.right} y1={p.y(value)} y2={p.y(value)} stroke={ink('hairline')} />
          <text x={p.left - 6} y={(p.y(value) ?? 0) + 4} textAnchor="end" fill={ink('quiet')} style={tick}>
            {readText(value)}
          </text>
        </g>
      ))}
      {p.y2?.ticks(p.yTicks ?? 5).map((value) => (
        <text
          key={value}
          x={p.right + 6}
          y={(p.y2!(value) ?? 0) + 4}
          textAnchor="start"
          fill={ink('quiet')}
          style={tick}
        >
          {readText(value)}
        </text>
      ))}
      <chakra.text x={p.left} y={p.top - 7} fill={p.yColour} fontSize="13px" fontWeight={650} fontStretch={fontStretch}>
        {name(p.yLabel)}
      </chakra.text>
      {p.y2Label && (
        <chakra.text
          x={p.right}
          y={p.top - 7}
          textAnchor="end"
          fill={p.y2Colour}
          fontSize="13px"
          fontWeight={650}
          fontStretch={fontStretch}
        >
          {name(p.y2Label)}
        </chakra.text>
      )}
      {p.xLabel &&
        xs.map((value) => (
          <text key={value} x={p.x(value)} y={p.bottom + 16} textAnchor="middle" fill={ink('quiet')} style={tick}>
            {readText(value)}
          </text>
        ))}
      {p.xLabel && (
        <chakra.text
          x={p.right}
          y={p.bottom + 31}
          textAnchor="end"
          fill={ink('quiet')}
          fontSize="13px"
          fontStretch={fontStretch}
        >
          {p.xLabel}
        </chakra.text>
      )}
      {p.children}
      <line x1={p.left} x2={p.right} y1={p.bottom} y2={p.bottom} stroke={ink('edge')} />
    </g>
  );
}

/** The hatching of a plan's band. */
export function Hatch({ id }: { id: string }) {
  return (
    <pattern id={id} width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
      <rect width="6" height="6" fill={ink('plan')} opacity={hatchGround} />
      <line x1="0" y1="0" x2="0" y2="6" stroke={ink('plan')} strokeWidth="1.8" />
    </pattern>
  );
}
