import { Box, Flex } from '@chakra-ui/react';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { api, data, type Schemas } from '../shared/api/client';
import { Fold } from '../shared/ui/Fold';
import { Table } from '../shared/ui/Table';
import { Field, H2, Notice, Panel, Select, Waiting } from '../shared/ui/elements';
import { useUnits } from '../shared/units/units';
import { DifferenceLadder } from './DifferenceLadder';
import { typedNumber } from '../shared/units/decimals';

/** Why two shots differ: for each quantity, what each thing that was not the same explains of it. */
export function WhyDiffer({ first, second }: { first: number; second: number }) {
  const units = useUnits();
  const [of, setOf] = useState(0);
  const { data: difference, error } = useQuery({
    queryKey: ['difference', first, second],
    queryFn: () =>
      data(api.GET('/api/shots/{id}/difference/{other}', { params: { path: { id: first, other: second } } })),
    retry: false,
  });
  const say = (q: Schemas['ExplainedQuantity']) => (value: number, signed?: boolean) => {
    const sign = signed && value > 0 ? '+' : signed && value < 0 ? '\u2212' : '';
    const shown = units.quantity(signed ? Math.abs(value) : value, q.unit, q.digits);
    return `${typedNumber(shown.value) === 0 ? '' : sign}${shown.value} ${shown.unit}`.trim();
  };
  const q = difference?.explained[of];
  return (
    <Panel mb="4" aria-label="Why these two differ">
      <Flex gap="4" align="end" justify="space-between" wrap="wrap" mb="2">
        <H2>Why these two differ</H2>
        {difference && (
          <Box width="190px">
            <Field label="In">
              {(ids) => (
                <Select {...ids} value={of} onChange={(e) => setOf(Number(e.target.value))}>
                  {difference.explained.map((e, i) => (
                    <option key={e.name} value={i}>
                      {e.name.toLowerCase()}
                    </option>
                  ))}
                </Select>
              )}
            </Field>
          </Box>
        )}
      </Flex>
      {!difference || !q ? (
        <Waiting error={error} />
      ) : (
        <>
          <DifferenceLadder quantity={q} say={say(q)} />
          <Box fontSize="14px" color="quiet" mt="2" maxWidth="86ch">
            Each bar is what changing that one thing does, in the mean over every order of changing them; the whisker
            holds eight in ten of what it may be. Hatched is what the model does not explain.
          </Box>
          {difference.fromPlans && (
            <Box mt="2">
              <Notice>A pull without a gauge is taken to have followed its plan.</Notice>
            </Box>
          )}
          <Fold title="All as a table">
            <Table
              label="What explains the difference"
              head={['', ...difference.explained.map((e) => e.name)]}
              rows={[
                row('A', difference.explained, (e) => say(e)(e.a)),
                ...difference.explained[0]!.parts.map((p) =>
                  row(p.name, difference.explained, (e) => {
                    const part = e.parts.find((other) => other.group === p.group)!;
                    return `${say(e)(part.by, true)} (${say(e)(part.low, true)} to ${say(e)(part.high, true)})`;
                  }),
                ),
                row('Not explained', difference.explained, (e) => say(e)(e.unexplained, true)),
                row('B', difference.explained, (e) => say(e)(e.b)),
              ]}
            />
          </Fold>
        </>
      )}
    </Panel>
  );
}

const row = (
  name: string,
  explained: readonly Schemas['ExplainedQuantity'][],
  cell: (e: Schemas['ExplainedQuantity']) => string,
) => ({ key: name, cells: [name, ...explained.map(cell)] });
