import type { QueryClient } from '@tanstack/react-query';
import { api, data, sentenceOf } from '../api/client';
import { shotsChanged } from '../api/queries';
import { toaster } from '../ui/toaster';

/** Says that a shot is in the bin, with the way back. */
export function sayBinned(queries: QueryClient, id: number) {
  toaster.create({
    title: `Shot ${id} is in the bin.`,
    action: {
      label: 'Take it back',
      onClick: () =>
        void data(api.POST('/api/shots/{id}/restore', { params: { path: { id } } })).then(
          () => shotsChanged(queries),
          (error: unknown) => toaster.create({ title: sentenceOf(error) }),
        ),
    },
  });
}
