import { createToaster } from '@chakra-ui/react';

/** What was just done is said at the edge of the window, long enough to be read and taken back. */
export const toaster = createToaster({ placement: 'bottom', duration: 15_000, overlap: false });
