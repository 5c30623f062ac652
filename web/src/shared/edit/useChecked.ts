import { zodResolver } from '@hookform/resolvers/zod';
import { useForm, type DefaultValues, type FieldValues, type Path } from 'react-hook-form';
import type * as z from 'zod/mini';

/**
 * A form over something kept, or something new: it is checked before it is sent, and shows what is kept now with what
 * was typed in its place. Saving sends only what was typed, so that nothing that somebody else changed meanwhile is sent
 * back.
 */
export function useChecked<T extends FieldValues>(schema: z.ZodMiniType<T, T>, start: T | undefined, fresh: T) {
  const form = useForm<T>({
    resolver: zodResolver(schema),
    defaultValues: (start ?? fresh) as DefaultValues<T>,
    values: start,
    resetOptions: { keepDirtyValues: true },
  });
  const { dirtyFields, errors, isDirty } = form.formState;
  const typedOf = (all: T) =>
    Object.fromEntries(Object.entries(all).filter(([key]) => key in dirtyFields)) as Partial<T>;
  const set = (field: Path<T>, value: T[Path<T>]) => form.setValue(field, value as never, { shouldDirty: true });
  /** Shows what is kept now, and forgets what was typed. */
  const kept = (now: T) => form.reset(now, { keepDirtyValues: false, keepFieldsRef: true });
  return {
    form,
    /** Whether anything differs from what is kept. */
    changed: isDirty,
    /** What was typed and differs from what is kept. */
    typed: () => typedOf(form.getValues()),
    /** All of something new, what was typed of something kept; and all as it stands. */
    submit: (save: (change: Partial<T>, all: T) => void) =>
      form.handleSubmit((all) => {
        // what the check tidied, as the blanks round a name, is tidied in the form too
        for (const field of Object.keys(all) as Path<T>[])
          if (JSON.stringify(all[field]) !== JSON.stringify(form.getValues(field))) set(field, all[field]);
        save(start ? typedOf(all) : all, all);
      }),
    /** What is wrong with a field before it is sent. */
    problem: (field: Path<T>) => errors[field]?.message as string | undefined,
    kept,
    /** What was sent is kept now; what was typed while it was on its way stays. */
    keptAs: (sent: T) => {
      const now = form.getValues();
      kept(sent);
      for (const field of Object.keys(now) as Path<T>[])
        if (JSON.stringify(now[field]) !== JSON.stringify(sent[field])) set(field, now[field]);
    },
    /** Sets a field that is no plain input. */
    set,
  };
}
