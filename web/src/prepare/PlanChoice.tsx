import { Box, Flex, Grid, RadioGroup } from '@chakra-ui/react';
import { memo } from 'react';
import type { Schemas } from '../shared/api/client';
import { PlanSketch } from '../shared/plot/PlanSketch';
import { Notice } from '../shared/ui/elements';
import { TextLink } from '../shared/ui/TextLink';
import { useUnits } from '../shared/units/units';
import { inOurUnits } from '../shared/units/marks';

interface Props {
  plans: readonly Schemas['PullPlan'][];
  sketches: Schemas['BenchView']['planSketches'];
  planKey: string;
  problems: readonly Schemas['PlanProblem'][];
  change: (part: Partial<Schemas['Sheet']>) => void;
}

/** The plans that suit the machine as small pictures. Drawn again only when the choice changes. */
export const PlanChoice = memo(function PlanChoice({ plans, sketches, planKey, problems, change }: Props) {
  const units = useUnits();
  const chosen = plans.find((p) => p.key === planKey);
  return (
    <Box mt="2">
      <Flex justify="space-between" align="baseline" gap="3" fontSize="13px" color="quiet">
        <Box>Pull plan</Box>
        <Flex gap="4">
          {chosen && (
            <TextLink to={`/plans/${chosen.key}`} py="1.5">
              See it run, change it
            </TextLink>
          )}
          <TextLink to="/plans" py="1.5">
            All plans
          </TextLink>
        </Flex>
      </Flex>
      <RadioGroup.Root
        aria-label="Pull plan"
        value={planKey}
        onValueChange={(e) => e.value && change({ planKey: e.value })}
      >
        <Grid gap="2" templateColumns="repeat(3, minmax(0,1fr))">
          {plans.map((plan) => (
            <RadioGroup.Item
              key={plan.key}
              value={plan.key}
              flexDirection="column"
              alignItems="flex-start"
              gap="0.5"
              p="1.5"
              minHeight="68px"
              borderWidth="1px"
              borderColor="hairline"
              borderRadius="small"
              title={inOurUnits(plan.why)}
              css={{ '&[data-state=checked]': { borderColor: 'text', bg: 'page' } }}
            >
              <RadioGroup.ItemHiddenInput />
              <PlanSketch points={sketches[plan.key] ?? []} bandBar={plan.bandBar} width={100} height={30} />
              <Flex gap="1.5" align="flex-start" lineHeight={1.2}>
                <RadioGroup.ItemControl width="14px" height="14px" mt="2px" _checked={{ borderWidth: '4px' }} />
                <RadioGroup.ItemText fontSize="13px" fontWeight={650}>
                  {plan.name}
                </RadioGroup.ItemText>
              </Flex>
            </RadioGroup.Item>
          ))}
        </Grid>
      </RadioGroup.Root>
      {problems.map((p) => (
        <Box key={p.phase} mt="2">
          <Notice role="status">{units.sentence(p.sentence)}</Notice>
        </Box>
      ))}
    </Box>
  );
});
