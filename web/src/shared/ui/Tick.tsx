import { chakra, Checkmark } from '@chakra-ui/react';

interface Props {
  checked: boolean;
  onChange: () => void;
  /** What it says to those who cannot see where it stands. */
  label: string;
}

/** A tick in a row of a long list: the browser's own box under the kit's mark, without a machine behind each. */
export function Tick({ checked, onChange, label }: Props) {
  return (
    <chakra.label
      position="relative"
      display="inline-flex"
      alignItems="center"
      justifyContent="center"
      width="36px"
      minHeight="44px"
      cursor="pointer"
      css={{ '&:has(:focus-visible)': { outline: '2px solid', outlineColor: 'text', outlineOffset: '-2px' } }}
    >
      <chakra.input
        type="checkbox"
        aria-label={label}
        checked={checked}
        onChange={onChange}
        position="absolute"
        inset="0"
        width="100%"
        height="100%"
        opacity={0}
        cursor="pointer"
      />
      <Checkmark checked={checked} />
    </chakra.label>
  );
}
