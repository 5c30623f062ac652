import { Box, chakra } from '@chakra-ui/react';
import type { Schemas } from '../shared/api/client';
import { timeOfDay } from '../shared/clock';
import { Frame, Hatch } from '../shared/plot/Frame';
import { quantity } from '../shared/plot/quantity';
import { valueAt } from '../shared/plot/rows';
import { linear, path } from '../shared/plot/scale';
import { Tabled } from '../shared/plot/Tabled';
import { useWidth } from '../shared/plot/useSize';
import { useUnits } from '../shared/units/units';
import { ink } from '../theme/system';
import { spread } from '../shared/session/spread';
import { condensed } from '../theme/type';

/** As many rows as a chart of so many px has marks. */
const tableWidth = 1600;

type Session = Schemas['SessionView'];

/**
 * Group and boiler against the time of day: computed, with what is not known about it, its band, readings, shots, and
 * now.
 */
export function HeatCourse({ session, nowMs, height = 250 }: { session: Session; nowMs: number; height?: number }) {
  const [ref, width] = useWidth<HTMLDivElement>();
  const units = useUnits();
  const t = units.of('degC').show;
  const origin = Date.parse(session.originAt);
  const course = session.course;
  const start =
    Math.min(session.startSeconds, course[0]?.seconds ?? 0, 0) === 0 && session.begun ? 0 : session.startSeconds;
  const end = Math.max(session.endSeconds, start + 600, session.begun ? session.nowSeconds : 0);
  const [left, right, top, bottom] = [44, Math.max(140, width - 10), 28, height - 36];
  const x = linear([start, end], [left, right]);
  const showBoiler = session.hasBoiler;
  const highest = Math.max(...course.map((p) => (showBoiler ? (p.boilerC ?? 0) : p.groupC)), session.bandHighC, 60);
  const y = linear([t(Math.min(15, ...course.map((p) => p.groupC))), t(highest + 6)], [bottom, top]);
  const group = course.filter((p) => p.seconds >= start).map((p) => [p.seconds, t(p.groupC)] as const);
  const doubt = course.filter((p) => p.seconds >= start);
  const banded = session.hasBoiler || session.hasHeater;
  const nowS = (nowMs - origin) / 1000;
  const degree = units.temperature(0).unit;
  const [low, high] = [units.temperature(session.bandLowC).value, units.temperature(session.bandHighC).value];
  const what = banded ? `its band from ${low} to ${high} ${degree}` : 'metal of the chamber';
  const ticks = ticksOf(start, end, origin, width);
  const label = `Group temperature against the time of day, ${what}`;
  const one = (of: (p: (typeof course)[number]) => number | null) =>
    course.filter((p) => p.seconds >= start).map((p) => [p.seconds, of(p) ?? Number.NaN] as const);
  const table = {
    head: ['Time', `Group, ${degree}`, `Uncertainty, ${degree}`, ...(showBoiler ? [`Boiler, ${degree}`] : [])],
    rows: () =>
      ticksOf(start, end, origin, tableWidth).map((at) => [
        timeOfDay(origin + at * 1000),
        units.temperature(
          valueAt(
            one((p) => p.groupC),
            at,
          ),
        ).value,
        units.temperatureStep(
          valueAt(
            one((p) => p.plusMinusK),
            at,
          ),
        ).value,
        ...(showBoiler
          ? [
              units.temperature(
                valueAt(
                  one((p) => p.boilerC),
                  at,
                ),
              ).value,
            ]
          : []),
      ]),
  };
  const timeScale = Object.assign((v: number) => x(v), { ticks: () => [] as number[], domain: () => [start, end] });
  return (
    <Box ref={ref}>
      <Tabled label={label} height={height} table={table}>
        {width > 0 && (
          <svg width={width} height={height} role="img" aria-label={label}>
            <defs>
              <Hatch id="heat-band" />
              <clipPath id="heat-pane">
                <rect x={left} y={top} width={right - left} height={bottom - top} />
              </clipPath>
            </defs>
            <Frame
              left={left}
              right={right}
              top={top}
              bottom={bottom}
              x={timeScale}
              y={y}
              yColour={quantity.temperature.text}
              yLabel={
                `${session.hasBoiler ? 'Group' : 'Chamber metal'}, ${units.temperature(0).unit} (dotted; ` +
                'shade: uncertainty)'
              }
              y2Label={showBoiler && width > 560 ? 'Boiler (thin line)' : undefined}
              y2Colour={ink('quiet')}
            >
              {ticks.map((tick) => (
                <chakra.text
                  key={tick}
                  x={x(tick)}
                  y={bottom + 16}
                  textAnchor="middle"
                  fill={ink('quiet')}
                  fontSize="12px"
                  fontStretch={condensed}
                  fontVariantNumeric="tabular-nums"
                >
                  {timeOfDay(origin + tick * 1000)}
                </chakra.text>
              ))}
              <chakra.text x={right} y={bottom + 31} textAnchor="end" fill={ink('quiet')} fontSize="13px">
                time of day
              </chakra.text>
              <g clipPath="url(#heat-pane)">
                {banded && (
                  <>
                    <rect
                      x={left}
                      width={right - left}
                      y={y(t(session.bandHighC))}
                      height={Math.max(0, y(t(session.bandLowC)) - y(t(session.bandHighC)))}
                      fill="url(#heat-band)"
                    />
                    <chakra.text x={left + 6} y={y(t(session.bandHighC)) + 14} fill={ink('quiet')} fontSize="12px">
                      band at lever-up
                    </chakra.text>
                  </>
                )}
                <path d={spread(doubt, t, x, y)} fill={ink('temperature')} opacity="0.22" />
                {showBoiler && (
                  <path
                    d={path(
                      course
                        .filter((p) => p.seconds >= start)
                        .map((p) => [p.seconds, t(p.boilerC ?? Number.NaN)] as const),
                      x,
                      y,
                    )}
                    fill="none"
                    stroke={ink('edge')}
                    strokeWidth="1.2"
                  />
                )}
                <path
                  d={path(group, x, y)}
                  fill="none"
                  stroke={quantity.temperature.stroke}
                  strokeWidth={quantity.temperature.width}
                  strokeDasharray={quantity.temperature.dash}
                  strokeLinecap="round"
                />
                {session.shots.map((shot, i) => (
                  <g key={shot.atSeconds}>
                    <line
                      x1={x(shot.atSeconds)}
                      x2={x(shot.atSeconds)}
                      y1={bottom}
                      y2={y(t(shot.leverUpC))}
                      stroke={ink('oxide')}
                    />
                    <circle cx={x(shot.atSeconds)} cy={y(t(shot.leverUpC))} r="4.5" fill={ink('oxide')} />
                    <chakra.text
                      x={x(shot.atSeconds) + 4}
                      y={bottom - 5}
                      fill={ink('text')}
                      fontSize="12px"
                      fontWeight={650}
                    >
                      {i + 1}
                    </chakra.text>
                  </g>
                ))}
                {session.readings
                  .filter((r) => r.kind === 'Strip' || r.kind === 'Probe')
                  .map((r) => (
                    <path
                      key={r.index}
                      d={`M${x(r.seconds) - 5} ${y(t(r.value))}h10M${x(r.seconds)} ${y(t(r.value)) - 5}v10`}
                      stroke={ink('text')}
                      strokeWidth="2"
                    />
                  ))}
              </g>
              {nowS >= start && nowS <= end && (
                <g>
                  <line x1={x(nowS)} x2={x(nowS)} y1={top} y2={bottom} stroke={ink('text')} strokeWidth="1.5" />
                  <chakra.text
                    x={x(nowS) + (nowS > end - (end - start) * 0.1 ? -4 : 4)}
                    y={top + 11}
                    textAnchor={nowS > end - (end - start) * 0.1 ? 'end' : 'start'}
                    fill={ink('text')}
                    fontSize="12px"
                    fontWeight={650}
                  >
                    now
                  </chakra.text>
                </g>
              )}
            </Frame>
          </svg>
        )}
      </Tabled>
    </Box>
  );
}

/** Round times of day between two moments, in s since the origin. */
function ticksOf(start: number, end: number, originMs: number, width: number): number[] {
  const step = [60, 120, 300, 600, 900, 1800, 3600].find((s) => (end - start) / s <= Math.max(3, width / 80)) ?? 7200;
  const first = Math.ceil((originMs / 1000 + start) / step) * step - originMs / 1000;
  const ticks: number[] = [];
  for (let tick = first; tick <= end; tick += step) ticks.push(tick);
  return ticks;
}
