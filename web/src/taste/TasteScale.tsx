import { Box, Flex, RadioGroup } from '@chakra-ui/react';

/** Of the names at the left, on a screen wider than a phone's. */
export const scaleLabelWidth = '66px';

interface Props {
  label: string;
  /** From least to most. */
  words: readonly string[];
  /** The number of the first of them. */
  first: number;
  /** Null where nothing was said. */
  value: number | null;
  onChange: (value: number) => void;
}

/** How much of something was tasted: five steps side by side, of which one is chosen. */
export function TasteScale({ label, words, first, value, onChange }: Props) {
  return (
    <RadioGroup.Root
      aria-label={label}
      value={value === null ? null : String(value)}
      onValueChange={(e) => e.value && onChange(Number(e.value))}
      display="grid"
      gridTemplateColumns={{ base: '58px minmax(0,1fr)', sm: `${scaleLabelWidth} minmax(0,1fr)` }}
      alignItems="center"
      columnGap="2"
    >
      <Box fontWeight={650} aria-hidden="true">
        {label}
      </Box>
      <Flex borderWidth="1px" borderColor="edge" borderRadius="small" overflow="hidden">
        {words.map((word, i) => (
          <RadioGroup.Item
            key={word}
            value={String(first + i)}
            flex="1 1 0"
            minWidth={0}
            // with the line above and below, 44 px for a finger
            minHeight="42px"
            justifyContent="center"
            px="1"
            fontSize="13px"
            textAlign="center"
            lineHeight={1.1}
            borderInlineEndWidth={i < words.length - 1 ? '1px' : 0}
            borderColor="hairline"
            _checked={{ bg: 'text', color: 'panel' }}
            _focusWithin={{ outline: '2px solid', outlineColor: 'currentcolor', outlineOffset: '-4px' }}
          >
            <RadioGroup.ItemHiddenInput />
            <RadioGroup.ItemText>{word}</RadioGroup.ItemText>
          </RadioGroup.Item>
        ))}
      </Flex>
    </RadioGroup.Root>
  );
}
