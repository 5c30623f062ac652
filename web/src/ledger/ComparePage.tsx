import { Box, chakra, Flex } from '@chakra-ui/react';
import { useQuery } from '@tanstack/react-query';
import { useDeferredValue, useState, type ReactNode } from 'react';
import { Link } from 'react-router';
import type { Schemas } from '../shared/api/client';
import { TextLink } from '../shared/ui/TextLink';
import { EmptyState } from '../shared/ui/EmptyState';
import { Button, Field, H2, PageTitle, Panel, Select, Waiting } from '../shared/ui/elements';
import { acrossThePage, useWidth } from '../shared/plot/useSize';
import { useUnits } from '../shared/units/units';
import { ink } from '../theme/system';
import { comparisonOf, tooFewToCompare } from './comparison';
import { Overlay } from './Overlay';
import { dashOf, froms, letterOf, shown } from './overlayLines';
import { SideBySide } from './SideBySide';
import { useCompareView } from './useCompareView';
import { WhyDiffer } from './WhyDiffer';
import { condensed } from '../theme/type';

const mostCompared = 20;

// one styled element for the whole table: twenty shots have some hundred cells
const Differences = chakra('table', {
  base: {
    borderCollapse: 'collapse',
    minWidth: 'min(100%, 520px)',
    '& th, & td': { px: '3', py: '1', verticalAlign: 'top' },
    '& th': { fontWeight: 400, color: 'quiet', textAlign: 'start' },
    '& thead th': { color: 'text', textAlign: 'end', whiteSpace: 'nowrap' },
    '& td': {
      textAlign: 'end',
      fontStretch: condensed,
      fontWeight: 650,
      fontVariantNumeric: 'tabular-nums',
      fontFeatureSettings: '"tnum"',
    },
    '& td:last-child': { textAlign: 'start', fontSize: '13px', fontWeight: 400, fontStretch: '100%', color: 'quiet' },
    '& tbody tr': { borderTopWidth: '1px', borderColor: 'hairline' },
  },
});

/** Shots over each other, and a table of only what differs. */
export default function ComparePage() {
  const { view, change, address } = useCompareView();
  const { ids, against, from, above, below, beside } = view;
  const [ahead, setAhead] = useState<number | null>(null);
  // known before the shots are, so that they are drawn once
  const [ref, width] = useWidth<HTMLDivElement>(acrossThePage);
  const few = tooFewToCompare(ids);
  const { data: comparison, error } = useQuery(comparisonOf(ids));
  // what is asked for is the drawing: the table of some hundred cells follows it
  const laidOut = useDeferredValue(comparison ?? null, null);
  const quantities = shown.map((q) => (
    <option key={q} value={q}>
      {q === 'grams' ? 'cup' : q}
    </option>
  ));

  if (few)
    return (
      <>
        <PageTitle title="Compare" aside={<TextLink to="/ledger">Back to the ledger</TextLink>} />
        <EmptyState
          title="Select two shots or more"
          action={
            <Button tone="strong" asChild>
              <Link to="/ledger">Select shots in the ledger</Link>
            </Button>
          }
        >
          Their traces are laid over each other here, with a table of what differs and why.
        </EmptyState>
      </>
    );

  return (
    <>
      <PageTitle
        title="Compare"
        aside={
          <Flex gap="3" align="center" wrap="wrap">
            <Button asChild>
              <Link to={`/ledger/compare/card?${address}`}>Card to print or save</Link>
            </Button>
            <TextLink to="/ledger">Back to the ledger</TextLink>
          </Flex>
        }
      />
      <Panel mb="4">
        <Box ref={ref} />
        <Flex gap="3" wrap="wrap" mb="2" align="flex-end">
          <Chosen label="Drawn" value={beside ? 'beside' : ''} onChange={(v) => change({ beside: v ? '' : null })}>
            <option value="">over each other</option>
            <option value="beside">beside each other</option>
          </Chosen>
          <Chosen label="Against" value={against} onChange={(v) => change({ against: v, below: null })}>
            <option value="seconds">seconds</option>
            <option value="grams">grams in the cup</option>
          </Chosen>
          {against === 'seconds' && (
            <Chosen label="Align at" value={from} onChange={(v) => change({ from: v })}>
              {Object.entries(froms).map(([key, word]) => (
                <option key={key} value={key}>
                  {word}
                </option>
              ))}
            </Chosen>
          )}
          <Chosen label={beside ? 'Quantity' : 'Above'} value={above} onChange={(v) => change({ above: v })}>
            {quantities}
          </Chosen>
          {!beside && (
            <Chosen label="Below" value={below} onChange={(v) => change({ below: v })}>
              {quantities}
            </Chosen>
          )}
        </Flex>
        {!comparison ? (
          <Waiting error={error} />
        ) : beside ? (
          <SideBySide shots={comparison.shots} against={against} from={from} above={above} />
        ) : (
          <>
            <Legend shots={comparison.shots} ahead={ahead} point={setAhead} />
            {width > 0 && (
              <Overlay
                width={width}
                shots={comparison.shots}
                against={against}
                from={from}
                above={above}
                below={below}
                ahead={ahead}
                point={setAhead}
              />
            )}
          </>
        )}
        {comparison && comparison.bestOfBag !== null && comparison.shots.length < mostCompared && (
          <Button
            tone="quiet"
            mt="2"
            onClick={() => change({ ids: `${ids},${comparison.bestOfBag}` })}
          >{`Add the best of ${comparison.shots[0]!.shot.bag}, shot ${comparison.bestOfBag}`}</Button>
        )}
      </Panel>
      {comparison?.shots.length === 2 && (
        <WhyDiffer first={comparison.shots[0]!.shot.id} second={comparison.shots[1]!.shot.id} />
      )}
      {laidOut && <WhatDiffers comparison={laidOut} />}
    </>
  );
}

/** A table of only what differs, and what is the same in words. */
function WhatDiffers({ comparison }: { comparison: Schemas['Comparison'] }) {
  const units = useUnits();
  const said = (value: Schemas['ComparedValue'], of: Schemas['ComparedThing']) =>
    value.number === null
      ? { value: units.sentence(value.text || '\u2013'), unit: '' }
      : units.quantity(value.number, of.unit, of.digits);
  const inWords = (thing: Schemas['ComparedThing']) => {
    const { value, unit } = said(thing.values[0]!, thing);
    return `${value} ${unit}`.trim();
  };
  const meanOf = (d: Schemas['ComparedThing']) => units.quantity(d.set!.mean, d.unit, d.digits).value;
  const spreadOf = (d: Schemas['ComparedThing']) =>
    units.quantity(d.set!.spread, d.unit === 'degC' ? 'K' : d.unit, Math.max(1, d.digits)).value;
  const isSet = comparison.shots.length > 2;
  return (
    <Panel overflowX="auto" position="relative" tabIndex={0} role="region" aria-label="What differs">
      <H2>What differs</H2>
      <Differences>
        <thead>
          <tr>
            <th scope="col">
              <chakra.span srOnly>Measure</chakra.span>
            </th>
            {comparison.shots.map((s, i) => (
              <th key={s.shot.id} scope="col">
                <TextLink to={`/taste/${s.shot.id}`}>
                  {letterOf(i)}, shot {s.shot.id}
                </TextLink>
              </th>
            ))}
            {isSet && <th scope="col">Mean, spread</th>}
            <th scope="col">
              <chakra.span srOnly>Unit</chakra.span>
            </th>
          </tr>
        </thead>
        <tbody>
          {comparison.differences.map((d) => (
            <tr key={d.label}>
              <th scope="row">{d.label}</th>
              {d.values.map((value, i) => (
                <td key={i}>{said(value, d).value}</td>
              ))}
              {isSet && <td>{d.set && `${meanOf(d)} \u00b1 ${spreadOf(d)}`}</td>}
              <td>{units.quantity(0, d.unit).unit}</td>
            </tr>
          ))}
        </tbody>
      </Differences>
      {isSet && (
        <Box mt="3" fontSize="14px" color="quiet">
          The spread is one standard deviation.
        </Box>
      )}
      {comparison.same.length > 0 && (
        <Box mt="4" fontSize="14px" color="quiet" maxWidth="90ch">
          Practically the same: {comparison.same.map((s) => `${s.label} ${inWords(s)}`).join('; ')}.
        </Box>
      )}
    </Panel>
  );
}

interface ChosenProps {
  label: string;
  value: string;
  onChange: (value: string) => void;
  children: ReactNode;
}

/** One of a few ways to draw. */
function Chosen({ label, value, onChange, children }: ChosenProps) {
  return (
    <Box flex={{ base: '1 1 140px', md: '1 1 190px' }} maxWidth="240px">
      <Field label={label}>
        {(fieldIds) => (
          <Select {...fieldIds} value={value} onChange={(e) => onChange(e.target.value)}>
            {children}
          </Select>
        )}
      </Field>
    </Box>
  );
}

interface LegendProps {
  shots: readonly Schemas['ShotView'][];
  ahead: number | null;
  point: (index: number | null) => void;
}

/** The shots by their letters; the one that is pointed at or chosen comes forward. */
function Legend({ shots, ahead, point }: LegendProps) {
  const [held, setHeld] = useState<number | null>(null);
  return (
    <Flex gap="1" wrap="wrap" role="group" aria-label="Highlight a shot" mb="1">
      {shots.map((s, i) => (
        <Button
          key={s.shot.id}
          tone="quiet"
          px="2"
          aria-pressed={held === i}
          fontWeight={ahead === i ? 650 : 400}
          onPointerEnter={() => point(i)}
          onPointerLeave={() => point(held)}
          onFocus={() => point(i)}
          onBlur={() => point(held)}
          onClick={() => {
            const next = held === i ? null : i;
            setHeld(next);
            point(next);
          }}
        >
          <svg width="26" height="10" aria-hidden="true">
            <line x1="0" x2="26" y1="5" y2="5" stroke={ink('text')} strokeWidth="2" strokeDasharray={dashOf(i)} />
          </svg>
          {letterOf(i)}, shot {s.shot.id}
        </Button>
      ))}
    </Flex>
  );
}
