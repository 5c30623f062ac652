import { Box, chakra, Flex } from '@chakra-ui/react';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useSearchParams } from 'react-router';
import type { Schemas } from '../shared/api/client';
import { Field, H2, PageTitle, Panel, Select, Waiting } from '../shared/ui/elements';
import { useUnits } from '../shared/units/units';
import { comparisonOf } from './comparison';
import { WhyDiffer } from './WhyDiffer';
import { letterOf, Overlay, type Against, type From } from './Overlay';
import { TextLink } from '../shared/ui/TextLink';

// one styled element for the whole table: twenty shots have some hundred cells
const Differences = chakra('table', {
  base: {
    borderCollapse: 'collapse',
    minWidth: 'min(100%, 520px)',
    '& th, & td': { px: '3', py: '1', verticalAlign: 'top' },
    '& th': { fontWeight: 500, color: 'quiet', textAlign: 'start' },
    '& thead th': { color: 'text', textAlign: 'end' },
    '& td': {
      textAlign: 'end',
      fontStretch: '78%',
      fontWeight: 600,
      fontVariantNumeric: 'tabular-nums',
      fontFeatureSettings: '"tnum"',
    },
    '& td:last-child': { textAlign: 'start', fontSize: '13px', fontWeight: 400, fontStretch: '100%', color: 'quiet' },
    '& tbody tr': { borderTopWidth: '1px', borderColor: 'hairline' },
  },
});

/** Shots over each other, and a table of only what differs. */
export default function ComparePage() {
  const [params] = useSearchParams();
  const ids = params.get('ids') ?? '';
  const [against, setAgainst] = useState<Against>('seconds');
  const [from, setFrom] = useState<From>('lever');
  const { data: comparison, error } = useQuery(comparisonOf(ids));
  const units = useUnits();
  const said = (value: Schemas['ComparedValue'], of: Schemas['ComparedThing']) =>
    value.number === null
      ? { value: units.sentence(value.text || '\u2013'), unit: '' }
      : units.quantity(value.number, of.unit, of.digits);
  const inWords = (thing: Schemas['ComparedThing']) => {
    const { value, unit } = said(thing.values[0]!, thing);
    return `${value} ${unit}`.trim();
  };

  return (
    <>
      <PageTitle title="Compare" aside={<TextLink to="/ledger">Back to the ledger</TextLink>}>
        {comparison?.shots.map((s, i) => `${letterOf(i)} is shot ${s.shot.id}`).join(', ')}
      </PageTitle>
      {!comparison ? (
        <Waiting error={error} />
      ) : (
        <>
          <Panel mb="4">
            <Flex gap="4" wrap="wrap" mb="3">
              <Box width="190px">
                <Field label="Against">
                  {(fieldIds) => (
                    <Select {...fieldIds} value={against} onChange={(e) => setAgainst(e.target.value as Against)}>
                      <option value="seconds">seconds</option>
                      <option value="grams">grams in the cup</option>
                    </Select>
                  )}
                </Field>
              </Box>
              {against === 'seconds' && (
                <Box width="190px">
                  <Field label="Align at">
                    {(fieldIds) => (
                      <Select {...fieldIds} value={from} onChange={(e) => setFrom(e.target.value as From)}>
                        <option value="lever">the lever&rsquo;s first move</option>
                        <option value="drops">first drops</option>
                        <option value="peak">peak</option>
                      </Select>
                    )}
                  </Field>
                </Box>
              )}
            </Flex>
            <Overlay shots={comparison.shots} against={against} from={from} />
          </Panel>
          {comparison.shots.length === 2 && (
            <WhyDiffer first={comparison.shots[0]!.shot.id} second={comparison.shots[1]!.shot.id} />
          )}
          <Panel overflowX="auto" tabIndex={0} role="region" aria-label="What differs">
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
                    <td>{units.quantity(0, d.unit).unit}</td>
                  </tr>
                ))}
              </tbody>
            </Differences>
            {comparison.same.length > 0 && (
              <Box mt="4" fontSize="14px" color="quiet" maxWidth="90ch">
                The same, near enough: {comparison.same.map((s) => `${s.label} ${inWords(s)}`).join('; ')}.
              </Box>
            )}
          </Panel>
        </>
      )}
    </>
  );
}
