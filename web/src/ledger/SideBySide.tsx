import { Box, Grid } from '@chakra-ui/react';
import { useId } from 'react';
import type { Schemas } from '../shared/api/client';
import { Frame, Hatch } from '../shared/plot/Frame';
import { quantity } from '../shared/plot/quantity';
import { bandPath, linear, path } from '../shared/plot/scale';
import { useWidth } from '../shared/plot/useSize';
import { TextLink } from '../shared/ui/TextLink';
import { useUnits } from '../shared/units/units';
import {
  alongEnds,
  alongOf,
  axisEnd,
  axisOf,
  letterOf,
  lineOf,
  type Against,
  type From,
  type Shown,
} from './overlayLines';

interface Props {
  shots: readonly Schemas['ShotView'][];
  against: Against;
  from: From;
  above: Shown;
}

const height = 200;

/** A small drawing of each shot, all on the same axes; pressure against grams is its indicator card. */
export function SideBySide({ shots, against, from, above }: Props) {
  const units = useUnits();
  const lines = shots.map((shot) => lineOf(shot, above, against, from, units));
  const axis = axisOf(above, units);
  const plans = shots.map((shot) => (above === 'pressure' ? lineOf(shot, 'plan', against, from, units) : []));
  const halves = shots.map((shot) => shot.plan.bandBar * units.pressureFactor);
  const ends = { x: alongEnds(lines), y: axisEnd(lines, axis, plans, halves) };
  return (
    <Grid templateColumns="repeat(auto-fill, minmax(260px, 1fr))" gap="4" data-testid="side-by-side">
      {shots.map((shot, i) => (
        <Box key={shot.shot.id}>
          <TextLink to={`/taste/${shot.shot.id}`}>
            {letterOf(i)}, shot {shot.shot.id}
          </TextLink>
          <Small
            shot={shot}
            line={lines[i]!}
            plan={plans[i]!}
            ends={ends}
            above={above}
            along={alongOf(against, from)}
            label={`${axis.label} of shot ${shot.shot.id}`}
          />
        </Box>
      ))}
    </Grid>
  );
}

interface SmallProps {
  shot: Schemas['ShotView'];
  line: ReturnType<typeof lineOf>;
  plan: ReturnType<typeof lineOf>;
  ends: { x: [number, number]; y: number };
  above: Shown;
  along: string;
  label: string;
}

function Small({ shot, line, plan, ends, above, along, label }: SmallProps) {
  const [ref, width] = useWidth<HTMLDivElement>();
  const units = useUnits();
  const hatch = useId();
  const [left, right] = [36, Math.max(90, width - 8)];
  const x = linear(ends.x, [left, right]);
  const y = linear([0, ends.y], [height - 36, 26]);
  return (
    <Box ref={ref}>
      {width > 0 && (
        <svg width={width} height={height} role="img" aria-label={label}>
          <defs>
            <Hatch id={hatch} />
          </defs>
          <Frame
            left={left}
            right={right}
            top={26}
            bottom={height - 36}
            x={x}
            y={y}
            yTicks={4}
            yLabel={axisOf(above, units).label}
            yColour={quantity[above].text}
            xLabel={along}
          >
            <path d={bandPath(plan, shot.plan.bandBar * units.pressureFactor, x, y)} fill={`url(#${hatch})`} />
            <path
              d={path(line, x, y)}
              fill="none"
              stroke={quantity[above].stroke}
              strokeWidth={quantity[above].width}
              strokeDasharray={quantity[above].dash}
            />
          </Frame>
        </svg>
      )}
    </Box>
  );
}
