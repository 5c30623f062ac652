import { quantity } from './quantity';
import { tenth } from './scale';

interface Props {
  /** Even points in 1/20 bar, a byte each, in base64; empty without a gauge. */
  pressure: string;
  /** The same in 1/2 g. */
  weight: string;
  width?: number;
  height?: number;
}

/** The ledger's small trace: shape only, so the numbers beside it carry the units. Pressure solid thick, cup dashed. */
export function SmallTrace({ pressure, weight, width = 120, height = 40 }: Props) {
  const line = (packed: string, most: number) => {
    const bytes = atob(packed);
    return Array.from(
      bytes,
      (byte, i) =>
        `${tenth((i / Math.max(1, bytes.length - 1)) * (width - 4) + 2)},${tenth(height - 2 - (byte.charCodeAt(0) / most) * (height - 4))}`,
    ).join(' ');
  };
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
