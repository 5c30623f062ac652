import { Box, Flex } from '@chakra-ui/react';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { api, data, sentenceOf, type Schemas } from '../shared/api/client';
import { Button, Notice } from '../shared/ui/elements';
import { NumberField } from '../shared/ui/NumberField';
import { useCareChanged, type CareTask } from './care';

/** After how much use it comes, or that it is left out. */
export function IntervalForm({ machineId, task }: { machineId: number; task: CareTask }) {
  const changed = useCareChanged();
  const [interval, setInterval] = useState(task.interval);
  const wish = useMutation({
    mutationFn: (body: Partial<Schemas['CareWish']>) =>
      data(api.PUT('/api/care/task', { body: { machineId, task: task.key, interval: null, isOff: false, ...body } })),
    onSuccess: changed,
  });
  const set = (part: Partial<typeof interval>) => setInterval({ ...interval, ...part });
  return (
    <Box pt="2">
      <Flex gap="3" wrap="wrap">
        <NumberField
          label="Shots"
          step={10}
          digits={0}
          value={interval.shots ?? null}
          onChange={(shots) => set({ shots })}
          onClear={() => set({ shots: null })}
        />
        <NumberField
          label="Water"
          unit="l"
          step={5}
          digits={1}
          value={interval.litres ?? null}
          onChange={(litres) => set({ litres })}
          onClear={() => set({ litres: null })}
        />
        <NumberField
          label="Days"
          step={7}
          digits={0}
          value={interval.days ?? null}
          onChange={(days) => set({ days })}
          onClear={() => set({ days: null })}
        />
      </Flex>
      <Box fontSize="14px" color="quiet" mt="1">
        An empty field does not count.
      </Box>
      {wish.error && <Notice role="alert">{sentenceOf(wish.error)}</Notice>}
      <Flex gap="2" mt="3" wrap="wrap">
        <Button onClick={() => wish.mutate({ interval })} disabled={wish.isPending}>
          Save
        </Button>
        {task.isOwn && (
          <Button onClick={() => wish.mutate({})} disabled={wish.isPending}>
            Use the usual
          </Button>
        )}
        <Button onClick={() => wish.mutate({ isOff: !task.isOff })} disabled={wish.isPending}>
          {task.isOff ? 'Remind me again' : 'Do not remind me'}
        </Button>
      </Flex>
    </Box>
  );
}
