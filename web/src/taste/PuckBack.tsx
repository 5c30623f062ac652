import { Box } from '@chakra-ui/react';
import { useQuery } from '@tanstack/react-query';
import { api, data, type Schemas } from '../shared/api/client';
import { Pane } from '../shared/plot/Pane';
import { quantity } from '../shared/plot/quantity';
import { lineRows } from '../shared/plot/rows';
import { path, roundUp } from '../shared/plot/scale';
import { Table } from '../shared/ui/Table';
import { Waiting } from '../shared/ui/elements';
import { number, useUnits } from '../shared/units/units';
import { ink } from '../theme/system';

/** What the trace says of its puck: fitted numbers with their intervals, and the fitted cup over the measured one. */
export function PuckBack({ shotId, curves }: { shotId: number; curves: Schemas['Curves'] }) {
  const units = useUnits();
  const { data: view, error } = useQuery({
    queryKey: ['shot', shotId, 'puck'],
    queryFn: () => data(api.GET('/api/shots/{id}/puck', { params: { path: { id: shotId } } })),
    retry: false,
  });
  if (!view) return <Waiting error={error} />;
  if (!view.puck)
    return <Box color="quiet">Gauge and scale did not record enough of this pull to read its puck back.</Box>;
  const { puck } = view;
  const cup = curves.weightGrams ?? [];
  const timed = (of: readonly number[]) => of.map((g, i) => [i * curves.stepSeconds, g] as const);
  const most = roundUp(Math.max(...cup, ...puck.cup), 10, 20);
  const seconds = Math.max(cup.length, puck.cup.length) * curves.stepSeconds;
  return (
    <>
      <Table
        label="The puck read back"
        head={['', 'Best', 'Nine in ten', '']}
        rows={puck.numbers.map((n) => {
          const { unit, show } = units.of(n.unit);
          // a small number has a digit more
          const said = (value: number) => number(show(value), Math.abs(show(n.value)) < 0.1 ? 3 : 2);
          return {
            key: n.name,
            cells: [
              n.name,
              `${said(n.value)} ${unit}`.trim(),
              `${said(n.low)} to ${said(n.high)}`,
              n.told ? '' : 'hardly told',
            ],
          };
        })}
      />
      <Pane
        label={`Fitted cup over the measured one, off by ${number(puck.misfitGrams, 2)} g`}
        height={150}
        xDomain={[0, roundUp(seconds, 10, 20)]}
        yDomain={[0, most]}
        yColour={quantity.grams.text}
        yLabel="Cup, g (dashed: measured, solid: fitted)"
        xLabel="seconds from lever"
        table={lineRows('Seconds', 1, [
          { name: 'Measured, g', line: timed(cup), digits: 1 },
          { name: 'Fitted, g', line: timed(puck.cup), digits: 1 },
        ])}
      >
        {({ x, y }) => {
          const line = (of: readonly number[]) => path(timed(of), x, y);
          return (
            <>
              <path d={line(puck.cup)} fill="none" stroke={ink('resistance')} strokeWidth={3} opacity="0.6" />
              <path
                d={line(cup)}
                fill="none"
                stroke={quantity.grams.stroke}
                strokeWidth={quantity.grams.width}
                strokeDasharray={quantity.grams.dash}
              />
            </>
          );
        }}
      </Pane>
      <Box fontSize="14px" color="quiet">
        Off by {number(puck.misfitGrams, 2)} g. {puck.cannotTell.join(' ')}
      </Box>
    </>
  );
}
