import { Box, Flex } from '@chakra-ui/react';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { api, data, sentenceOf, type Schemas } from '../shared/api/client';
import { shotsChanged, useBench } from '../shared/api/queries';
import { Choice } from '../shared/ui/Choice';
import { Button, Field, Notice, Select } from '../shared/ui/elements';
import { Modal } from '../shared/ui/Modal';
import { say } from '../shared/ui/say';

interface Props {
  ticked: readonly number[];
  clear: () => void;
  /** Fetches what a comparison needs. */
  prepare: () => void;
  compare: () => void;
}

const mostCompared = 20;
const listed = 8;

/** What can be done with the shots that are selected. */
export function SelectionBar({ ticked, clear, prepare, compare }: Props) {
  const [changing, setChanging] = useState(false);
  const change = useChange(clear);
  const names = ticked.slice(0, listed).map((id) => `shot ${id}`);
  if (ticked.length > listed) names.push(`${ticked.length - listed} more`);
  return (
    <Flex
      position="sticky"
      bottom={{ base: '64px', md: '12px' }}
      mt="3"
      gap="2"
      align="center"
      wrap="wrap"
      bg="panel"
      borderWidth="1px"
      borderColor="text"
      borderRadius="small"
      p="2"
      ps="4"
    >
      <Box flex="1" minWidth="160px">
        Selected: {names.join(', ')}
      </Box>
      <Button onClick={clear}>Clear selection</Button>
      <Button onClick={() => setChanging(true)}>Change</Button>
      <Button disabled={change.isPending} onClick={() => change.mutate({ shots: [...ticked], field: 'Bin', to: 1 })}>
        Delete
      </Button>
      <Button
        tone="strong"
        disabled={ticked.length < 2 || ticked.length > mostCompared}
        onPointerEnter={prepare}
        onFocus={prepare}
        onClick={compare}
      >
        {ticked.length < 2
          ? 'Select one more to compare'
          : ticked.length > mostCompared
            ? `At most ${mostCompared} can be compared`
            : `Compare ${ticked.length}`}
      </Button>
      {change.error && <Notice role="alert">{sentenceOf(change.error)}</Notice>}
      {changing && (
        <ChangeMany
          count={ticked.length}
          close={() => setChanging(false)}
          pending={change.isPending}
          problem={change.error ? sentenceOf(change.error) : undefined}
          save={(field, to) =>
            change.mutate({ shots: [...ticked], field, to }, { onSuccess: () => setChanging(false) })
          }
        />
      )}
    </Flex>
  );
}

const fields = { Brewer: 'Who brewed', Beans: 'Beans', Grinder: 'Grinder', Basket: 'Basket' } as const;
type Kind = keyof typeof fields;

/** Changes many shots, and offers to take it back. */
function useChange(done: () => void) {
  const queries = useQueryClient();
  const renew = () =>
    Promise.all([shotsChanged(queries), queries.invalidateQueries({ queryKey: ['shot'] })]).then(() => undefined);
  const takeBack = (changed: Schemas['ShotsChanged']) =>
    data(api.POST('/api/shots/change/undo', { body: changed })).then(
      async ({ left }) => {
        await renew();
        if (left > 0) void say({ title: `${left} were changed meanwhile and stay as they are.` });
      },
      (error: unknown) => void say({ title: sentenceOf(error) }),
    );
  return useMutation({
    mutationFn: (change: Schemas['ShotsChange']) => data(api.POST('/api/shots/change', { body: change })),
    onSuccess: async (changed) => {
      done();
      await renew();
      const many = changed.before.length === 1 ? '1 shot' : `${changed.before.length} shots`;
      void say({
        title: changed.field === 'Bin' ? `${many} moved to the bin.` : `${many} changed.`,
        action: { label: 'Undo', onClick: () => void takeBack(changed) },
      });
    },
  });
}

interface ChangeProps {
  count: number;
  pending: boolean;
  problem: string | undefined;
  close: () => void;
  save: (field: Kind, to: number | null) => void;
}

/** One thing of many shots, put right at once. */
function ChangeMany({ count, pending, problem, close, save }: ChangeProps) {
  const { data: bench } = useBench();
  const [field, setField] = useState<Kind>('Beans');
  const [to, setTo] = useState<number | null>(null);
  const options = {
    Brewer: bench?.brewers,
    Beans: bench?.bags,
    Grinder: bench?.grinders,
    Basket: bench?.baskets,
  }[field];
  return (
    <Modal
      title={count === 1 ? 'Change 1 shot' : `Change ${count} shots`}
      close={close}
      foot={
        <Flex gap="2">
          <Button onClick={close}>Cancel</Button>
          <Button tone="strong" disabled={pending} onClick={() => save(field, to)}>
            Save
          </Button>
        </Flex>
      }
    >
      <Field label="What">
        {(ids) => (
          <Select
            {...ids}
            value={field}
            onChange={(e) => {
              setField(e.target.value as Kind);
              setTo(null);
            }}
          >
            {Object.entries(fields).map(([key, name]) => (
              <option key={key} value={key}>
                {name}
              </option>
            ))}
          </Select>
        )}
      </Field>
      <Box mt="3">
        <Choice
          label="New value"
          none={field === 'Basket' ? 'the machine\u2019s own' : 'not noted'}
          options={options ?? []}
          value={to}
          onChange={setTo}
        />
      </Box>
      {problem && <Notice role="alert">{problem}</Notice>}
    </Modal>
  );
}
