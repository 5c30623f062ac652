import { useState } from 'react';
import { Input } from '../shared/ui/elements';
import { toDecimals, typedNumber } from '../shared/units/decimals';

interface Props {
  label: string;
  placeholder: string;
  value: number | null;
  onChange: (value: number | null) => void;
}

/** A number that may be missing; half a number, as while typing, changes nothing. */
export function LimitInput({ label, placeholder, value, onChange }: Props) {
  const [typed, setTyped] = useState<string | null>(null);
  return (
    <Input
      aria-label={label}
      placeholder={placeholder}
      inputMode="decimal"
      value={typed ?? (value === null ? '' : toDecimals(2, value))}
      onChange={(e) => {
        const text = e.target.value;
        setTyped(text);
        const number = typedNumber(text);
        if (text.trim() === '') onChange(null);
        else if (number !== null && number >= 0) onChange(number);
      }}
      onBlur={() => setTyped(null)}
    />
  );
}
