import { Box, Flex, Grid } from '@chakra-ui/react';
import { memo } from 'react';
import { Link } from 'react-router';
import type { Schemas } from '../shared/api/client';
import { H2, Notice, Panel } from '../shared/ui/elements';
import { useUnits } from '../shared/units/units';
import { PlanSketch } from '../shared/plot/PlanSketch';

interface Props {
  plans: readonly Schemas['PullPlan'][];
  sketches: Schemas['BenchView']['planSketches'];
  planKey: string;
  problems: readonly Schemas['PlanProblem'][];
  change: (part: Partial<Schemas['Sheet']>) => void;
}

/** The plans that suit the machine, each with its shape. Drawn anew only when the choice changes. */
export const PlanPanel = memo(function PlanPanel({ plans, sketches, planKey, problems, change }: Props) {
  const units = useUnits();
  return (
    <Panel order={4}>
      <Flex justify="space-between" align="baseline" gap="3">
        <H2>Pull plan</H2>
        <Link to="/plans" style={{ textDecoration: 'underline', padding: '6px 0' }}>
          All plans
        </Link>
      </Flex>
      {problems.map((p) => (
        <Box key={p.phase} mb="2">
          <Notice role="status">{units.sentence(p.sentence)}</Notice>
        </Box>
      ))}
      <Grid role="radiogroup" aria-label="Pull plan" gap="2">
        {plans.map((plan) => {
          const chosen = plan.key === planKey;
          return (
            <Flex
              as="label"
              key={plan.key}
              gap="4"
              align="center"
              p="2"
              borderWidth="1px"
              borderColor={chosen ? 'text' : 'hairline'}
              borderRadius="small"
              cursor="pointer"
              bg={chosen ? 'page' : 'transparent'}
            >
              <input
                type="radio"
                name="plan"
                checked={chosen}
                onChange={() => change({ planKey: plan.key })}
                style={{ width: 20, height: 20, accentColor: 'var(--rs-colors-oxide)', flexShrink: 0 }}
              />
              <Box flex="1" minWidth={0}>
                <Box fontWeight={650}>{plan.name}</Box>
                <Box fontSize="13px" color="quiet">
                  peak {units.pressure(Math.max(...plan.phases.map((p) => p.toBar)), 1).value} {units.pressureUnit}
                  {chosen ? `. ${plan.why}` : ''}
                </Box>
                {chosen && (
                  <Link to={`/plans/${plan.key}`} style={{ textDecoration: 'underline', fontSize: 14 }}>
                    See it run, change it
                  </Link>
                )}
              </Box>
              <Box display={{ base: 'none', sm: 'block' }} flexShrink={0}>
                <PlanSketch points={sketches[plan.key] ?? []} bandBar={plan.bandBar} width={132} height={56} />
              </Box>
            </Flex>
          );
        })}
      </Grid>
    </Panel>
  );
});
