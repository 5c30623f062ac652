import { Box, chakra } from '@chakra-ui/react';
import { useEffect, useRef } from 'react';
import type { Schemas } from '../shared/api/client';
import { isField } from '../shared/keys/shortcuts';
import { useUnits } from '../shared/units/units';
import { live } from '../shared/live/live';
import { ink } from '../theme/system';
import { effortAt, effortByKeys } from './effort';
import { controlWords } from './scoreWords';
import type { PracticeFrame } from './usePractice';
import { condensed } from '../theme/type';

interface Props {
  view: Schemas['PracticeView'];
  height: number;
  listen: (listener: (frame: PracticeFrame) => void) => () => void;
}

const width = 220;
const sayEveryMs = 25;
const sayAtLeastEveryMs = 200;
const pivot = { x: 44, y: 0.5 };
const arm = 140;

/**
 * The virtual lever: a pad that mouse, finger or keys press. The handle goes as the machine's would; the arrow is what
 * the hand gives.
 */
export function VirtualLever({ view, height, listen }: Props) {
  const units = useUnits();
  const pad = useRef<HTMLDivElement>(null);
  const handle = useRef<SVGGElement>(null);
  const arrow = useRef<SVGPathElement>(null);
  const force = useRef<SVGTextElement>(null);
  const state = useRef<SVGTextElement>(null);
  const { id, control } = view;
  const starts = control === 'HoldBack' ? 1 : 0;

  useEffect(() => {
    let effort = starts;
    let said = -1;
    let saidAt = 0;
    let pointer = false;
    let last = performance.now();
    let lever = view.frame.lever;
    const keys = new Set<string>();
    const mid = height * pivot.y;

    const draw = () => {
      // an arm's lever goes down as the water goes in, a spring's and a pump's where the hand has it
      const way = control === 'Press' || control === 'PressOrLift' ? lever.travel * 0.85 + effort * 0.15 : effort;
      const angle = -38 + way * 76;
      handle.current?.setAttribute('transform', `rotate(${angle.toFixed(1)} ${pivot.x} ${mid})`);
      const length = 14 + effort * 70;
      arrow.current?.setAttribute('d', `M${pivot.x + arm} ${mid - 16 - length}v${length}m-9 -12l9 12l9 -12`);
      arrow.current?.setAttribute('visibility', effort > 0.02 ? 'visible' : 'hidden');
      if (force.current)
        force.current.textContent =
          lever.forceKgf === null
            ? `${Math.round(effort * 100)} %`
            : `${units.force(lever.forceKgf, 0).value} ${units.force(0).unit}`;
      if (state.current)
        state.current.textContent = lever.filling
          ? 'the group fills'
          : lever.strokes > 0
            ? `stroke ${lever.strokes}`
            : '';
      pad.current?.setAttribute('aria-valuenow', String(Math.round(effort * 100)));
    };
    const tick = () => {
      const now = performance.now();
      if (!pointer) effort = effortByKeys(effort, keys, control, Math.min(0.1, (now - last) / 1000));
      last = now;
      if (Math.abs(effort - said) > 0.002 || now - saidAt > sayAtLeastEveryMs) {
        live.say('Practise', id, effort);
        said = effort;
        saidAt = now;
      }
      draw();
    };
    const timer = setInterval(tick, sayEveryMs);
    const element = pad.current!;
    const move = (event: PointerEvent) => {
      if (!pointer) return;
      const box = element.getBoundingClientRect();
      effort = effortAt(event.clientY, box.top, box.height);
    };
    const down = (event: PointerEvent) => {
      pointer = true;
      element.setPointerCapture(event.pointerId);
      element.focus({ preventScroll: true });
      move(event);
      event.preventDefault();
    };
    const up = () => {
      pointer = false;
      effort = 0;
    };
    const press = (event: KeyboardEvent) => {
      if (!['ArrowUp', 'ArrowDown', ' '].includes(event.key)) return;
      if ((event.key === ' ' && control !== 'Pump') || isField(event.target)) return;
      event.preventDefault();
      keys.add(event.key);
      // a key that is held down is one stroke
      if (event.key === ' ' && !event.repeat) keys.add('pumped');
    };
    const release = (event: KeyboardEvent) => keys.delete(event.key);
    element.addEventListener('pointerdown', down);
    element.addEventListener('pointermove', move);
    element.addEventListener('pointerup', up);
    element.addEventListener('pointercancel', up);
    window.addEventListener('keydown', press);
    window.addEventListener('keyup', release);
    const stop = listen((frame) => {
      lever = frame.lever;
    });
    draw();
    return () => {
      clearInterval(timer);
      stop();
      element.removeEventListener('pointerdown', down);
      element.removeEventListener('pointermove', move);
      element.removeEventListener('pointerup', up);
      element.removeEventListener('pointercancel', up);
      window.removeEventListener('keydown', press);
      window.removeEventListener('keyup', release);
    };
  }, [id, control, starts, height, listen, units, view.frame.lever]);

  const mid = height * pivot.y;
  return (
    <Box
      ref={pad}
      role="slider"
      tabIndex={0}
      aria-label="Virtual lever"
      aria-orientation="vertical"
      aria-valuemin={0}
      aria-valuemax={100}
      aria-valuenow={starts * 100}
      aria-description={`${controlWords[control].hand} ${controlWords[control].keys}`}
      bg="panel"
      borderWidth="2px"
      borderColor="edge"
      borderRadius="small"
      height={`${height}px`}
      cursor="ns-resize"
      userSelect="none"
      style={{ touchAction: 'none' }}
    >
      <svg
        width="100%"
        height="100%"
        viewBox={`0 0 ${width} ${height}`}
        preserveAspectRatio="xMidYMid meet"
        aria-hidden="true"
      >
        <rect x={pivot.x - 15} y={mid} width={30} height={height - mid - 34} fill={ink('edge')} opacity="0.35" />
        <rect x={pivot.x - 26} y={height - 34} width={52} height={14} fill={ink('edge')} />
        <g ref={handle}>
          <rect x={pivot.x} y={mid - 6} width={arm} height={12} fill={ink('text')} />
          <rect x={pivot.x + arm - 34} y={mid - 12} width={62} height={24} rx={12} fill={ink('oxide')} />
        </g>
        <circle cx={pivot.x} cy={mid} r={13} fill={ink('panel')} stroke={ink('text')} strokeWidth="4" />
        <path ref={arrow} fill="none" stroke={ink('text')} strokeWidth="5" />
        <chakra.text x={12} y={30} fill={ink('text')} fontSize="15px" fontWeight={650}>
          Your hand
        </chakra.text>
        <chakra.text
          ref={force}
          x={12}
          y={60}
          fill={ink('text')}
          fontSize="28px"
          fontWeight={650}
          fontStretch={condensed}
        />
        <chakra.text ref={state} x={width - 10} y={height - 12} textAnchor="end" fill={ink('text')} fontSize="15px" />
      </svg>
    </Box>
  );
}
