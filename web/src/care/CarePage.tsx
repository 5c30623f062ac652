import { Box, Grid } from '@chakra-ui/react';
import { useQuery } from '@tanstack/react-query';
import { CalendarDays } from 'lucide-react';
import { useRef } from 'react';
import { Link, useSearchParams } from 'react-router';
import { api, data } from '../shared/api/client';
import { EmptyState } from '../shared/ui/EmptyState';
import { Button, PageTitle, Waiting } from '../shared/ui/elements';
import { Radios } from '../shared/ui/Radios';
import { careKey } from './care';
import { Findings } from './Findings';
import { Hardness } from './Hardness';
import { History } from './History';
import { TaskDetail } from './TaskDetail';
import { TaskList } from './TaskList';

const isDue = (state?: string) => state === 'Due' || state === 'Overdue';

/** What the machines need, when, and how it is done. */
export default function CarePage() {
  const [search, setSearch] = useSearchParams();
  const detail = useRef<HTMLDivElement>(null);
  const { data: care, error } = useQuery({ queryKey: careKey, queryFn: () => data(api.GET('/api/care')) });
  if (!care)
    return (
      <>
        <PageTitle title="Care" tight asideToCome />
        <Waiting error={error} />
      </>
    );
  const { machines } = care;
  const machine =
    machines.find((m) => String(m.machineId) === search.get('machine')) ??
    machines.find((m) => m.tasks.some((t) => isDue(t.due?.state))) ??
    machines[0];
  const task = machine?.tasks.find((t) => t.key === search.get('task')) ?? machine?.tasks[0];
  return (
    <>
      <PageTitle
        title="Care"
        tight
        aside={
          <Button asChild>
            <a href="/api/care/calendar.ics" download>
              <CalendarDays size={18} aria-hidden="true" /> Save as calendar
            </a>
          </Button>
        }
      >
        What keeps a machine good and safe. Its manual comes first.
      </PageTitle>
      {!machine || !task ? (
        <EmptyState
          title="No machine yet"
          action={
            <Button tone="strong" asChild>
              <Link to="/machines/new">Add a machine</Link>
            </Button>
          }
        >
          Care says what a machine needs, and when, from what was pulled on it.
        </EmptyState>
      ) : (
        <>
          {machines.length > 1 && (
            <Box mb="3">
              <Radios
                label="Machine"
                options={machines.map((m) => [String(m.machineId), m.machine] as const)}
                value={String(machine.machineId)}
                onChange={(id) => setSearch({ machine: id }, { replace: true })}
              />
            </Box>
          )}
          <Grid
            templateColumns={{ base: 'minmax(0,1fr)', lg: 'minmax(0,1fr) minmax(0,1fr)' }}
            gap="4"
            alignItems="start"
          >
            <Grid gap="4">
              <Findings findings={machine.findings} />
              <TaskList
                tasks={machine.tasks}
                chosen={task.key}
                choose={(key) => {
                  setSearch({ machine: String(machine.machineId), task: key }, { replace: true });
                  // on a phone it stands below the list
                  detail.current?.scrollIntoView({ block: 'nearest' });
                }}
              />
            </Grid>
            <Grid gap="4" ref={detail}>
              <TaskDetail key={`${machine.machineId}-${task.key}`} machineId={machine.machineId} task={task} />
            </Grid>
            <History history={machine.history} />
            <Hardness key={care.waterHardness} hardness={care.waterHardness} degrees={care.hardnessDegrees} />
          </Grid>
        </>
      )}
    </>
  );
}
