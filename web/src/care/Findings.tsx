import { Box } from '@chakra-ui/react';
import type { Schemas } from '../shared/api/client';
import { inOurUnits } from '../shared/units/marks';
import { H2, Panel } from '../shared/ui/elements';

/** Wear that shots and readings show; nothing where they show none. */
export function Findings({ findings }: { findings: readonly Schemas['WearFinding'][] }) {
  if (findings.length === 0) return null;
  return (
    <Panel borderInlineStartWidth="4px" borderInlineStartColor="oxide">
      {findings.map((finding) => (
        <Box key={finding.kind} _notLast={{ mb: '4' }}>
          <H2>{finding.title}</H2>
          {inOurUnits(finding.sentence)}
        </Box>
      ))}
    </Panel>
  );
}
