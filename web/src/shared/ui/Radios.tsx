import { RadioGroup } from '@chakra-ui/react';

interface Props<T extends string> {
  label: string;
  options: readonly (readonly [value: T, word: string])[];
  value: T;
  onChange: (value: T) => void;
  /** One under the other instead of in a row. */
  stacked?: boolean;
}

/** One of a few, all of them seen. */
export function Radios<T extends string>({ label, options, value, onChange, stacked }: Props<T>) {
  return (
    <RadioGroup.Root
      aria-label={label}
      value={value}
      onValueChange={(e) => e.value && onChange(e.value as T)}
      display="flex"
      flexDirection={stacked ? 'column' : 'row'}
      columnGap="4"
    >
      {options.map(([of, word]) => (
        <RadioGroup.Item key={of} value={of}>
          <RadioGroup.ItemHiddenInput />
          <RadioGroup.ItemControl />
          <RadioGroup.ItemText>{word}</RadioGroup.ItemText>
        </RadioGroup.Item>
      ))}
    </RadioGroup.Root>
  );
}
