import { Grid } from '@chakra-ui/react';
import type { ReactNode } from 'react';

/**
 * Two columns on a wide screen; on a phone their panels stand in one row of the page's own order, by each panel's
 * order.
 */
export const Columns = ({ widths, children }: { widths: [number, number]; children: ReactNode }) => (
  <Grid
    display={{ base: 'flex', lg: 'grid' }}
    flexDirection="column"
    templateColumns={widths.map((w) => `minmax(0,${w}fr)`).join(' ')}
    gap="4"
    alignItems={{ base: 'stretch', lg: 'start' }}
  >
    {children}
  </Grid>
);

export const Column = ({ children }: { children: ReactNode }) => (
  <Grid display={{ base: 'contents', lg: 'grid' }} gap="4">
    {children}
  </Grid>
);
