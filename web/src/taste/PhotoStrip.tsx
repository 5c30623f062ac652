import { Box, Flex, Image } from '@chakra-ui/react';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { api, data, sentenceOf, type Schemas } from '../shared/api/client';
import { momentOf } from '../shared/clock';
import { Button, Notice } from '../shared/ui/elements';
import { FileField } from '../shared/ui/FileField';
import { Modal } from '../shared/ui/Modal';

type Photo = Schemas['PhotoView'];

const most = 4;

export const photosOf = (shotId: number) => ({
  queryKey: ['shot', shotId, 'photos'],
  queryFn: () => data(api.GET('/api/shots/{id}/photos', { params: { path: { id: shotId } } })),
});

/** Photos of cup and puck: small ones in a row, each large on a press. */
export function PhotoStrip({ shotId }: { shotId: number }) {
  const queries = useQueryClient();
  const { data: photos = [] } = useQuery(photosOf(shotId));
  const [open, setOpen] = useState<Photo | null>(null);
  const took = (next: Photo[]) => queries.setQueryData(photosOf(shotId).queryKey, next);
  const add = useMutation({
    mutationFn: (file: File) =>
      data(
        api.POST('/api/shots/{id}/photos', {
          params: { path: { id: shotId } },
          body: file as never,
          bodySerializer: (body) => body as unknown as File,
          headers: { 'Content-Type': file.type || 'image/jpeg' },
        }),
      ) as Promise<Photo[]>,
    onSuccess: took,
  });
  const remove = useMutation({
    mutationFn: (id: number) => data(api.DELETE('/api/photos/{id}', { params: { path: { id } } })),
    onSuccess: (next) => {
      setOpen(null);
      took(next);
    },
  });
  const name = (p: Photo) => `Photo of shot ${shotId}, added ${momentOf(p.addedAt)}`;
  return (
    <Box>
      {photos.length > 0 && (
        <Flex gap="2" wrap="wrap" mb="3">
          {photos.map((p) => (
            <Button key={p.id} p="0" height="88px" onClick={() => setOpen(p)} aria-label={name(p)}>
              <Image src={`/api/photos/${p.id}/small.jpg`} alt="" height="86px" width="auto" />
            </Button>
          ))}
        </Flex>
      )}
      {photos.length < most && (
        <FileField
          label="Add a photo of cup or puck"
          hint="Place and camera are taken out of it; at most 12 MB."
          accept="image/jpeg,image/png,image/webp"
          disabled={add.isPending}
          take={(file) => add.mutate(file)}
        />
      )}
      {add.error && <Notice role="alert">{sentenceOf(add.error)}</Notice>}
      {open && (
        <Modal
          title={`Shot ${shotId}`}
          close={() => setOpen(null)}
          foot={
            <Flex gap="2">
              <Button onClick={() => remove.mutate(open.id)} disabled={remove.isPending}>
                Delete
              </Button>
              <Button tone="strong" onClick={() => setOpen(null)}>
                Close
              </Button>
            </Flex>
          }
        >
          <Image src={`/api/photos/${open.id}.jpg`} alt={name(open)} maxHeight="70vh" width="auto" mx="auto" />
          {remove.error && <Notice role="alert">{sentenceOf(remove.error)}</Notice>}
        </Modal>
      )}
    </Box>
  );
}
