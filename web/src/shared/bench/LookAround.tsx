import { Box } from '@chakra-ui/react';
import { useMutation } from '@tanstack/react-query';
import { useAccess } from '../access/access';
import { api, data, sentenceOf } from '../api/client';
import { Button, Notice } from '../ui/elements';

/** Opens the sample household, which is kept apart from one's own and gone when it is left. */
export function LookAround() {
  const { data: access } = useAccess();
  const open = useMutation({
    mutationFn: () => data(api.POST('/api/sample/open')),
    onSuccess: ({ url }) => location.assign(`${url}/prepare`),
  });
  // the sample is a server of its own at this machine's address
  if (access && !access.atTheMachine) return null;
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
