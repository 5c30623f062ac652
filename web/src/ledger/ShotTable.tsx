import { dayOf, timeOfDay } from '../shared/clock';
import { chakra } from '@chakra-ui/react';
import { memo, type ReactNode } from 'react';
import { Link } from 'react-router';
import type { Schemas } from '../shared/api/client';
import { SmallTrace } from '../shared/plot/SmallTrace';
import { number, useUnits } from '../shared/units/units';
import { Tick } from '../shared/ui/Tick';
import type { Order } from './useLedgerView';

/** One set of styles for the whole table: forty rows styled cell by cell would be felt when the page is opened. */
const ShotsTable = chakra('table', {
  base: {
    width: '100%',
    borderCollapse: 'collapse',
    tableLayout: 'auto',
    '& th, & td': { px: { base: '1', sm: '2' }, py: '1.5', textAlign: 'start', verticalAlign: 'middle' },
    '& th': { fontSize: '13px', color: 'quiet', fontWeight: 500, whiteSpace: 'nowrap', lineHeight: 1.15 },
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
      fontStretch: '78%',
      fontWeight: 600,
      fontVariantNumeric: 'tabular-nums',
      fontFeatureSettings: '"tnum"',
      whiteSpace: 'nowrap',
    },
  },
});

const time = (iso: string) => timeOfDay(Date.parse(iso));

interface Props {
  shots: readonly Schemas['ShotLine'][];
  pinned: readonly number[];
  pin: (id: number) => void;
  open: (id: number) => void;
  order: Order;
  ascending: boolean;
  sort: (by: Order) => void;
}

/** The shots of a page of the ledger. */
export function ShotTable({ shots, pinned, pin, open, ...sorting }: Props) {
  const units = useUnits();
  return (
    <ShotsTable>
      <thead>
        <tr>
          <th scope="col">
            <chakra.span srOnly>Compare</chakra.span>
          </th>
          <SortHead {...sorting} by="Date">
            Shot
          </SortHead>
          <th scope="col">Trace</th>
          <th scope="col" className="middle">
            Coffee and machine
          </th>
          <SortHead {...sorting} by="Grind" className="wide">
            Grind
          </SortHead>
          <SortHead {...sorting} by="Cup" className="end">
            In, out
            <br />g
          </SortHead>
          <th scope="col" className="end middle">
            Ratio
            <br />1 :
          </th>
          <SortHead {...sorting} by="Time" className="end">
            Time
            <br />s
          </SortHead>
          <th scope="col" className="end wide">
            Drops
            <br />s
          </th>
          <th scope="col" className="end wide">
            Peak
            <br />
            {units.pressureUnit}
          </th>
          <th scope="col" className="end wide">
            Flow
            <br />
            g/s
          </th>
          <SortHead {...sorting} by="R10" className="end middle">
            R10
            <br />
            {units.resistance(0).unit}
          </SortHead>
          <SortHead {...sorting} by="Liking" className="middle">
            Taste
          </SortHead>
        </tr>
      </thead>
      <tbody>
        {shots.map((s) => (
          <ShotRow key={s.id} shot={s} pinned={pinned.includes(s.id)} pin={pin} open={open} />
        ))}
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
  pinned: boolean;
  pin: (id: number) => void;
  open: (id: number) => void;
}

/** Drawn anew only when it changes or is ticked. */
const ShotRow = memo(function ShotRow({ shot: s, pinned, pin, open }: RowProps) {
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
      <td>
        <SmallTrace pressure={s.smallPressure} weight={s.smallWeight} width={96} height={42} />
        <div className="small narrow">
          {[s.bag || 'beans not noted', s.source === 'Imported' ? 'imported' : ''].filter(Boolean).join(', ')}
        </div>
      </td>
      <td className="middle">
        <div>{s.bag || 'beans not noted'}</div>
        <div className="small">
          {[s.machine, s.brewer, s.source === 'Imported' ? 'imported' : ''].filter(Boolean).join(', ')}
        </div>
      </td>
      <td className="wide line">
        <b>{s.grindSetting ?? '\u2013'}</b> <span className="small">{s.grindSetting !== null ? s.scaleUnit : ''}</span>
      </td>
      <td className="end line">
        <b>
          {number(s.doseGrams, 1)}, {number(s.measures.cupGrams, 1)}
        </b>
      </td>
      <td className="end middle">
        <b>{number(s.measures.ratio, 2)}</b>
      </td>
      <td className="end">
        <b>{number(s.measures.secondsFromPressure, 0)}</b>
      </td>
      <td className="end wide">
        <b>{number(s.measures.secondsToDrops, 0)}</b>
      </td>
      <td className="end wide">
        <b>{units.pressure(s.measures.peakBar, 1).value}</b>
      </td>
      <td className="end wide">
        <b>{number(s.measures.meanFlowGramsPerS, 2)}</b>
      </td>
      <td className="end middle">
        <b>{units.resistance(s.measures.r10).value}</b>
      </td>
      <td className="middle taste">
        <div>{s.taste.liking !== null ? `${s.taste.liking} of 5` : 'not tasted'}</div>
        <div className="small">{s.taste.words}</div>
      </td>
    </tr>
  );
});
