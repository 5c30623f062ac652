import { Checkbox } from '@chakra-ui/react';
import type { ReactNode } from 'react';

interface Props {
  checked: boolean;
  onChange: (checked: boolean) => void;
  disabled?: boolean;
  /** What it says, where nothing is written beside it. */
  label?: string;
  children?: ReactNode;
}

/** Yes or no, with its word beside it. */
export function Check({ checked, onChange, disabled, label, children }: Props) {
  return (
    <Checkbox.Root checked={checked} disabled={disabled} onCheckedChange={(e) => onChange(e.checked === true)}>
      <Checkbox.HiddenInput aria-label={label} />
      <Checkbox.Control>
        <Checkbox.Indicator />
      </Checkbox.Control>
      {children && <Checkbox.Label>{children}</Checkbox.Label>}
    </Checkbox.Root>
  );
}
