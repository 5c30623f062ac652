import { Box, chakra } from '@chakra-ui/react';
import { dayOf } from '../shared/clock';
import { Caution, H2, Panel } from '../shared/ui/elements';
import { Fold } from '../shared/ui/Fold';
import type { CareTask } from './care';
import { DoneForm } from './DoneForm';
import { IntervalForm } from './IntervalForm';

const intervalWords = ({ shots, litres, days }: CareTask['interval']) =>
  [
    shots != null && `${shots} shots`,
    litres != null && `${Math.round(litres)} l of water`,
    days != null && `${days} days`,
  ]
    .filter(Boolean)
    .join(' or ');

/** A task: why, how, what can hurt, and that it was done. */
export function TaskDetail({ machineId, task }: { machineId: number; task: CareTask }) {
  return (
    <Panel>
      <H2>{task.name}</H2>
      <Box mb="2">{task.why}</Box>
      {task.caution && (
        <Box mb="3">
          <Caution>{task.caution}</Caution>
        </Box>
      )}
      <chakra.ol ps="5" mb="3" listStyleType="decimal">
        {task.steps.map((step) => (
          <chakra.li key={step} mb="1">
            {step}
          </chakra.li>
        ))}
      </chakra.ol>
      <DoneForm machineId={machineId} task={task} />
      <Box fontSize="14px" color="quiet" mt="3">
        {task.lastDone ? `Last done ${dayOf(task.lastDone)}. ` : 'Never noted as done; it counts from the first shot. '}
        Every {intervalWords(task.interval)} ({task.isOwn ? 'yours' : task.source}).
      </Box>
      <Fold title="Change the interval">
        <IntervalForm machineId={machineId} task={task} />
      </Fold>
    </Panel>
  );
}
