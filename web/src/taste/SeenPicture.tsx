import { Box, chakra, Flex } from '@chakra-ui/react';
import type { Schemas } from '../shared/api/client';
import { Check } from '../shared/ui/Check';
import { ink } from '../theme/system';

type Seen = NonNullable<Schemas['TasteView']['seen']>[number];

interface Spot {
  seen: Seen;
  word: string;
  /** Where it is tapped, and where its word stands. */
  x: number;
  y: number;
  wordX: number;
  wordY: number;
  draw: React.ReactNode;
}

const rim = 56;
const [basketX, puckX, middleY] = [76, 254, 74];

const basket: Spot[] = [
  {
    seen: 'BaldSpot',
    word: 'bald spot',
    x: 50,
    y: 52,
    wordX: 50,
    wordY: 78,
    draw: <ellipse cx={50} cy={52} rx={15} ry={11} />,
  },
  {
    seen: 'Spurt',
    word: 'spurt',
    x: 104,
    y: 50,
    wordX: 104,
    wordY: 76,
    draw: <path d="M98 58 L118 36 M104 60 L126 46" />,
  },
  {
    seen: 'PaleStreak',
    word: 'pale streak',
    x: 76,
    y: 98,
    wordX: 76,
    wordY: 120,
    draw: <path d="M62 104 C68 92 84 106 92 92" strokeWidth={6} />,
  },
  {
    seen: 'Lean',
    word: 'stream leans',
    x: 76,
    y: 152,
    wordX: 76,
    wordY: 178,
    draw: <path d="M70 136 C70 150 84 152 92 166" strokeWidth={4} />,
  },
];
const puck: Spot[] = [
  {
    seen: 'Crack',
    word: 'crack at the wall',
    x: 254,
    y: 34,
    wordX: 254,
    wordY: 54,
    draw: <path d="M220 36 C236 22 272 22 288 36" strokeWidth={4} />,
  },
  { seen: 'Hole', word: 'hole', x: 254, y: 76, wordX: 254, wordY: 98, draw: <circle cx={254} cy={76} r={8} /> },
  {
    seen: 'Soup',
    word: 'soup',
    x: 254,
    y: 152,
    wordX: 254,
    wordY: 178,
    draw: <path d="M214 148 q10 -8 20 0 t20 0 t20 0 t20 0 M220 158 q10 -8 20 0 t20 0 t20 0" strokeWidth={3} />,
  },
];
const felt: [Seen, string][] = [
  ['SoftLever', 'Lever felt springy'],
  ['WaterPastPiston', 'Water past the piston'],
];

const Mark = chakra('g', {
  base: {
    cursor: 'pointer',
    fill: 'none',
    stroke: 'edge',
    strokeDasharray: '3 3',
    '& text': { fill: 'quiet', stroke: 'none', fontSize: '12px' },
    '&[aria-checked=true]': { stroke: 'oxide', strokeDasharray: 'none' },
    '&[aria-checked=true] text': { fill: 'text', fontWeight: 650 },
    _focusVisible: { outline: '2px solid', outlineColor: 'text' },
  },
});

interface Props {
  /** Null where nobody has looked. */
  seen: readonly Seen[] | null;
  onChange: (seen: Seen[] | null) => void;
}

/** The basket from below and the spent puck, on which one taps what was seen. */
export function SeenPicture({ seen, onChange }: Props) {
  const has = (what: Seen) => seen?.includes(what) ?? false;
  const toggle = (what: Seen) => onChange(has(what) ? (seen ?? []).filter((s) => s !== what) : [...(seen ?? []), what]);
  return (
    <Box>
      <chakra.svg viewBox="0 0 330 188" width="100%" maxWidth="420px" role="group" aria-label="What was seen">
        <circle cx={basketX} cy={middleY} r={rim} fill="none" stroke={ink('text')} strokeWidth={1.5} />
        <circle cx={puckX} cy={middleY} r={rim} fill={ink('hairline')} stroke={ink('text')} strokeWidth={1.5} />
        {[...basket, ...puck].map((spot) => (
          <Mark
            key={spot.seen}
            role="checkbox"
            aria-checked={has(spot.seen)}
            aria-label={spot.word}
            tabIndex={0}
            onClick={() => toggle(spot.seen)}
            onKeyDown={(e: React.KeyboardEvent) => {
              if (e.key !== ' ' && e.key !== 'Enter') return;
              e.preventDefault();
              e.stopPropagation();
              toggle(spot.seen);
            }}
          >
            <rect x={spot.x - 24} y={spot.y - 22} width={48} height={48} fill="transparent" stroke="none" />
            <g strokeWidth={2}>{spot.draw}</g>
            <text x={spot.wordX} y={spot.wordY} textAnchor="middle">
              {spot.word}
            </text>
          </Mark>
        ))}
        <chakra.text x={basketX} y={12} textAnchor="middle" fill={ink('quiet')} fontSize="12px">
          basket from below
        </chakra.text>
        <chakra.text x={puckX} y={12} textAnchor="middle" fill={ink('quiet')} fontSize="12px">
          spent puck
        </chakra.text>
      </chakra.svg>
      <Flex gap="4" rowGap="1" wrap="wrap" mt="1">
        {felt.map(([what, word]) => (
          <Check key={what} checked={has(what)} onChange={() => toggle(what)}>
            {word}
          </Check>
        ))}
        <Check checked={seen?.length === 0} onChange={(nothing) => onChange(nothing ? [] : null)}>
          Nothing to see
        </Check>
      </Flex>
    </Box>
  );
}
