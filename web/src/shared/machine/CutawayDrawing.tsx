import type { ReactNode } from 'react';
import type { Schemas } from '../api/client';
import { ink } from '../../theme/system';

type Cutaway = Schemas['Cutaway'];
type Family = Schemas['MachineFamily'];

interface Props {
  family: Family;
  cut: Cutaway;
  restricted?: boolean;
  height?: number;
  /** What it shows, for those who cannot see it. */
  label: string;
}

const wall = 4;
const line = { stroke: ink('text'), strokeWidth: 1.4, fill: 'none' } as const;
const metal = { fill: ink('edge'), stroke: ink('text'), strokeWidth: 1 } as const;
const spout = 8;

/**
 * A section through the mechanism, drawn to scale from the machine's own numbers: 1 unit is 1 mm. Water is blue-grey
 * hatching, the puck
 * is dotted, metal is solid. It shows how pressure is made, not what a machine looks like.
 */
export function CutawayDrawing({ family, cut, restricted, height = 260, label }: Props) {
  const parts = drawings[family](cut, restricted === true);
  const id = `${family}-${Math.round(cut.pistonMm * 10)}-${Math.round(cut.strokeMm * 10)}`;
  return (
    <svg
      viewBox="-110 -108 214 208"
      height={height}
      width="100%"
      style={{ maxWidth: height * 1.1, display: 'block', margin: '0 auto' }}
      role="img"
      aria-label={label}
    >
      <defs>
        <pattern id={`water-${id}`} width="5" height="5" patternUnits="userSpaceOnUse">
          <rect width="5" height="5" fill={ink('resistance')} opacity="0.14" />
          <line x1="0" y1="2.5" x2="5" y2="2.5" stroke={ink('resistance')} strokeWidth="0.9" opacity="0.8" />
        </pattern>
        <pattern id={`puck-${id}`} width="4" height="4" patternUnits="userSpaceOnUse">
          <rect width="4" height="4" fill={ink('text')} opacity="0.16" />
          <circle cx="1.2" cy="1.2" r="0.8" fill={ink('text')} />
          <circle cx="3.2" cy="3.1" r="0.7" fill={ink('text')} />
        </pattern>
      </defs>
      <g style={{ ['--water' as string]: `url(#water-${id})`, ['--puck' as string]: `url(#puck-${id})` }}>{parts}</g>
    </svg>
  );
}

const water = 'var(--water)';
const puck = 'var(--puck)';

function Box({ x, y, w, h, fill }: { x: number; y: number; w: number; h: number; fill: string }) {
  return (
    <rect
      x={x}
      y={y}
      width={Math.max(0, w)}
      height={Math.max(0, h)}
      style={{ fill }}
      stroke={ink('text')}
      strokeWidth="0.6"
    />
  );
}

/** Two walls with a bore between them. */
const Cylinder = ({ bore, top, bottom }: { bore: number; top: number; bottom: number }) => (
  <>
    <rect x={-bore / 2 - wall} y={top} width={wall} height={bottom - top} {...metal} />
    <rect x={bore / 2} y={top} width={wall} height={bottom - top} {...metal} />
  </>
);

/** A piston with its two seals, lower face at y, and its rod up to rodTop. */
const Piston = ({ bore, y, rodTop }: { bore: number; y: number; rodTop: number }) => (
  <>
    <rect x="-3" y={rodTop} width="6" height={Math.max(0, y - 12 - rodTop)} {...metal} />
    <rect x={-bore / 2 + 0.8} y={y - 12} width={bore - 1.6} height="12" {...metal} />
    <line x1={-bore / 2} x2={bore / 2} y1={y - 9} y2={y - 9} stroke={ink('panel')} strokeWidth="1.6" />
    <line x1={-bore / 2} x2={bore / 2} y1={y - 3.5} y2={y - 3.5} stroke={ink('panel')} strokeWidth="1.6" />
  </>
);

/** Basket with its puck and screen under a chamber, holder and spout; top is the screen's plane. */
function Basket({
  cut,
  top,
  restricted,
  handle = true,
  water: above = 0,
}: {
  cut: Cutaway;
  top: number;
  restricted?: boolean;
  handle?: boolean;
  water?: number;
}) {
  const r = cut.basketMm / 2;
  const depth = cut.basketDepthMm;
  const bottom = top + depth;
  return (
    <>
      {above > 0 && <Box x={-r} y={top + depth - cut.puckMm - above} w={2 * r} h={above} fill={water} />}
      <Box x={-r} y={bottom - cut.puckMm} w={2 * r} h={cut.puckMm} fill={puck} />
      <path
        d={`M${-r - 4} ${top} h4 V${bottom} ${restricted ? `H-1.6 m3.2 0 H${r}` : `h${2 * r}`} V${top} h4`}
        {...line}
        strokeWidth="2"
      />
      {!restricted && (
        <path
          d={`M${-r + 3} ${bottom + 1.6} H${r - 3}`}
          stroke={ink('panel')}
          strokeWidth="1.6"
          strokeDasharray="1.2 2.2"
        />
      )}
      <line
        x1={-r}
        x2={r}
        y1={bottom - cut.puckMm - 1.5}
        y2={bottom - cut.puckMm - 1.5}
        stroke={ink('text')}
        strokeWidth="1.4"
        strokeDasharray="2 1.6"
      />
      <path
        d={`M${-r - 7} ${top + 2} V${bottom + 5} H-5 v${spout} M${r + 7} ${top + 2} V${bottom + 5} H5 v${spout}`}
        {...line}
      />
      {handle && <rect x={r + 7} y={top + 7} width="44" height="8" rx="4" {...metal} />}
      {restricted && (
        <path d={`M0 ${bottom - 3} v11 m-2.4 -4 l2.4 4 l2.4 -4`} stroke={ink('oxide')} strokeWidth="1.6" fill="none" />
      )}
    </>
  );
}

/** A lever on a fork: pivot, short arm to the rod, long arm to the hand. */
function Arm({
  x = 0,
  y,
  ratio,
  side = 1,
  up = 34,
}: {
  x?: number;
  y: number;
  ratio: number;
  side?: 1 | -1;
  up?: number;
}) {
  const short = 14;
  const long = Math.min(92, Math.max(56, short * Math.min(ratio, 8) * 0.82));
  const pivotX = x - side * short;
  return (
    <>
      <path d={`M${pivotX} ${y} L${pivotX} ${y + 16} M${pivotX - 6} ${y + 16} h12`} {...line} strokeWidth="2" />
      <line
        x1={pivotX}
        y1={y}
        x2={pivotX + side * long}
        y2={y - up}
        stroke={ink('text')}
        strokeWidth="3.4"
        strokeLinecap="round"
      />
      <circle cx={pivotX} cy={y} r="3.6" fill={ink('panel')} stroke={ink('text')} strokeWidth="1.6" />
      <circle cx={x} cy={y - (up * short) / long} r="2.4" fill={ink('text')} />
      <path
        d={`M${pivotX + side * long} ${y - up + 5} v16 m-3.4 -5 l3.4 5 l3.4 -5`}
        stroke={ink('oxide')}
        strokeWidth="2"
        fill="none"
      />
    </>
  );
}

/** A boiler at the left with water, element and sight glass, joined to the group by a flange. */
function BoilerAt({ filled, right, y, w, h }: { filled: number; right: number; y: number; w: number; h: number }) {
  const x = right - w;
  const level = y + 4 + (h - 8) * (1 - filled);
  return (
    <>
      <rect x={x} y={y} width={w} height={h} rx="8" {...line} strokeWidth="2.4" />
      <Box x={x + 3} y={level} w={w - 6} h={y + h - 4 - level} fill={water} />
      <path
        d={
          `M${x + 6} ${y + h - 10} ` +
          `${Array.from({ length: 6 }, () => `l${(w - 14) / 12} -5 l${(w - 14) / 12} 5`).join(' ')}`
        }
        stroke={ink('oxide')}
        strokeWidth="1.8"
        fill="none"
      />
      <path d={`M${x - 5} ${y + 10} V${y + h - 10} M${x - 5} ${y + 10} h5 M${x - 5} ${y + h - 10} h5`} {...line} />
      <circle cx={x - 5} cy={level} r="1.8" fill={ink('text')} />
    </>
  );
}

const Coil = ({ bore, top, bottom }: { bore: number; top: number; bottom: number }) => {
  const turns = 6;
  const step = (bottom - top) / (turns * 2);
  const half = bore / 2 - 4;
  return (
    <path
      d={
        `M${-half} ${top} ` +
        `${Array.from({ length: turns * 2 }, (_, i) => `L${i % 2 === 0 ? half : -half} ${top + (i + 1) * step}`).join(' ')}`
      }
      stroke={ink('oxide')}
      strokeWidth="3"
      strokeLinejoin="round"
      fill="none"
    />
  );
};

/** Screen's plane of the puck, where piston and basket meet. */
const floor = 56;

const drawings: Record<Family, (cut: Cutaway, restricted: boolean) => ReactNode> = {
  BoilerDirect: (cut) => (
    <>
      <BoilerAt filled={cut.boilerFilledShare} right={-cut.pistonMm / 2 - 12} y={-30} w={58} h={84} />
      <path
        d={`M${-cut.pistonMm / 2 - 12} ${floor - 26} h8 M${-cut.pistonMm / 2 - 12} ${floor - 18} h8`}
        {...line}
        strokeWidth="2"
      />
      <Cylinder bore={cut.pistonMm} top={floor - cut.strokeMm - 34} bottom={floor} />
      <Box x={-cut.pistonMm / 2} y={floor - cut.strokeMm} w={cut.pistonMm} h={cut.strokeMm} fill={water} />
      <Piston bore={cut.pistonMm} y={floor - cut.strokeMm} rodTop={-66} />
      <Arm y={-62} ratio={cut.armRatio} />
      <Basket cut={cut} top={floor} />
    </>
  ),
  BoilerSpring: (cut) => (
    <>
      <BoilerAt filled={cut.boilerFilledShare} right={-cut.pistonMm / 2 - 12} y={-52} w={68} h={110} />
      <path
        d={`M${-cut.pistonMm / 2 - 12} ${floor - 30} h8 M${-cut.pistonMm / 2 - 12} ${floor - 20} h8`}
        {...line}
        strokeWidth="2"
      />
      <Cylinder bore={cut.pistonMm} top={-70} bottom={floor} />
      <Coil bore={cut.pistonMm} top={-64} bottom={floor - cut.strokeMm - 14} />
      <Box x={-cut.pistonMm / 2} y={floor - cut.strokeMm} w={cut.pistonMm} h={cut.strokeMm} fill={water} />
      <Piston bore={cut.pistonMm} y={floor - cut.strokeMm} rodTop={-84} />
      <Arm y={-84} ratio={cut.armRatio} up={14} />
      <Basket cut={cut} top={floor} />
    </>
  ),
  PortableLever: (cut, restricted) => (
    <>
      <Cylinder bore={cut.pistonMm} top={floor - cut.strokeMm - 34} bottom={floor} />
      <Box x={-cut.pistonMm / 2} y={floor - cut.strokeMm} w={cut.pistonMm} h={cut.strokeMm} fill={water} />
      <path d={`M${-cut.pistonMm / 2 - wall - 2} ${floor - cut.strokeMm} h-10`} {...line} strokeDasharray="2 2" />
      <Piston bore={cut.pistonMm} y={floor - cut.strokeMm} rodTop={-56} />
      <Arm y={-52} ratio={cut.armRatio} />
      <path
        d={`M${-cut.pistonMm / 2 - 10} ${floor - 12} h6 M${cut.pistonMm / 2 + 4} ${floor - 12} h6`}
        {...line}
        strokeWidth="2"
      />
      <Basket cut={cut} top={floor} restricted={restricted} />
    </>
  ),
  HeatedGroup: (cut) => (
    <>
      <Cylinder bore={cut.pistonMm} top={floor - cut.strokeMm - 34} bottom={floor} />
      {[-1, 1].map((side) => (
        <path
          key={side}
          d={
            `M${side * (cut.pistonMm / 2 + 9)} ${floor - 44} ` +
            `${Array.from({ length: 5 }, (_, i) => `l${i % 2 ? -5 : 5} 7`).join(' ')}`
          }
          stroke={ink('oxide')}
          strokeWidth="1.8"
          fill="none"
        />
      ))}
      <Box x={-cut.pistonMm / 2} y={floor - cut.strokeMm} w={cut.pistonMm} h={cut.strokeMm} fill={water} />
      <Piston bore={cut.pistonMm} y={floor - cut.strokeMm} rodTop={-58} />
      <Arm y={-54} ratio={cut.armRatio} />
      <Basket cut={cut} top={floor} />
    </>
  ),
  TwinArmBasket: (cut) => {
    const above = Math.max(0, cut.basketDepthMm - cut.puckMm - 2.5);
    const top = floor - above + 8;
    return (
      <>
        <Piston bore={cut.basketMm} y={top + 1} rodTop={-62} />
        <Arms y={-58} rodTop={-62} />
        <Basket cut={cut} top={top} handle={false} water={above} />
      </>
    );
  },
  TwinArmChamber: (cut) => (
    <>
      <Cylinder bore={cut.pistonMm} top={floor - cut.strokeMm - 52} bottom={floor} />
      <Box x={-cut.pistonMm / 2} y={floor - cut.strokeMm - 42} w={cut.pistonMm} h={29} fill={water} />
      <Box x={-cut.pistonMm / 2} y={floor - cut.strokeMm} w={cut.pistonMm} h={cut.strokeMm} fill={water} />
      <Piston bore={cut.pistonMm} y={floor - cut.strokeMm} rodTop={-70} />
      <Arms y={-66} rodTop={-70} />
      <Basket cut={cut} top={floor} />
    </>
  ),
  SteppedLever: (cut) => (
    <>
      <Cylinder bore={cut.pistonMm} top={floor - cut.strokeMm - 16} bottom={floor} />
      <Box x={-cut.pistonMm / 2} y={floor - cut.strokeMm} w={cut.pistonMm} h={cut.strokeMm} fill={water} />
      <Piston bore={cut.pistonMm} y={floor - cut.strokeMm} rodTop={-88} />
      {Array.from({ length: 7 }, (_, i) => (
        <path
          key={i}
          d={`M3 ${-84 + i * 7} l6 3.5 l-6 3.5`}
          stroke={ink('text')}
          strokeWidth="1.4"
          fill={ink('edge')}
        />
      ))}
      <path d="M20 -58 l-10 -4 m10 4 l-6 8" {...line} strokeWidth="2.4" />
      <line x1="20" y1="-58" x2="86" y2="-84" stroke={ink('text')} strokeWidth="3.4" strokeLinecap="round" />
      <circle cx="20" cy="-58" r="3.4" fill={ink('panel')} stroke={ink('text')} strokeWidth="1.6" />
      <path d="M86 -78 v18 m-3.4 -5 l3.4 5 l3.4 -5" stroke={ink('oxide')} strokeWidth="2" fill="none" />
      <Basket cut={cut} top={floor} />
    </>
  ),
  HandPump: (cut) => {
    const r = cut.basketMm / 2;
    const h = Math.min(70, cut.chamberMm);
    const bore = cut.pistonMm;
    return (
      <>
        <rect
          x={-r - wall}
          y={floor - h - 10}
          width={2 * (r + wall)}
          height={h + 10}
          rx="6"
          {...line}
          strokeWidth="2.4"
        />
        <Box x={-r} y={floor - h} w={2 * r} h={h} fill={water} />
        <rect x={r + 10} y={floor - 58} width={bore + 6} height="50" {...line} strokeWidth="2" />
        <rect x={r + 13} y={floor - 40} width={bore} height="8" {...metal} />
        <rect x={r + 11 + bore / 2} y={floor - 82} width="4" height="42" {...metal} />
        <rect x={r + 3 + bore / 2} y={floor - 88} width="20" height="7" rx="3" {...metal} />
        <path
          d={`M${r + 13 + bore / 2} ${floor - 104} v12 m-3.4 -4 l3.4 4 l3.4 -4`}
          stroke={ink('oxide')}
          strokeWidth="2"
          fill="none"
        />
        <path d={`M${r + 10} ${floor - 14} H${r + wall} M${r + 10} ${floor - 8} v6 H4`} {...line} />
        <Basket cut={cut} top={floor} handle={false} />
      </>
    );
  },
};

/** Two arms, one to each hand, linked to the rod between them. */
function Arms({ y, rodTop }: { y: number; rodTop: number }) {
  return (
    <>
      {([-1, 1] as const).map((side) => (
        <g key={side}>
          <line
            x1={side * 20}
            y1={y + 10}
            x2={side * 96}
            y2={y - 26}
            stroke={ink('text')}
            strokeWidth="3.4"
            strokeLinecap="round"
          />
          <line x1={side * 20} y1={y + 10} x2="0" y2={rodTop + 2} stroke={ink('text')} strokeWidth="2.4" />
          <path d={`M${side * 20} ${y + 10} v14 m-5 0 h10`} {...line} strokeWidth="2" />
          <circle cx={side * 20} cy={y + 10} r="3.4" fill={ink('panel')} stroke={ink('text')} strokeWidth="1.6" />
          <path
            d={`M${side * 96} ${y - 20} v18 m-3.4 -5 l3.4 5 l3.4 -5`}
            stroke={ink('oxide')}
            strokeWidth="2"
            fill="none"
          />
        </g>
      ))}
    </>
  );
}
