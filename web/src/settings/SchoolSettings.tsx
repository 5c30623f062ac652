import { Box } from '@chakra-ui/react';
import { useHousehold, useSchools } from '../shared/api/queries';
import { sentenceOf } from '../shared/api/client';
import { useHouseholdChange } from '../shared/bench/useHouseholdChange';
import { H2, Notice, Panel, Waiting } from '../shared/ui/elements';
import { Radios } from '../shared/ui/Radios';
import { inOurUnits } from '../shared/units/marks';

/** By which school shots are judged here. */
export function SchoolSettings() {
  const { data: household } = useHousehold();
  const { data: schools, error } = useSchools();
  const change = useHouseholdChange(household);
  if (!household || !schools)
    return (
      // as high as the schools are, so that what stands below does not move
      <Panel minHeight="310px">
        <H2>How shots are judged</H2>
        <Waiting error={error} />
      </Panel>
    );
  const chosen = schools.find((s) => s.key === household.school);
  return (
    <Panel>
      <H2>How shots are judged</H2>
      <Radios
        label="School"
        stacked
        options={schools.map((s) => [s.key, s.name] as const)}
        value={household.school}
        onChange={(school) => change.mutate({ school })}
      />
      <Box fontSize="14px" color="quiet" mt="1">
        {inOurUnits(chosen?.holds ?? '')} Targets, causes and advice follow it; every shot shows what the other schools
        would say.
      </Box>
      {change.error && <Notice role="alert">{sentenceOf(change.error)}</Notice>}
    </Panel>
  );
}
