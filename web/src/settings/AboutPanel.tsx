import { Box, Link } from '@chakra-ui/react';
import { useQuery } from '@tanstack/react-query';
import { Link as RouterLink } from 'react-router';
import { api, data } from '../shared/api/client';
import { H2, Panel } from '../shared/ui/elements';

/** Which version runs here, and where to read on. */
export function AboutPanel() {
  const { data: about } = useQuery({ queryKey: ['about'], queryFn: () => data(api.GET('/api/about')) });
  return (
    <Panel>
      <H2>About</H2>
      <Box>{about ? `Ruddy Spring ${about.version}. ` : ''}Free software under the MIT licence.</Box>
      <Box mt="2">
        <Link asChild textDecoration="underline">
          <RouterLink to="/guide">Read the guide</RouterLink>
        </Link>
      </Box>
    </Panel>
  );
}
