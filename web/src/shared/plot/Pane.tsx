import { Box } from '@chakra-ui/react';
import type { ReactNode } from 'react';
import { Frame } from './Frame';
import type { ChartRows } from './rows';
import { linear } from './scale';
import { Tabled } from './Tabled';
import { useWidth } from './useSize';

type Domain = [number, number];

export interface PaneGeometry {
  left: number;
  right: number;
  top: number;
  bottom: number;
  x: ReturnType<typeof linear>;
  y: ReturnType<typeof linear>;
  /** Second scale at the right; the first where there is none. */
  y2: ReturnType<typeof linear>;
}

interface Props {
  /** What the chart shows, for those who cannot see it. */
  label: string;
  height: number;
  xDomain: Domain;
  yDomain: Domain;
  y2Domain?: Domain;
  xLabel: string;
  yLabel: string;
  y2Label?: string;
  yColour: string;
  y2Colour?: string;
  /** Room at the right for labels, px. */
  room?: number;
  /** The numbers behind it. */
  table: ChartRows;
  children: (pane: PaneGeometry) => ReactNode;
}

/** A chart of one pane that fills the width it is given: axes with their units, and what is drawn in it. */
export function Pane({ label, height, xDomain, yDomain, y2Domain, room = 16, table, children, ...axes }: Props) {
  const [ref, width] = useWidth<HTMLDivElement>();
  const [left, right, top, bottom] = [40, Math.max(140, width - room), 26, height - 36];
  const x = linear(xDomain, [left, right]);
  const y = linear(yDomain, [bottom, top]);
  const y2 = y2Domain && linear(y2Domain, [bottom, top]);
  return (
    <Box ref={ref}>
      <Tabled label={label} height={height} table={table}>
        {width > 0 && (
          <svg width={width} height={height} role="img" aria-label={label}>
            <Frame left={left} right={right} top={top} bottom={bottom} x={x} y={y} y2={y2} yTicks={4} {...axes}>
              {children({ left, right, top, bottom, x, y, y2: y2 ?? y })}
            </Frame>
          </svg>
        )}
      </Tabled>
    </Box>
  );
}
