import { Grid } from '@chakra-ui/react';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { api, data, sentenceOf } from '../shared/api/client';
import { fieldDay } from '../shared/clock';
import { Button, Field, Input, Notice } from '../shared/ui/elements';
import { say } from '../shared/ui/say';
import { useCareChanged, type CareTask } from './care';

/** That it was done: today, or on another day, with what is worth remembering. */
export function DoneForm({ machineId, task }: { machineId: number; task: CareTask }) {
  const changed = useCareChanged();
  const [on, setOn] = useState(() => fieldDay());
  const [note, setNote] = useState('');
  const undo = (id: number) =>
    void data(api.DELETE('/api/care/done/{id}', { params: { path: { id } } })).then(changed, (error: unknown) =>
      say({ title: sentenceOf(error) }),
    );
  const done = useMutation({
    mutationFn: () => data(api.POST('/api/care/done', { body: { machineId, task: task.key, on, note } })),
    onSuccess: async (entry) => {
      setNote('');
      await changed();
      await say({ title: `${task.name}: done.`, action: { label: 'Undo', onClick: () => undo(entry.id) } });
    },
  });
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        done.mutate();
      }}
    >
      <Grid gap="3" templateColumns="minmax(0,1fr) minmax(0,1fr)" mb="3">
        <Field label="Done on">
          {(ids) => <Input {...ids} type="date" max={fieldDay()} value={on} onChange={(e) => setOn(e.target.value)} />}
        </Field>
        <Field label={task.part ?? 'Note'}>
          {(ids) => <Input {...ids} maxLength={200} value={note} onChange={(e) => setNote(e.target.value)} />}
        </Field>
      </Grid>
      <Button tone="strong" type="submit" disabled={done.isPending || on === ''}>
        Mark as done
      </Button>
      {done.error && <Notice role="alert">{sentenceOf(done.error)}</Notice>}
    </form>
  );
}
