import * as z from 'zod/mini';
import { name } from '../shared/edit/name';
import type { Detail } from './useKeepMachine';

/** What is typed of a machine: its name, and its numbers by their field. */
export type TypedMachine = Detail['spec'] & { name: string };

/** A machine's name and those of its numbers that can be typed; their ranges are the server's to say. */
export const machine = (numbers: Detail['numbers']) =>
  z.looseObject({
    name: name('The machine'),
    ...Object.fromEntries(numbers.map((n) => [n.field, z.optional(z.nullable(z.number()))])),
  }) as unknown as z.ZodMiniType<TypedMachine, TypedMachine>;
