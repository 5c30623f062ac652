import { Box, chakra } from '@chakra-ui/react';
import { useId, useRef, type KeyboardEvent, type PointerEvent } from 'react';
import type { Schemas } from '../shared/api/client';
import { Frame, Hatch } from '../shared/plot/Frame';
import { bandPath, linear, path, roundUp } from '../shared/plot/scale';
import { useWidth } from '../shared/plot/useSize';
import { useUnits } from '../shared/units/units';
import { ink } from '../theme/system';
import { ArmGlyph, ArmPane } from './ArmPane';
import { endMovedTo, endNudged, endsIn, whole, type Phase, type Plan } from './planWords';

type Preview = Schemas['PlanPreview'];

interface Props {
  plan: Plan;
  preview: Preview;
  lands: Schemas['TimeBand'];
  other: { name: string; preview: Preview } | null;
  yieldGrams: number;
  selected: number;
  select: (phase: number) => void;
  /** Left out where the plan is only looked at. */
  move?: (index: number, phase: Phase) => void;
}

const height = 420;
const armHeight = 74;
const hit = 22;

/**
 * A plan as it would run: its band with a point to drag for each phase, what the machine gives, and what comes of it.
 */
export function PlanChart({ plan, preview, lands, other, yieldGrams, selected, select, move }: Props) {
  const [ref, width] = useWidth<HTMLDivElement>();
  const units = useUnits();
  const hatch = useId();
  const clip = useId();
  const f = units.pressureFactor;
  const { points } = preview;
  const end = Math.max(points.at(-1)?.seconds ?? 10, lands.high, other?.preview.seconds ?? 0);
  const [left, right, top, bottom] = [44, Math.max(200, width - 44), 28, height - armHeight - 74];
  const x = linear([0, roundUp(end * 1.03, 5, 10)], [left, right]);
  const y = linear([0, 12 * f], [bottom, top]);
  const grams = linear([0, roundUp(yieldGrams * 1.1, 10, 20)], [bottom, top]);
  const drag = useRef<{ index: number; points: Preview['points']; began: number; x: typeof x; y: typeof y } | null>(
    null,
  );

  const phases = plan.phases.map(whole);
  const ends = phases.map((_, i) => points.findLast((p) => p.phase <= i)?.seconds ?? 0);
  const began = (i: number) => points.find((p) => p.phase === i)?.seconds ?? ends[i]!;
  const reached = (i: number) => i === 0 || points.some((p) => p.phase >= i);
  // phases that are never reached wait at the right edge, one beside the other
  const at = (i: number) => (reached(i) ? x(ends[i]!) : right - (phases.length - 1 - i) * 16);

  const onPointerDown = (i: number) => (e: PointerEvent<SVGGElement>) => {
    select(i);
    if (!move) return;
    e.currentTarget.setPointerCapture(e.pointerId);
    drag.current = { index: i, points, began: began(i), x, y };
    e.currentTarget.focus();
    e.preventDefault();
  };
  const onPointerMove = (e: PointerEvent<SVGGElement>) => {
    const d = drag.current;
    if (!d || !move) return;
    const box = e.currentTarget.ownerSVGElement!.getBoundingClientRect();
    const seconds = d.x.invert(e.clientX - box.left);
    const bar = d.y.invert(e.clientY - box.top) / f;
    const there = d.points.findLast((p) => p.seconds <= seconds) ?? d.points[0]!;
    const moved = endMovedTo(phases[d.index]!, d.began, seconds, there.cupGrams, yieldGrams);
    move(d.index, { ...moved, toBar: Math.min(12, Math.max(0, Math.round(bar * 10) / 10)) });
  };
  const onPointerUp = () => (drag.current = null);
  const onKeyDown = (i: number) => (e: KeyboardEvent) => {
    if (!move) return;
    const phase = phases[i]!;
    const step = e.shiftKey ? 5 : 1;
    const bars = (by: number) => ({
      ...phase,
      toBar: Math.min(12, Math.max(0, Math.round((phase.toBar + by * 0.1) * 10) / 10)),
    });
    const next: Record<string, Phase> = {
      ArrowUp: bars(step),
      ArrowDown: bars(-step),
      ArrowRight: endNudged(phase, step, yieldGrams),
      ArrowLeft: endNudged(phase, -step, yieldGrams),
    };
    if (!next[e.key]) return;
    e.preventDefault();
    move(i, next[e.key]!);
  };

  const show = (bar: number) => `${units.pressure(bar, 1).value} ${units.pressureUnit}`;
  const most = points.map((p) => [p.seconds, Math.min(12, p.mostBar) * f] as const);
  return (
    <Box ref={ref}>
      {width > 0 && (
        <svg
          width={width}
          height={height}
          role="group"
          aria-label={`${plan.name}: pressure against seconds, as it would run`}
        >
          <defs>
            <Hatch id={hatch} />
            <clipPath id={clip}>
              <rect x={left} y={top} width={right - left} height={bottom - top} />
            </clipPath>
          </defs>
          <Frame
            left={left}
            right={right}
            top={top}
            bottom={bottom}
            x={x}
            y={y}
            y2={grams}
            yColour={ink('pressure')}
            yLabel={`Pressure, ${units.pressureUnit} (solid)`}
            y2Label="Cup, g (dashed)"
            y2Colour={ink('grams')}
            xLabel="since the lever moved, s"
          >
            <g clipPath={`url(#${clip})`}>
              {most.length > 1 && (
                <>
                  <path
                    d={`${path(most, x, y)}L${x(most.at(-1)![0])} ${bottom}L${x(most[0]![0])} ${bottom}Z`}
                    fill={ink('plan')}
                    opacity="0.09"
                  />
                  <path d={path(most, x, y)} fill="none" stroke={ink('edge')} strokeWidth="1.2" strokeDasharray="2 3" />
                </>
              )}
              <path
                d={bandPath(
                  points.map((p) => [p.seconds, p.targetBar * f] as const),
                  plan.bandBar * f,
                  x,
                  y,
                )}
                fill={`url(#${hatch})`}
                stroke={ink('plan')}
                strokeWidth="0.8"
              />
              {other && (
                <path
                  d={path(
                    other.preview.points.map((p) => [p.seconds, p.targetBar * f] as const),
                    x,
                    y,
                  )}
                  fill="none"
                  stroke={ink('text')}
                  strokeWidth="1.4"
                  strokeDasharray="9 3 2 3"
                />
              )}
              <path
                d={path(
                  points.map((p) => [p.seconds, p.cupGrams] as const),
                  x,
                  grams,
                )}
                fill="none"
                stroke={ink('grams')}
                strokeWidth="1.8"
                strokeDasharray="7 4"
              />
              <path
                d={path(
                  points.map((p) => [p.seconds, p.pressureBar * f] as const),
                  x,
                  y,
                )}
                fill="none"
                stroke={ink('pressure')}
                strokeWidth="2.6"
              />
            </g>
            <g>
              <line
                x1={x(lands.low)}
                x2={x(lands.high)}
                y1={bottom - 3}
                y2={bottom - 3}
                stroke={ink('text')}
                strokeWidth="4"
              />
              <chakra.text
                x={(x(lands.low) + x(lands.high)) / 2}
                y={bottom - 9}
                textAnchor="middle"
                fill={ink('text')}
                fontSize="12px"
              >
                lands
              </chakra.text>
            </g>
            {preview.firstDropsSeconds !== null && (
              <g>
                <line
                  x1={x(preview.firstDropsSeconds)}
                  x2={x(preview.firstDropsSeconds)}
                  y1={top}
                  y2={bottom}
                  stroke={ink('quiet')}
                  strokeDasharray="1 4"
                />
                <chakra.text x={x(preview.firstDropsSeconds) + 4} y={top + 12} fill={ink('quiet')} fontSize="12px">
                  first drops
                </chakra.text>
              </g>
            )}
            {phases.map((phase, i) => (
              <g
                key={i}
                role={move ? 'slider' : 'img'}
                tabIndex={move ? 0 : undefined}
                aria-label={`Phase ${i + 1}, ${phase.name}`}
                {...(move && {
                  'aria-valuemin': 0,
                  'aria-valuemax': 12,
                  'aria-valuenow': phase.toBar,
                  'aria-valuetext': `${show(phase.toBar)}, ends ${endsIn(phase, yieldGrams)}`,
                  'aria-orientation': 'vertical' as const,
                })}
                onPointerDown={onPointerDown(i)}
                onPointerMove={onPointerMove}
                onPointerUp={onPointerUp}
                onPointerCancel={onPointerUp}
                onKeyDown={onKeyDown(i)}
                onFocus={() => select(i)}
                style={{ cursor: move ? 'move' : 'default', touchAction: 'none', outlineOffset: 0 }}
              >
                <circle cx={at(i)} cy={y(phase.toBar * f)} r={hit} fill="transparent" />
                <circle
                  cx={at(i)}
                  cy={y(phase.toBar * f)}
                  r="10"
                  fill={selected === i ? ink('oxide') : ink('panel')}
                  stroke={selected === i ? ink('oxide') : ink('text')}
                  strokeWidth="2"
                />
                <ArmGlyph
                  move={preview.arm[i]?.move ?? 'Hold'}
                  x={at(i)}
                  y={y(phase.toBar * f)}
                  stroke={selected === i ? ink('onOxide') : ink('text')}
                />
              </g>
            ))}
          </Frame>
          <ArmPane
            preview={preview}
            x={x}
            left={left}
            right={right}
            top={height - armHeight - 8}
            bottom={height - 8}
            selected={selected}
          />
        </svg>
      )}
      <Box fontSize="13px" color="quiet">
        Hatched: the plan and its band. Shaded: what the machine gives. Below: the piston on its way down.
        {other ? ` Dashes and dots: ${other.name}.` : ''}
        {move ? ' Drag a handle, or move it with the arrow keys; Shift moves further.' : ''}
      </Box>
    </Box>
  );
}
