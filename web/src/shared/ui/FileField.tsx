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

/** The browser's own button in the field, drawn as the buttons of every page. */
const chooser = {
  font: 'inherit',
  fontSize: '15px',
  fontWeight: 650,
  height: '44px',
  px: '4',
  me: '3',
  bg: 'panel',
  color: 'text',
  border: 0,
  borderInlineEndWidth: '1px',
  borderInlineEndStyle: 'solid',
  borderInlineEndColor: 'edge',
  cursor: 'pointer',
} as const;

/** Choosing a file. */
export function FileField({ label, accept, take, hint, problem, disabled, stays }: Props) {
  return (
    <Field label={label} hint={hint} problem={problem}>
      {(ids) => (
        <Input
          {...ids}
          type="file"
          accept={accept}
          ps="0"
          overflow="hidden"
          color="quiet"
          _file={chooser}
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
