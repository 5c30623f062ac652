import { Box, chakra, Grid } from '@chakra-ui/react';
import { useMutation } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { api, data } from '../shared/api/client';
import { wrongOf } from '../shared/edit/wrongOf';
import { useAccess } from '../shared/access/access';
import { Button, Field, Input, Notice, Panel } from '../shared/ui/elements';
import { deviceName } from './deviceName';

/** On a device of the home network: the passphrase, once. */
export default function SignInPage() {
  useEffect(() => {
    document.title = 'Sign in - Ruddy Spring';
  }, []);
  const { data: access } = useAccess();
  const [passphrase, setPassphrase] = useState('');
  const [shown, setShown] = useState(false);
  const [device, setDevice] = useState(() => deviceName(navigator.userAgent));
  const signIn = useMutation({
    mutationFn: () => data(api.POST('/api/access/sign-in', { body: { passphrase, device } })),
    onSuccess: () => location.reload(),
  });
  const { wrong, elsewhere } = wrongOf(signIn.error, ['device']);
  return (
    <Grid as="main" minHeight="100dvh" placeItems="center" p="3">
      <Panel width="100%" maxWidth="420px">
        <chakra.h1 fontSize="24px" mb="1">
          Sign in
        </chakra.h1>
        <Box color="quiet" mb="4">
          This Ruddy Spring is on your home network. Ask whoever looks after it for the passphrase.
        </Box>
        <form
          onSubmit={(e) => {
            e.preventDefault();
            signIn.mutate();
          }}
        >
          <Grid gap="3">
            <Field label="Passphrase">
              {(ids) => (
                <Input
                  {...ids}
                  type={shown ? 'text' : 'password'}
                  autoComplete="current-password"
                  autoFocus
                  maxLength={512}
                  value={passphrase}
                  onChange={(e) => setPassphrase(e.target.value)}
                />
              )}
            </Field>
            <Button tone="quiet" justifySelf="start" aria-pressed={shown} onClick={() => setShown(!shown)}>
              {shown ? 'Hide the passphrase' : 'Show the passphrase'}
            </Button>
            <Field label="Name of this device" hint="As it stands in the list of devices" problem={wrong('device')}>
              {(ids) => <Input {...ids} maxLength={80} value={device} onChange={(e) => setDevice(e.target.value)} />}
            </Field>
            {elsewhere && <Notice role="alert">{elsewhere}</Notice>}
            <Button tone="strong" type="submit" disabled={signIn.isPending || passphrase === ''}>
              Sign in
            </Button>
            {access && !access.isSafe && (
              <Box fontSize="14px" color="quiet">
                This connection is plain HTTP: anyone on the same network can read what is sent. Use it at home only.
              </Box>
            )}
          </Grid>
        </form>
      </Panel>
    </Grid>
  );
}
