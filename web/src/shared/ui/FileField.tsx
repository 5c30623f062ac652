import type { ReactNode } from 'react';
import { Field, Input } from './elements';

interface Props {
  label: string;
  /** Which files are offered: their endings or types, with commas. */
  accept: string;
  /** What to do with the file that was chosen. */
  take: (file: File) => void | Promise<void>;
  hint?: ReactNode;
  problem?: string | undefined;
  disabled?: boolean;
  /** Whether the name of the file stays beside the button; otherwise the same file can be chosen again. */
  stays?: boolean;
}

/** Choosing a file. */
export function FileField({ label, accept, take, hint, problem, disabled, stays }: Props) {
  return (
    <Field label={label} hint={hint} problem={problem}>
      {(ids) => (
        <Input
          {...ids}
          type="file"
          accept={accept}
          pt="2"
          disabled={disabled}
          onChange={(e) => {
            const file = e.target.files?.[0];
            if (file) void take(file);
            if (!stays) e.target.value = '';
          }}
        />
      )}
    </Field>
  );
}
