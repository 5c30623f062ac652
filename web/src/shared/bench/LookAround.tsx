import { Box } from '@chakra-ui/react';
import { useMutation } from '@tanstack/react-query';
import { api, data, sentenceOf } from '../api/client';
import { Button, Notice } from '../ui/elements';

/** Opens the sample household, which is kept apart from one's own and gone when it is left. */
export function LookAround() {
  const open = useMutation({
    mutationFn: () => data(api.POST('/api/sample/open')),
    onSuccess: ({ url }) => location.assign(`${url}/prepare`),
  });
  return (
    <>
      <Button disabled={open.isPending || open.isSuccess} onClick={() => open.mutate()}>
        {open.isPending || open.isSuccess ? 'Making it ready' : 'Look around a sample household'}
      </Button>
      {open.error && (
        <Box mt="2">
          <Notice role="alert">{sentenceOf(open.error)}</Notice>
        </Box>
      )}
    </>
  );
}
