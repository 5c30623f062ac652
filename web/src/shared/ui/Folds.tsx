import { chakra } from '@chakra-ui/react';

/** Several folds: closed ones stand in pairs, an open one takes the whole width. */
export const Folds = chakra('div', {
  base: {
    display: 'grid',
    gridTemplateColumns: { base: 'minmax(0,1fr)', sm: 'repeat(2, minmax(0,1fr))' },
    columnGap: '3',
    '& > [data-state=open]': { gridColumn: '1 / -1', pb: '2' },
  },
});
