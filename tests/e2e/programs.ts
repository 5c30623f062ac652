import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

const root = join(dirname(fileURLToPath(import.meta.url)), '..', '..');

/** A program of the application as it was built. */
export const program = (name: string) =>
  join(root, 'src', name, 'bin', 'Release', 'net10.0', `RuddySpring.${name}.dll`);
