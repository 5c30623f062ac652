import { Box } from '@chakra-ui/react';
import { useNavigate } from 'react-router';
import type { Schemas } from '../shared/api/client';
import { timeOfDay } from '../shared/clock';
import { Hatch } from '../shared/plot/Frame';
import { quantity } from '../shared/plot/quantity';
import { linear, path } from '../shared/plot/scale';
import { spread } from '../shared/session/spread';
import { useWidth } from '../shared/plot/useSize';
import { useUnits } from '../shared/units/units';
import { ink } from '../theme/system';

type Session = Schemas['SessionView'];

const height = 46;
const track = 10;

/**
 * The session as a ribbon in time: its steps along the foot, the group's heat and its band above them, a mark for now.
 */
export function Ribbon({ session, nowMs }: { session: Session; nowMs: number }) {
  const [ref, width] = useWidth<HTMLDivElement>();
  const units = useUnits();
  const navigate = useNavigate();
  const origin = Date.parse(session.originAt);
  const start = session.begun ? 0 : session.startSeconds;
  const end = Math.max(session.endSeconds, start + 600, session.nowSeconds);
  const x = linear([start, end], [4, Math.max(40, width - 4)]);
  const highest = Math.max(session.bandHighC + 6, ...session.course.map((p) => Math.max(p.groupC, p.boilerC ?? 0)));
  const y = linear([15, highest], [height - track - 4, 3]);
  const banded = session.hasBoiler || session.hasHeater;
  const nowS = (nowMs - origin) / 1000;
  const { now } = session;
  const degree = units.temperature(0).unit;
  return (
    <Box ref={ref} flex="1" minWidth={0}>
      {width > 0 && (
        <button
          type="button"
          onClick={() => void navigate('/warm')}
          aria-label={
            `Session from ${timeOfDay(origin + start * 1000)} to ${timeOfDay(origin + end * 1000)}, ` +
            `group ${units.temperature(now.groupC).value} ` +
            `${degree}${banded ? (now.inBand ? ', in band' : ', out of band') : ''}. Open Warm.`
          }
          style={{ display: 'block', cursor: 'pointer', width: '100%' }}
        >
          <svg width={width} height={height} aria-hidden="true">
            <defs>
              <Hatch id="ribbon-band" />
            </defs>
            {banded && (
              <rect
                x="4"
                width={Math.max(0, width - 8)}
                y={y(session.bandHighC)}
                height={Math.max(0, y(session.bandLowC) - y(session.bandHighC))}
                fill="url(#ribbon-band)"
              />
            )}
            {session.hasBoiler && (
              <path
                d={path(
                  session.course
                    .filter((p) => p.seconds >= start)
                    .map((p) => [p.seconds, p.boilerC ?? Number.NaN] as const),
                  x,
                  y,
                )}
                fill="none"
                stroke={ink('edge')}
                strokeWidth="1"
              />
            )}
            <path
              d={spread(
                session.course.filter((p) => p.seconds >= start),
                (c) => c,
                x,
                y,
              )}
              fill={ink('temperature')}
              opacity="0.25"
            />
            <path
              d={path(
                session.course.filter((p) => p.seconds >= start).map((p) => [p.seconds, p.groupC] as const),
                x,
                y,
              )}
              fill="none"
              stroke={quantity.temperature.stroke}
              strokeWidth="2"
              strokeDasharray={quantity.temperature.dash}
              strokeLinecap="round"
            />
            {session.steps
              .filter((s) => s.seconds > 0)
              .map((s) => (
                <rect
                  key={s.key}
                  x={x(s.startSeconds)}
                  width={Math.max(2, x(s.startSeconds + s.seconds) - x(s.startSeconds) - 1)}
                  y={height - track + (s.handsFree ? 5 : 0)}
                  height={s.handsFree ? 4 : track - 1}
                  fill={ink(s.kind === 'Shot' ? 'oxide' : 'edge')}
                  opacity={s.state === 'Done' ? 1 : s.state === 'Skipped' ? 0.15 : s.kind === 'Shot' ? 0.75 : 0.45}
                />
              ))}
            {session.readings
              .filter((r) => r.kind === 'Strip' || r.kind === 'Probe')
              .map((r) => (
                <path
                  key={r.index}
                  d={`M${x(r.seconds) - 3} ${y(r.value)}h6M${x(r.seconds)} ${y(r.value) - 3}v6`}
                  stroke={ink('text')}
                  strokeWidth="1.5"
                />
              ))}
            {nowS >= start && nowS <= end && (
              <line x1={x(nowS)} x2={x(nowS)} y1="0" y2={height} stroke={ink('text')} strokeWidth="2" />
            )}
          </svg>
        </button>
      )}
    </Box>
  );
}

/** The session in one line, for a phone. */
export function RibbonLine({ session }: { session: Session }) {
  const units = useUnits();
  const { now } = session;
  const group =
    `${session.hasBoiler ? 'Group' : 'Metal'} ${units.temperature(now.groupC).value} ` + `${units.temperature(0).unit}`;
  const band = session.hasBoiler || session.hasHeater ? (now.inBand ? ', in band' : ', out of band') : '';
  const left = session.hasBoiler ? `, ${now.shotsLeft} ${now.shotsLeft === 1 ? 'shot' : 'shots'} left` : '';
  return <>{`${group}${band}${left}${session.next ? `, next: ${session.next.title.toLowerCase()}` : ''}`}</>;
}
