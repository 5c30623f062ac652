import { chakra } from '@chakra-ui/react';
import type { Schemas } from '../shared/api/client';
import { Hatch } from '../shared/plot/Frame';
import { linear } from '../shared/plot/scale';
import { ink } from '../theme/system';

interface Props {
  rest: Schemas['RestWindow'];
  days: number;
  /** What it says, for those who cannot see it. */
  label: string;
  /** Set apart from its neighbours' patterns. */
  id: number;
}

const [width, height] = [220, 26];

/** Where a bag stands: days from roast along the foot, the best days hatched, a mark for today. */
export function RestBar({ rest, days, label, id }: Props) {
  const end = rest.cremaTo + 4;
  const x = linear([0, end], [2, width - 2]);
  const at = x(Math.min(days, end));
  return (
    <svg width={width} height={height} role="img" aria-label={label} style={{ maxWidth: '100%' }}>
      <defs>
        <Hatch id={`rest-${id}`} />
      </defs>
      <rect
        x={x(rest.bestFrom)}
        width={x(rest.bestTo) - x(rest.bestFrom)}
        y="4"
        height="9"
        fill={`url(#rest-${id})`}
        stroke={ink('edge')}
      />
      <line x1="2" x2={width - 2} y1="13.5" y2="13.5" stroke={ink('edge')} />
      <line x1={x(rest.usableFrom)} x2={x(rest.usableFrom)} y1="9" y2="13" stroke={ink('edge')} />
      <path d={`M${at} 13 l-4 -9 h8 z`} fill={ink('oxide')} />
      {[0, rest.bestFrom, rest.bestTo, rest.cremaTo]
        .filter((d, i, all) => i === 0 || d - all[i - 1]! > end / 14)
        .map((d) => (
          <chakra.text
            key={d}
            x={x(d)}
            y={height - 2}
            textAnchor={d === 0 ? 'start' : 'middle'}
            fill={ink('quiet')}
            fontSize="11px"
            fontVariantNumeric="tabular-nums"
          >
            {d === 0 ? 'roast' : d}
          </chakra.text>
        ))}
    </svg>
  );
}
