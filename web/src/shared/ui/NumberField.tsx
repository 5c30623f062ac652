import { Flex } from '@chakra-ui/react';
import { useEffect, useState } from 'react';
import { toDecimals, typedNumber } from '../units/decimals';
import { Button, Field, Input } from './elements';
import { condensed, strong } from '../../theme/type';

interface Props {
  label: string;
  unit?: string;
  value: number | null;
  step: number;
  onChange: (value: number) => void;
  /** Where no number is an answer too; otherwise an emptied field keeps its number until another is typed. */
  onClear?: () => void;
  problem?: string;
  hint?: string;
  digits?: number;
  big?: boolean;
}

const reading = { fontStretch: condensed, fontVariantNumeric: 'tabular-nums', fontWeight: strong };
/** Measured in that type, in parts of its size. */
const signWidth = { figure: 0.49, point: 0.25 };
/** What is beside the number: two buttons, two gaps, padding and border, and a pixel for rounding, px. */
const beside = 2 * 44 + 2 * 4 + 8 + 2 + 1;

/** How wide the field has to be for this text with the buttons beside it, px. */
function widthWithButtons(text: string, size: number) {
  const points = text.replace(/[^.,]/g, '').length;
  const figures = text.length - points;
  return Math.ceil(size * (figures * signWidth.figure + points * signWidth.point)) + beside;
}

/** Where the field is narrow the number comes first; it can be typed, and stepped with the arrow keys. */
const roomForButtons = (text: string) => ({
  [`@container (width < ${widthWithButtons(text, 20)}px)`]: { display: 'none' },
});

/** A big reading is that big only where it still stands beside its buttons. */
const readingOf = (text: string, big: boolean) => ({
  ...reading,
  fontSize: '20px',
  ...(big && { [`@container (width >= ${widthWithButtons(text, 26)}px)`]: { fontSize: '26px' } }),
});

/** A number that is typed, or stepped with buttons and arrow keys; a decimal comma is understood. */
export function NumberField({ label, unit, value, step, onChange, onClear, problem, hint, digits = 1, big }: Props) {
  const shown = value === null ? '' : toDecimals(digits, value);
  const [text, setText] = useState(shown);
  // what comes from outside replaces the text, unless the text already means it ("15." while typing 15.5)
  useEffect(() => {
    setText((now) => (typedNumber(now) === value ? now : shown));
  }, [value, shown]);

  const move = (by: number) => onChange(Number(((value ?? 0) + by).toFixed(3)));
  const unread = typedNumber(text) === null && text !== shown;
  return (
    <Field
      label={label}
      unit={unit}
      problem={unread ? `Type a number${shown === '' ? '' : `; until then it is ${shown}`}.` : problem}
      hint={hint}
    >
      {(ids) => (
        <Flex gap="1" containerType="inline-size" css={{ containIntrinsicInlineSize: '150px' }}>
          <Button
            type="button"
            aria-label={`${label} less`}
            onClick={() => move(-step)}
            px="0"
            width="44px"
            flexShrink={0}
            css={roomForButtons(text)}
          >
            {'\u2212'}
          </Button>
          <Input
            {...ids}
            inputMode="decimal"
            value={text}
            textAlign="center"
            px="1"
            css={readingOf(text, big ?? false)}
            onChange={(event) => {
              const next = event.target.value;
              setText(next);
              const number = typedNumber(next);
              if (number !== null) onChange(number);
              else if (next.trim() === '') onClear?.();
            }}
            onBlur={() => setText((now) => (typedNumber(now) === null ? shown : now))}
            onKeyDown={(event) => {
              if (event.key !== 'ArrowUp' && event.key !== 'ArrowDown') return;
              event.preventDefault();
              move(event.key === 'ArrowUp' ? step : -step);
            }}
          />
          <Button
            type="button"
            aria-label={`${label} more`}
            onClick={() => move(step)}
            px="0"
            width="44px"
            flexShrink={0}
            css={roomForButtons(text)}
          >
            +
          </Button>
        </Flex>
      )}
    </Field>
  );
}
