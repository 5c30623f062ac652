import type { Schemas } from '../shared/api/client';

export type Storage = Schemas['StorageView'];
export type Backup = Schemas['Backup'];

export const storageKey = ['storage'];

/** Why a backup was taken, in words. */
export const kinds: Record<Backup['kind'], string> = {
  Daily: 'Daily',
  ByHand: 'By hand',
  BeforeRestore: 'Before a restore',
  Brought: 'From a file',
};
