import { Field as KitField, Input, NativeSelect, Textarea, type NativeSelectFieldProps } from '@chakra-ui/react';
import { useId, type ReactNode } from 'react';
import { inOurUnits } from '../units/marks';

export { Input, Textarea };

interface FieldProps {
  label: string;
  unit?: string;
  hint?: ReactNode;
  problem?: string;
  children: (ids: { id: string; 'aria-describedby'?: string; 'aria-invalid'?: boolean }) => ReactNode;
}

/** A labelled field with its unit, a word of help, and what is wrong with it. */
export function Field({ label, unit, hint, problem, children }: FieldProps) {
  const id = useId();
  const about = problem || hint ? `${id}-about` : undefined;
  return (
    <KitField.Root
      id={id}
      ids={{ control: `${id}-root`, errorText: about, helperText: about }}
      invalid={problem !== undefined}
    >
      <KitField.Label>
        {label}
        {unit ? `, ${unit}` : ''}
      </KitField.Label>
      {children({ id, 'aria-describedby': about, 'aria-invalid': problem ? true : undefined })}
      {problem ? (
        <KitField.ErrorText role="alert">{inOurUnits(problem)}</KitField.ErrorText>
      ) : (
        hint && <KitField.HelperText>{hint}</KitField.HelperText>
      )}
    </KitField.Root>
  );
}

/** One of several, from the browser's own list with an arrow of ours. */
export function Select({ children, ...rest }: NativeSelectFieldProps) {
  return (
    <NativeSelect.Root>
      <NativeSelect.Field {...rest}>{children}</NativeSelect.Field>
      <NativeSelect.Indicator />
    </NativeSelect.Root>
  );
}
