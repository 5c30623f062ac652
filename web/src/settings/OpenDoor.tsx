import { Box, Flex } from '@chakra-ui/react';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { api, data, sentenceOf } from '../shared/api/client';
import { wrongOf } from '../shared/edit/wrongOf';
import { Button, Field, H2, Input, Notice, Panel } from '../shared/ui/elements';
import { useKeepNetwork, type Network } from './network';

/** Turning the network on with a passphrase, changing that, and turning it off. */
export function OpenDoor({ network }: { network: Network }) {
  const keep = useKeepNetwork();
  const [passphrase, setPassphrase] = useState('');
  const open = useMutation({
    mutationFn: (chosen: string | null) => data(api.POST('/api/network/on', { body: { passphrase: chosen } })),
    onSuccess: (next) => {
      setPassphrase('');
      keep(next);
    },
  });
  const close = useMutation({ mutationFn: () => data(api.POST('/api/network/off')), onSuccess: keep });
  const { wrong, elsewhere } = wrongOf(open.error, ['passphrase']);
  const { isOn, hasPassphrase, isSafe } = network;
  return (
    <Panel>
      <H2>{isOn ? 'The home network is on' : 'The home network is off'}</H2>
      <Box mb="3">
        {isOn
          ? 'Devices on your network can open Ruddy Spring once they have signed in.'
          : 'Only this computer can open Ruddy Spring. Turn it on for a tablet or phone beside the lever.'}
      </Box>
      {!isSafe && (
        <Box mb="3" fontSize="14px" color="quiet">
          It uses plain HTTP: anyone on the same network can read what is sent, including the passphrase. At home that
          is your own network; do not turn it on where strangers use the network. With a certificate of your own it uses
          HTTPS (--certificate and --certificate-key at the start).
        </Box>
      )}
      <form
        onSubmit={(e) => {
          e.preventDefault();
          open.mutate(passphrase === '' ? null : passphrase);
        }}
      >
        <Field
          label={hasPassphrase ? 'New passphrase' : 'Passphrase'}
          hint={
            hasPassphrase
              ? 'A new one signs every device out. Leave it empty to keep the one you have.'
              : '12 characters or more. You type it once on each device.'
          }
          problem={wrong('passphrase')}
        >
          {(ids) => (
            <Flex gap="2" wrap="wrap">
              <Input
                {...ids}
                flex="1"
                minWidth="200px"
                autoComplete="new-password"
                spellCheck={false}
                maxLength={512}
                value={passphrase}
                onChange={(e) => setPassphrase(e.target.value)}
              />
              <Button type="button" onClick={() => setPassphrase(network.proposal)}>
                Suggest one
              </Button>
            </Flex>
          )}
        </Field>
        {elsewhere && <Notice role="alert">{elsewhere}</Notice>}
        {close.error && <Notice role="alert">{sentenceOf(close.error)}</Notice>}
        <Flex gap="2" mt="3" wrap="wrap">
          {isOn ? (
            <>
              <Button type="submit" disabled={open.isPending || passphrase === ''}>
                Change the passphrase
              </Button>
              <Button type="button" onClick={() => close.mutate()} disabled={close.isPending}>
                Turn off
              </Button>
            </>
          ) : (
            <Button tone="strong" type="submit" disabled={open.isPending || (!hasPassphrase && passphrase === '')}>
              Turn on
            </Button>
          )}
        </Flex>
      </form>
    </Panel>
  );
}
