import { Flex } from '@chakra-ui/react';
import { useState } from 'react';
import type { Schemas } from '../shared/api/client';
import { SidePanel } from '../shared/ui/SidePanel';
import { Button } from '../shared/ui/elements';
import { BehindTheGauge } from './BehindTheGauge';
import { BleedTo } from './BleedTo';
import { KettleWays } from './KettleWays';

const tools = {
  ways: 'Ways to preheat',
  gauge: 'Behind the gauge',
  bleed: 'Temperature by pressure',
} as const;

/** What is worked out now and then, each behind its name. */
export function WarmTools({ session }: { session: Schemas['SessionView'] }) {
  const [open, setOpen] = useState<keyof typeof tools | null>(null);
  const offered: (keyof typeof tools)[] = session.hasBoiler ? ['gauge', 'bleed'] : ['ways'];
  return (
    <Flex gap="2" wrap="wrap" mt="2">
      {offered.map((tool) => (
        <Button key={tool} tone="quiet" aria-haspopup="dialog" onClick={() => setOpen(tool)}>
          {tools[tool]}
        </Button>
      ))}
      {open && (
        <SidePanel title={tools[open]} close={() => setOpen(null)}>
          {open === 'ways' && (
            <KettleWays
              machineId={session.machineId}
              chosen={session.wants.preheat ?? 'None'}
              stepC={session.wants.heaterStepC ?? null}
            />
          )}
          {open === 'gauge' && <BehindTheGauge machineId={session.machineId} />}
          {open === 'bleed' && <BleedTo machineId={session.machineId} />}
        </SidePanel>
      )}
    </Flex>
  );
}
