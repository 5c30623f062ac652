import { Box, Flex } from '@chakra-ui/react';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { X } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import { api, data, sentenceOf, type Schemas } from '../shared/api/client';
import { Modal } from '../shared/ui/Modal';
import { Button, Field, Input, Notice } from '../shared/ui/elements';

const key = ['ledger', 'views'];

interface Props {
  /** What is shown now, as it stands in the address; empty for every shot in its usual order. */
  query: string;
}

/** Views of the ledger that were kept under a name, and keeping the one that is shown. */
export function SavedViews({ query }: Props) {
  const queries = useQueryClient();
  const [naming, setNaming] = useState(false);
  const { data: views } = useQuery({ queryKey: key, queryFn: () => data(api.GET('/api/ledger/views')) });
  const took = (next: Schemas['LedgerViewName'][]) => queries.setQueryData(key, next);
  const forget = useMutation({
    mutationFn: (id: number) => data(api.DELETE('/api/ledger/views/{id}', { params: { path: { id } } })),
    onSuccess: took,
  });
  const isKept = views?.some((v) => v.query === query);
  if (!views || (views.length === 0 && !query)) return null;
  return (
    <Flex gap="2" rowGap="1" wrap="wrap" align="center" mb="2" role="group" aria-label="Views">
      {views.map((view) => (
        <Flex key={view.id} align="center" borderWidth="1px" borderColor="edge" borderRadius="small">
          <Button tone="quiet" asChild aria-current={view.query === query || undefined}>
            <Link to={`/ledger?${view.query}`}>{view.name}</Link>
          </Button>
          <Button
            tone="quiet"
            px="2"
            aria-label={`Delete the view ${view.name}`}
            disabled={forget.isPending}
            onClick={() => forget.mutate(view.id)}
          >
            <X size={16} aria-hidden="true" />
          </Button>
        </Flex>
      ))}
      {query && !isKept && (
        <Button tone="quiet" onClick={() => setNaming(true)}>
          Save this view
        </Button>
      )}
      {forget.error && <Notice role="alert">{sentenceOf(forget.error)}</Notice>}
      {naming && <NameView query={query} close={() => setNaming(false)} took={took} />}
    </Flex>
  );
}

interface NameProps {
  query: string;
  close: () => void;
  took: (views: Schemas['LedgerViewName'][]) => void;
}

function NameView({ query, close, took }: NameProps) {
  const [name, setName] = useState('');
  const keep = useMutation({
    mutationFn: () => data(api.POST('/api/ledger/views', { body: { name, query } })),
    onSuccess: (views) => {
      took(views);
      close();
    },
  });
  return (
    <Modal
      title="Save this view"
      close={close}
      foot={
        <Flex gap="2">
          <Button onClick={close}>Cancel</Button>
          <Button tone="strong" type="submit" form="name-view" disabled={keep.isPending}>
            Save
          </Button>
        </Flex>
      }
    >
      <form
        id="name-view"
        onSubmit={(e) => {
          e.preventDefault();
          keep.mutate();
        }}
      >
        <Field label="Name" problem={keep.error ? sentenceOf(keep.error) : undefined}>
          {(ids) => <Input {...ids} value={name} maxLength={40} autoFocus onChange={(e) => setName(e.target.value)} />}
        </Field>
        <Box fontSize="14px" color="quiet" mt="1">
          Search, filters and order are kept, and shots to come will be in it.
        </Box>
      </form>
    </Modal>
  );
}
