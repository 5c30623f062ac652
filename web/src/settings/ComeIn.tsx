import { Box, Flex, QrCode } from '@chakra-ui/react';
import { H2, Notice, Panel } from '../shared/ui/elements';
import type { Network } from './network';

/** The address for the tablet, and a code that it scans. */
export function ComeIn({ network }: { network: Network }) {
  const [first, ...others] = network.addresses;
  return (
    <Panel>
      <H2>On the tablet</H2>
      {first === undefined ? (
        <Notice>This machine is on no network now. Connect it; the address then appears here.</Notice>
      ) : (
        <Flex gap="5" wrap="wrap" align="center">
          {/* a camera wants dark on light, whatever the theme */}
          <QrCode.Root value={first} encoding={{ ecc: 'M' }} role="img" aria-label={`Code that leads to ${first}`}>
            <QrCode.Frame width="180px" height="180px" bg="white" p="3" borderRadius="small">
              <QrCode.Pattern fill="black" />
            </QrCode.Frame>
          </QrCode.Root>
          <Box flex="1" minWidth="220px">
            <Box>Scan the code with its camera, or open</Box>
            <Box fontSize="20px" fontWeight={650} overflowWrap="anywhere" my="1">
              {first}
            </Box>
            <Box>and sign in with the passphrase, once. Both must be on the same network.</Box>
            {others.length > 0 && (
              <Box fontSize="14px" color="quiet" mt="2">
                It also answers at {others.join(', ')}.
              </Box>
            )}
          </Box>
        </Flex>
      )}
    </Panel>
  );
}
