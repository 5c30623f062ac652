import { useMutation } from '@tanstack/react-query';
import { Trash2 } from 'lucide-react';
import { api, data, sentenceOf, type Schemas } from '../shared/api/client';
import { dayOf } from '../shared/clock';
import { Button, Notice, Panel } from '../shared/ui/elements';
import { Fold } from '../shared/ui/Fold';
import { Table } from '../shared/ui/Table';
import { useCareChanged } from './care';

/** What was done for the machine. */
export function History({ history }: { history: readonly Schemas['CareDoneView'][] }) {
  const changed = useCareChanged();
  const remove = useMutation({
    mutationFn: (id: number) => data(api.DELETE('/api/care/done/{id}', { params: { path: { id } } })),
    onSuccess: changed,
  });
  if (history.length === 0) return null;
  return (
    <Panel>
      <Fold title="What was done" note={`${history.length}, the last on ${dayOf(history[0]!.doneOn)}`}>
        <Table
          label="What was done"
          head={['Day', 'Task', 'Note', 'Do']}
          rows={history.map((done) => ({
            key: String(done.id),
            cells: [
              dayOf(done.doneOn),
              done.name,
              done.note,
              <Button
                key="do"
                tone="quiet"
                px="3"
                aria-label={`Delete ${done.name} of ${dayOf(done.doneOn)}`}
                onClick={() => remove.mutate(done.id)}
              >
                <Trash2 size={18} aria-hidden="true" />
              </Button>,
            ],
          }))}
        />
        {remove.error && <Notice role="alert">{sentenceOf(remove.error)}</Notice>}
      </Fold>
    </Panel>
  );
}
