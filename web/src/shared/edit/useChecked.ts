import { zodResolver } from '@hookform/resolvers/zod';
import { useForm, type DefaultValues, type FieldValues, type Path } from 'react-hook-form';
import type * as z from 'zod/mini';

/**
 * A form over something kept, or something new: it is checked before it is sent, shows what is kept now with what was
 * typed in its place,
 * and gives only what was typed, so that saving sends back nothing that somebody else changed meanwhile.
 */
export function useChecked<T extends FieldValues>(schema: z.ZodMiniType<T, T>, start: T | undefined, fresh: T) {
  const form = useForm<T>({
    resolver: zodResolver(schema),
    defaultValues: (start ?? fresh) as DefaultValues<T>,
    values: start,
    resetOptions: { keepDirtyValues: true },
  });
  const { dirtyFields, errors } = form.formState;
  return {
    form,
    /** All of something new, what was typed of something kept. */
    submit: (save: (change: Partial<T>) => void) =>
      form.handleSubmit((all) =>
        save(
          start ? (Object.fromEntries(Object.entries(all).filter(([key]) => key in dirtyFields)) as Partial<T>) : all,
        ),
      ),
    /** What is wrong with a field before it is sent. */
    problem: (field: Path<T>) => errors[field]?.message as string | undefined,
    /** Shows what is kept now, and forgets what was typed. */
    kept: (now: T) => form.reset(now, { keepDirtyValues: false, keepFieldsRef: true }),
    /** Sets a field that is no plain input. */
    set: (field: Path<T>, value: T[Path<T>]) => form.setValue(field, value as never, { shouldDirty: true }),
  };
}
