import { chakra } from '@chakra-ui/react';
import type { ReactNode } from 'react';
import { ink } from '../../theme/system';
import { useUnits } from '../units/units';
import { Frame } from './Frame';
import { quantity } from './quantity';
import type { linear } from './scale';

type Scale = ReturnType<typeof linear>;

interface Props {
  left: number;
  right: number;
  top: number;
  bottom: number;
  /** s from the lever's first move. */
  x: Scale;
  children?: ReactNode;
}

/** Axes of a shot's pressure in the household's unit; without the seconds where the cup's pane stands below. */
export function PressureFrame({
  y,
  alone,
  planned,
  children,
  ...pane
}: Props & { y: Scale; alone: boolean; planned: boolean }) {
  const units = useUnits();
  return (
    <Frame
      {...pane}
      y={y}
      yLabel={`Pressure, ${units.pressureUnit}`}
      yColour={quantity.pressure.text}
      xLabel={alone ? 'seconds from lever' : undefined}
    >
      {children}
      {planned && (
        <chakra.text x={pane.right} y={pane.top - 7} textAnchor="end" fill={ink('quiet')} fontSize="13px">
          hatched: the plan
        </chakra.text>
      )}
    </Frame>
  );
}

/** Axes of what is in the cup, g, and of the flow, g/s. */
export function CupFrame({
  grams,
  flow,
  ticks,
  children,
  ...pane
}: Props & { grams: Scale; flow: Scale; ticks: number }) {
  return (
    <Frame
      {...pane}
      y={grams}
      yTicks={ticks}
      yLabel="Cup, g (dashed)"
      yColour={quantity.grams.text}
      xLabel="seconds from lever"
      y2={flow}
      y2Label="Flow, g/s (solid)"
      y2Colour={quantity.flow.text}
    >
      {children}
    </Frame>
  );
}
