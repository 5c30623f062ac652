import { Box } from '@chakra-ui/react';
import type { Schemas } from '../shared/api/client';
import { Pane } from '../shared/plot/Pane';
import { path } from '../shared/plot/scale';
import { H2, Panel } from '../shared/ui/elements';
import { number, useUnits } from '../shared/units/units';
import { ink } from '../theme/system';

interface Props {
  title: string;
  /** Of the wire. */
  unit: string;
  digits: number;
  chart: Schemas['ControlChart'];
  /** Numbers of the shots, where they are known. */
  ids?: readonly number[];
}

const words = { No: '', BeyondLimit: 'beyond a limit', LongRun: 'eighth or more on one side' } as const;

/** A quantity in the order of time between its limits; what stands out is ringed and named. */
export function ControlPanel({ title, unit: wire, digits, chart, ids }: Props) {
  const units = useUnits();
  const { unit, show } = units.of(wire);
  const values = chart.points.map((p) => show(p.value));
  const [mean, low, high] = [show(chart.mean), show(chart.low), show(chart.high)];
  const [least, most] = [Math.min(low, ...values), Math.max(high, ...values)];
  const room = Math.max((most - least) * 0.08, 1e-6);
  const out = chart.points.flatMap((p, i) => (p.why === 'No' ? [] : [{ why: p.why, i }]));
  const name = (i: number) => (ids ? `shot ${ids[i]}` : `pull ${i + 1}`);
  const beyond = out.filter((o) => o.why === 'BeyondLimit').map((o) => name(o.i));
  return (
    <Panel aria-label={title}>
      <H2 mb="1">{title}</H2>
      <Pane
        label={
          `${title}: ${values.length} in order, mean ${number(mean, digits)}, ` +
          `limits ${number(low, digits)} and ${number(high, digits)}`
        }
        height={180}
        room={60}
        xDomain={[0.5, values.length + 0.5]}
        yDomain={[least - room, most + room]}
        xLabel="in order of time"
        yLabel={unit || title}
        yColour={ink('text')}
        table={{
          head: [ids ? 'Shot' : 'Pull', unit || 'Value', ''],
          rows: () => chart.points.map((p, i) => [name(i), number(show(p.value), digits), words[p.why]]),
        }}
      >
        {({ x, y, left, right }) => (
          <>
            {[
              { at: high, word: 'limit', dash: '6 4' },
              { at: mean, word: 'mean', dash: undefined },
              { at: low, word: 'limit', dash: '6 4' },
            ].map((l, i) => (
              <g key={i}>
                <line x1={left} x2={right} y1={y(l.at)} y2={y(l.at)} stroke={ink('edge')} strokeDasharray={l.dash} />
                <text x={right + 6} y={y(l.at) + 4} fill={ink('quiet')} style={{ fontSize: '12px' }}>
                  {l.word}
                </text>
              </g>
            ))}
            <path
              d={path(
                values.map((v, i) => [i + 1, v] as const),
                x,
                y,
              )}
              fill="none"
              stroke={ink('text')}
              strokeWidth="1.2"
            />
            {values.map((v, i) => (
              <circle key={i} cx={x(i + 1)} cy={y(v)} r={values.length > 120 ? 1.5 : 3} fill={ink('text')} />
            ))}
            {out.map((o) => (
              <circle
                key={o.i}
                cx={x(o.i + 1)}
                cy={y(values[o.i]!)}
                r="7"
                fill="none"
                stroke={ink('oxide')}
                strokeWidth="2"
                strokeDasharray={o.why === 'LongRun' ? '2 2' : undefined}
              />
            ))}
          </>
        )}
      </Pane>
      <Box mt="1" fontSize="14px" color="quiet">
        {out.length === 0
          ? 'Nothing stands out: this is the usual variation.'
          : [
              beyond.length > 0
                ? `Beyond a limit: ${beyond.slice(0, 8).join(', ')}${beyond.length > 8 ? ' and more' : ''}.`
                : '',
              out.some((o) => o.why === 'LongRun')
                ? 'Dotted rings end a run of eight or more on one side: the mean has moved.'
                : '',
            ].join(' ')}
      </Box>
    </Panel>
  );
}
