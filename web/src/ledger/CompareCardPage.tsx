import { useQuery } from '@tanstack/react-query';
import { Navigate, useSearchParams } from 'react-router';
import type { Schemas } from '../shared/api/client';
import { CardPage, cardWidth } from '../shared/card/CardPage';
import { cardEdge, CardSheet, CardText } from '../shared/card/CardParts';
import { momentOf } from '../shared/clock';
import { Waiting } from '../shared/ui/elements';
import { useUnits } from '../shared/units/units';
import { comparisonOf, tooFewToCompare } from './comparison';
import { OverlayDrawing } from './Overlay';
import { letterOf } from './overlayLines';
import { readCompare } from './useCompareView';

const chartHeight = 400;
const rowPx = 20;
const nameRoom = 190;
const mostInTable = 8;
const mostLetters = 14;

/** Shots over each other on one sheet, with a table of what differs. */
export default function CompareCardPage() {
  const [params] = useSearchParams();
  const { ids, against, from, above, below } = readCompare(params);
  const { data: comparison, error } = useQuery(comparisonOf(ids));
  const units = useUnits();
  // the comparison says how shots are selected
  if (tooFewToCompare(ids)) return <Navigate to="/ledger/compare" replace />;
  if (!comparison) return <Waiting error={error} />;
  const { shots } = comparison;
  const names = shots.map(
    ({ shot }, i) =>
      `${letterOf(i)}  shot ${shot.id}, ${[momentOf(shot.pulledAt), shot.bag, shot.machine].filter(Boolean).join(', ')}`,
  );
  const chartTop = 74 + rowPx * names.length;
  const tableTop = chartTop + chartHeight + 30;
  const hasTable = shots.length <= mostInTable;
  const rows = hasTable ? comparison.differences : [];
  const height = tableTop + rowPx * (rows.length + (hasTable ? 1 : 0)) + 40;
  const column = (cardWidth - 2 * cardEdge - nameRoom) / Math.max(1, shots.length);
  const cell = (value: Schemas['ComparedValue'], of: Schemas['ComparedThing']) => {
    const { value: text } =
      value.number === null
        ? { value: units.sentence(value.text || '\u2013') }
        : units.quantity(value.number, of.unit, of.digits);
    const most = Math.max(mostLetters, Math.floor(column / 8));
    return text.length > most ? `${text.slice(0, most - 1)}\u2026` : text;
  };
  return (
    <CardPage
      title="Card of a comparison"
      back={{ to: `/ledger/compare?${params}`, word: 'Back to the comparison' }}
      fileName={`comparison-${ids.replaceAll(',', '-')}`}
      height={height}
      label={`Card of ${shots.length} shots`}
    >
      <CardSheet height={height} title={`${shots.length} shots compared`} lines={names} />
      <svg x={cardEdge - 12} y={chartTop} width={cardWidth - 2 * cardEdge + 24} height={chartHeight}>
        <OverlayDrawing
          shots={shots}
          against={against}
          from={from}
          above={above}
          below={below}
          ahead={null}
          width={cardWidth - 2 * cardEdge + 24}
          height={chartHeight}
        />
      </svg>
      {hasTable && (
        <>
          {shots.map((s, i) => (
            <CardText key={s.shot.id} x={cardEdge + nameRoom + column * (i + 1)} y={tableTop} strong anchor="end">
              {letterOf(i)}
            </CardText>
          ))}
          {rows.map((row, r) => (
            <g key={row.label}>
              <CardText x={cardEdge} y={tableTop + rowPx * (r + 1)} size={13} quiet>
                {[row.label, units.quantity(0, row.unit).unit].filter(Boolean).join(', ')}
              </CardText>
              {row.values.map((value, i) => (
                <CardText
                  key={i}
                  x={cardEdge + nameRoom + column * (i + 1)}
                  y={tableTop + rowPx * (r + 1)}
                  size={13}
                  anchor="end"
                >
                  {cell(value, row)}
                </CardText>
              ))}
            </g>
          ))}
        </>
      )}
    </CardPage>
  );
}
