import { quantity } from './quantity';

interface Props {
  pressure: readonly number[];
  weight: readonly number[];
  width?: number;
  height?: number;
}

/** The ledger's small trace: shape only, so the numbers beside it carry the units. Pressure solid thick, cup dashed. */
export function SmallTrace({ pressure, weight, width = 120, height = 40 }: Props) {
  const line = (values: readonly number[], most: number) =>
    values
      .map(
        (v, i) =>
          `${((i / Math.max(1, values.length - 1)) * (width - 4) + 2).toFixed(1)},${(height - 2 - (v / most) * (height - 4)).toFixed(1)}`,
      )
      .join(' ');
  return (
    <svg
      className="trace"
      width={width}
      height={height}
      viewBox={`0 0 ${width} ${height}`}
      preserveAspectRatio="none"
      aria-hidden="true"
    >
      {weight.length > 0 && (
        <polyline
          points={line(weight, 90)}
          fill="none"
          stroke={quantity.grams.stroke}
          strokeWidth="1.2"
          strokeDasharray="4 3"
        />
      )}
      {pressure.length > 0 && (
        <polyline
          points={line(pressure, 220)}
          fill="none"
          stroke={quantity.pressure.stroke}
          strokeWidth="2"
          strokeLinejoin="round"
        />
      )}
    </svg>
  );
}
