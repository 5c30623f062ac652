import { Box } from '@chakra-ui/react';
import { useMutation } from '@tanstack/react-query';
import { api, data, sentenceOf, type Schemas } from '../shared/api/client';
import { Button, H2, Notice, Panel } from '../shared/ui/elements';

/** On a device of the home network: what it is called, and signing out. */
export function ThisDevice({ access }: { access: Schemas['AccessView'] }) {
  const signOut = useMutation({
    mutationFn: () => data(api.POST('/api/access/sign-out')),
    onSuccess: () => location.reload(),
  });
  return (
    <Panel maxWidth="560px">
      <H2>This device</H2>
      <Box mb="3">
        It is signed in as {access.device}. The passphrase, the list of devices, backups and restores are managed on the
        computer that Ruddy Spring runs on.
      </Box>
      {!access.isSafe && (
        <Box mb="3" fontSize="14px" color="quiet">
          This connection is plain HTTP: anyone on the same network can read what is sent. Use it at home only.
        </Box>
      )}
      <Button onClick={() => signOut.mutate()} disabled={signOut.isPending}>
        Sign out
      </Button>
      {signOut.error && <Notice role="alert">{sentenceOf(signOut.error)}</Notice>}
    </Panel>
  );
}
