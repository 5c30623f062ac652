import { dayOf, timeOfDay } from '../shared/clock';
import { chakra } from '@chakra-ui/react';
import { memo, startTransition, useEffect, useState, type ReactNode } from 'react';
import { Link } from 'react-router';
import type { Schemas } from '../shared/api/client';
import { SmallTrace } from '../shared/plot/SmallTrace';
import { number, useUnits, type Units } from '../shared/units/units';
import { Tick } from '../shared/ui/Tick';
import { usualColumns, type Column } from './columns';
import type { Order } from './useLedgerView';
import { ownText } from '../shared/units/decimals';
import { condensed } from '../theme/type';

/** One set of styles for the whole table: forty rows styled cell by cell would be felt when the page is opened. */
const ShotsTable = chakra('table', {
  base: {
    width: '100%',
    borderCollapse: 'collapse',
    tableLayout: 'auto',
    '& th, & td': { px: { base: '1', sm: '2' }, py: '1.5', textAlign: 'start', verticalAlign: 'middle' },
    '& th': { fontSize: '13px', color: 'quiet', fontWeight: 400, whiteSpace: 'nowrap', lineHeight: 1.15 },
    '& th button': {
      font: 'inherit',
      color: 'inherit',
      textAlign: 'inherit',
      minHeight: '44px',
      cursor: 'pointer',
      textDecoration: 'underline',
      textDecorationStyle: 'dotted',
      textUnderlineOffset: '3px',
    },
    '& th[aria-sort] button': { color: 'text', fontWeight: 650 },
    '& tbody tr': { borderTopWidth: '1px', borderColor: 'hairline', cursor: 'pointer', _hover: { bg: 'page' } },
    '& .end': { textAlign: 'end' },
    '& .wide': { display: { base: 'none', lg: 'table-cell' } },
    '& .middle': { display: { base: 'none', md: 'table-cell' } },
    '& .narrow': { display: { base: 'block', md: 'none' } },
    '& .line': { whiteSpace: { base: 'normal', sm: 'nowrap' } },
    '& svg.trace': { width: { base: '56px', sm: '96px' } },
    '& .small': { fontSize: '13px', color: 'quiet', lineHeight: 1.25 },
    '& .taste': { maxWidth: '190px' },
    '& .taste .small': { overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' },
    '& a': { fontWeight: 650, textDecoration: 'underline', textUnderlineOffset: '3px' },
    '& b': {
      fontStretch: condensed,
      fontWeight: 650,
      fontVariantNumeric: 'tabular-nums',
      fontFeatureSettings: '"tnum"',
      whiteSpace: 'nowrap',
    },
  },
});

const time = (iso: string) => timeOfDay(Date.parse(iso));

interface Shown {
  /** What stands over it, in a line or two. */
  head: (units: Units) => ReactNode;
  cell: (shot: Schemas['ShotLine'], units: Units) => ReactNode;
  order?: Order;
  /** Where the numbers stand, and from which width on it is shown while nobody chose the columns. */
  className?: string;
}

const imported = (s: Schemas['ShotLine']) => (s.source === 'Imported' ? 'imported' : '');

const twoLines = (name: string, unit: string) => (
  <>
    {name}
    <br />
    {unit}
  </>
);

const shown: Record<Column, Shown> = {
  Trace: {
    head: () => 'Trace',
    cell: (s) => (
      <>
        <SmallTrace pressure={s.smallPressure} weight={s.smallWeight} width={96} height={42} />
        <div className="small narrow">{[s.bag || 'beans not noted', imported(s)].filter(Boolean).join(', ')}</div>
      </>
    ),
  },
  Coffee: {
    head: () => 'Coffee and machine',
    className: 'middle',
    cell: (s) => (
      <>
        <div>{s.bag || 'beans not noted'}</div>
        <div className="small">{[s.machine, s.brewer, imported(s)].filter(Boolean).join(', ')}</div>
      </>
    ),
  },
  Grind: {
    head: () => 'Grind',
    order: 'Grind',
    className: 'wide line',
    cell: (s) => (
      <>
        <b>{s.grindSetting === null ? '\u2013' : ownText(s.grindSetting)}</b>{' '}
        <span className="small">{s.grindSetting !== null ? s.scaleUnit : ''}</span>
      </>
    ),
  },
  InOut: {
    head: () => twoLines('In, out', 'g'),
    order: 'Cup',
    className: 'end line',
    cell: (s) => (
      <b>
        {number(s.doseGrams, 1)}, {number(s.measures.cupGrams, 1)}
      </b>
    ),
  },
  Ratio: {
    head: () => twoLines('Ratio', '1 :'),
    className: 'end middle',
    cell: (s) => <b>{number(s.measures.ratio, 2)}</b>,
  },
  Time: {
    head: () => twoLines('Time', 's'),
    order: 'Time',
    className: 'end',
    cell: (s) => <b>{number(s.measures.secondsFromPressure, 0)}</b>,
  },
  Drops: {
    head: () => twoLines('Drops', 's'),
    className: 'end wide',
    cell: (s) => <b>{number(s.measures.secondsToDrops, 0)}</b>,
  },
  Peak: {
    head: (units) => twoLines('Peak', units.pressureUnit),
    className: 'end wide',
    cell: (s, units) => <b>{units.pressure(s.measures.peakBar, 1).value}</b>,
  },
  Flow: {
    head: () => twoLines('Flow', 'g/s'),
    className: 'end wide',
    cell: (s) => <b>{number(s.measures.meanFlowGramsPerS, 2)}</b>,
  },
  R10: {
    head: (units) => twoLines('R10', units.resistance(0).unit),
    order: 'R10',
    className: 'end middle',
    cell: (s, units) => <b>{units.resistance(s.measures.r10).value}</b>,
  },
  Taste: {
    head: () => 'Taste',
    order: 'Liking',
    className: 'middle taste',
    cell: (s) => (
      <>
        <div>{s.taste.liking !== null ? `${s.taste.liking} of 5` : 'not tasted'}</div>
        <div className="small">{s.taste.words}</div>
      </>
    ),
  },
  Plan: { head: () => 'Plan', cell: (s) => s.plan },
  Roaster: { head: () => 'Roaster', cell: (s) => s.roaster || '\u2013' },
  Who: { head: () => 'Who', cell: (s) => s.brewer || '\u2013' },
  Water: {
    head: (units) => twoLines('Water', units.temperature(0).unit),
    className: 'end',
    cell: (s, units) => <b>{units.temperature(s.waterC, 0).value}</b>,
  },
  Mean: {
    head: (units) => twoLines('Mean', units.pressureUnit),
    className: 'end',
    cell: (s, units) => <b>{units.pressure(s.measures.meanBar, 1).value}</b>,
  },
  Work: {
    head: () => twoLines('Work', 'J'),
    className: 'end',
    cell: (s) => <b>{number(s.measures.workJoules, 0)}</b>,
  },
};

/** Columns that somebody chose are there on every screen. */
const classOf = (column: Column, chosen: boolean) => {
  const name = shown[column].className ?? '';
  return chosen ? name.replace(/\b(wide|middle)\b/g, '').trim() : name;
};

interface Props {
  shots: readonly Schemas['ShotLine'][];
  columns: readonly Column[];
  pinned: readonly number[];
  pin: (id: number) => void;
  open: (id: number) => void;
  order: Order;
  ascending: boolean;
  sort: (by: Order) => void;
}

/** Lines that are laid out at once: what most screens show; a tall one has the rest a frame later. */
const atOnce = 8;

/** Height of a line, px: room is kept for those that are not laid out yet, so that nothing jumps. */
const lineHeight = 67;

/** How many lines are there by now: a few at first, and a few more after each painting. */
function useGrowing(shots: Props['shots']): number {
  const [grown, setGrown] = useState({ shots, count: atOnce });
  const count = grown.shots === shots ? grown.count : atOnce;
  useEffect(() => {
    if (count >= shots.length) return;
    const frame = requestAnimationFrame(() => startTransition(() => setGrown({ shots, count: count + atOnce })));
    return () => cancelAnimationFrame(frame);
  }, [shots, count]);
  return Math.min(count, shots.length);
}

/** The shots of a page of the ledger. */
export function ShotTable({ shots, columns, pinned, pin, open, ...sorting }: Props) {
  const units = useUnits();
  const count = useGrowing(shots);
  const chosen = columns.join() !== usualColumns.join();
  return (
    <ShotsTable>
      <thead>
        <tr>
          <th scope="col">
            <chakra.span srOnly>Select</chakra.span>
          </th>
          <SortHead {...sorting} by="Date">
            Shot
          </SortHead>
          {columns.map((column) => {
            const { head, order } = shown[column];
            const className = classOf(column, chosen);
            return order ? (
              <SortHead key={column} {...sorting} by={order} className={className}>
                {head(units)}
              </SortHead>
            ) : (
              <th key={column} scope="col" className={className}>
                {head(units)}
              </th>
            );
          })}
        </tr>
      </thead>
      <tbody>
        {shots.slice(0, count).map((s) => (
          <ShotRow
            key={s.id}
            shot={s}
            columns={columns}
            chosen={chosen}
            pinned={pinned.includes(s.id)}
            pin={pin}
            open={open}
          />
        ))}
        {count < shots.length && (
          <tr aria-hidden="true">
            <td height={(shots.length - count) * lineHeight} />
          </tr>
        )}
      </tbody>
    </ShotsTable>
  );
}

interface SortProps {
  by: Order;
  order: Order;
  ascending: boolean;
  sort: (by: Order) => void;
  className?: string;
  children: ReactNode;
}

/** A column's name that orders by it, and says which way it is ordered. */
function SortHead({ by, order, ascending, sort, className, children }: SortProps) {
  const here = by === order;
  return (
    <th scope="col" className={className} aria-sort={here ? (ascending ? 'ascending' : 'descending') : undefined}>
      <button type="button" onClick={() => sort(by)}>
        {children} <span aria-hidden="true">{here ? (ascending ? '\u25B2' : '\u25BC') : ''}</span>
      </button>
    </th>
  );
}

interface RowProps {
  shot: Schemas['ShotLine'];
  columns: readonly Column[];
  chosen: boolean;
  pinned: boolean;
  pin: (id: number) => void;
  open: (id: number) => void;
}

/** Drawn again only when it changes or is ticked. */
const ShotRow = memo(function ShotRow({ shot: s, columns, chosen, pinned, pin, open }: RowProps) {
  const units = useUnits();
  return (
    <tr
      onClick={(e) => {
        if (!(e.target as HTMLElement).closest('a, input, label')) open(s.id);
      }}
    >
      <td>
        <Tick checked={pinned} onChange={() => pin(s.id)} label={`Compare shot ${s.id}`} />
      </td>
      <td className="line">
        <Link to={`/taste/${s.id}`}>{s.id}</Link>
        <div className="small">
          {dayOf(s.pulledAt)}
          <br />
          {time(s.pulledAt)}
        </div>
      </td>
      {columns.map((column) => (
        <td key={column} className={classOf(column, chosen)}>
          {shown[column].cell(s, units)}
        </td>
      ))}
    </tr>
  );
});
