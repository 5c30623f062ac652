import { chakra } from '@chakra-ui/react';
import type { Schemas } from '../shared/api/client';
import { ink } from '../theme/system';

const width = 180;
const height = 44;

/** Points of a lesson from the first time to the last, with the mark that counts as played well. */
export function Progress({ played }: { played: readonly Schemas['PlayedOnce'][] }) {
  if (played.length === 0) return null;
  const x = (i: number) => 6 + (played.length === 1 ? 0 : (i / (played.length - 1)) * (width - 36));
  const y = (points: number) => height - 6 - (points / 100) * (height - 12);
  const last = played.at(-1)!.points;
  return (
    <svg
      width={width}
      height={height}
      role="img"
      aria-label={`Points over time: ${played.map((p) => p.points).join(', ')} of 100`}
    >
      <line x1={0} x2={width - 26} y1={y(75)} y2={y(75)} stroke={ink('edge')} strokeDasharray="2 4" />
      <polyline
        points={played.map((p, i) => `${x(i)},${y(p.points)}`).join(' ')}
        fill="none"
        stroke={ink('text')}
        strokeWidth="2"
      />
      {played.map((p, i) => (
        <circle key={p.at} cx={x(i)} cy={y(p.points)} r={3} fill={ink('text')} />
      ))}
      <chakra.text x={x(played.length - 1) + 8} y={y(last) + 5} fill={ink('text')} fontSize="14px" fontWeight={650}>
        {last}
      </chakra.text>
    </svg>
  );
}
