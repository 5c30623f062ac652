import { chakra } from '@chakra-ui/react';
import { useId } from 'react';
import type { Schemas } from '../shared/api/client';
import { number } from '../shared/units/units';
import { ink } from '../theme/system';

const [width, height] = [168, 92];

/** A section through the basket: how high the puck stands and what is left to the rim. */
export function PuckSection({ fit, cover }: { fit: Schemas['PuckFit']; cover: string }) {
  const dots = useId();
  const deep = Math.max(10, fit.puckMm + Math.max(0, fit.headspaceMm) + 2);
  const scale = (height - 26) / deep;
  const [left, right, floor] = [8, 92, height - 8];
  const rim = floor - (fit.puckMm + fit.headspaceMm) * scale;
  const top = floor - fit.puckMm * scale;
  return (
    <svg
      width={width}
      height={height}
      role="img"
      aria-label={`Puck ${number(fit.puckMm, 1)} mm high, ${number(fit.headspaceMm, 1)} mm under the rim`}
      style={{ flexShrink: 0 }}
    >
      <defs>
        <pattern id={dots} width="6" height="6" patternUnits="userSpaceOnUse">
          <circle cx="2" cy="2" r="1.1" fill={ink('text')} />
          <circle cx="5" cy="5" r="0.9" fill={ink('text')} />
        </pattern>
      </defs>
      <rect x={left} y={top} width={right - left} height={fit.puckMm * scale} fill={`url(#${dots})`} />
      {cover !== 'Nothing' && (
        <line
          x1={left}
          x2={right}
          y1={top - 2}
          y2={top - 2}
          stroke={ink('text')}
          strokeWidth={cover === 'Screen' ? 3 : 1.2}
        />
      )}
      <path
        d={`M${left - 6} ${rim}H${left}V${floor}H${right}V${rim}H${right + 6}`}
        fill="none"
        stroke={ink('text')}
        strokeWidth="2"
      />
      <line x1={right + 12} x2={right + 12} y1={rim} y2={top} stroke={ink('oxide')} strokeWidth="2" />
      <chakra.text
        x={right + 17}
        y={Math.max(12, (rim + top) / 2 + 4)}
        fill={ink('oxide')}
        fontSize="13px"
        fontWeight={650}
      >
        {number(fit.headspaceMm, 1)} mm
      </chakra.text>
      <chakra.text x={right + 17} y={Math.min(height - 6, (top + floor) / 2 + 8)} fill={ink('quiet')} fontSize="13px">
        {number(fit.puckMm, 1)}
      </chakra.text>
    </svg>
  );
}
