import type { QueryClient } from '@tanstack/react-query';
import { api, data, sentenceOf } from '../api/client';
import { shotsChanged } from '../api/queries';
import { say } from '../ui/say';

/** Says that a shot is in the bin, with the way back. */
export function sayBinned(queries: QueryClient, id: number) {
  void say({
    title: `Shot ${id} is in the bin.`,
    action: {
      label: 'Undo',
      onClick: () =>
        void data(api.POST('/api/shots/{id}/restore', { params: { path: { id } } })).then(
          () => shotsChanged(queries),
          (error: unknown) => say({ title: sentenceOf(error) }),
        ),
    },
  });
}
