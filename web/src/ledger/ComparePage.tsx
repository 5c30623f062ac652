import { Box, chakra, Flex } from '@chakra-ui/react';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { api, data } from '../shared/api/client';
import { Field, H2, PageTitle, Panel, Reading, Select, Waiting } from '../shared/ui/elements';
import { letterOf, Overlay, type Against, type From } from './Overlay';

const Cell = chakra('td', { base: { px: '3', py: '1', textAlign: 'end', verticalAlign: 'top' } });
const Head = chakra('th', {
  base: { px: '3', py: '1', fontWeight: 500, color: 'quiet', textAlign: 'start', verticalAlign: 'top' },
});

/** Shots over each other, and a table of only what differs. */
export default function ComparePage() {
  const [params] = useSearchParams();
  const ids = params.get('ids') ?? '';
  const [against, setAgainst] = useState<Against>('seconds');
  const [from, setFrom] = useState<From>('lever');
  const { data: comparison, error } = useQuery({
    queryKey: ['compare', ids],
    queryFn: () => data(api.GET('/api/shots/compare', { params: { query: { ids } } })),
    retry: false,
  });

  return (
    <>
      <PageTitle
        title="Compare"
        aside={
          <Link to="/ledger" style={{ textDecoration: 'underline' }}>
            Back to the ledger
          </Link>
        }
      >
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
                  <Field label="Laid together at">
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
          <Panel overflowX="auto" tabIndex={0} role="region" aria-label="What differs">
            <H2>What differs</H2>
            <chakra.table borderCollapse="collapse" minWidth="min(100%, 520px)">
              <thead>
                <tr>
                  <Head scope="col">
                    <chakra.span srOnly>Measure</chakra.span>
                  </Head>
                  {comparison.shots.map((s, i) => (
                    <Head key={s.shot.id} scope="col" textAlign="end" color="text">
                      <Link to={`/taste/${s.shot.id}`} style={{ textDecoration: 'underline' }}>
                        {letterOf(i)}, shot {s.shot.id}
                      </Link>
                    </Head>
                  ))}
                  <Head scope="col">
                    <chakra.span srOnly>Unit</chakra.span>
                  </Head>
                </tr>
              </thead>
              <tbody>
                {comparison.differences.map((d) => (
                  <chakra.tr key={d.label} borderTopWidth="1px" borderColor="hairline">
                    <Head scope="row">{d.label}</Head>
                    {d.values.map((value, i) => (
                      <Cell key={i}>
                        <Reading style={{ whiteSpace: 'normal' }}>{value || '\u2013'}</Reading>
                      </Cell>
                    ))}
                    <Head as="td" fontSize="13px">
                      {d.unit}
                    </Head>
                  </chakra.tr>
                ))}
              </tbody>
            </chakra.table>
            {comparison.same.length > 0 && (
              <Box mt="4" fontSize="14px" color="quiet" maxWidth="90ch">
                The same, near enough: {comparison.same.join('; ')}.
              </Box>
            )}
          </Panel>
        </>
      )}
    </>
  );
}
