import { Flex } from '@chakra-ui/react';
import { useEffect, useState } from 'react';
import { toDecimals, typedNumber } from '../units/decimals';
import { Button, Field, Input } from './elements';

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
        <Flex gap="1">
          <Button
            type="button"
            aria-label={`${label} less`}
            onClick={() => move(-step)}
            px="0"
            width="44px"
            flexShrink={0}
          >
            {'\u2212'}
          </Button>
          <Input
            {...ids}
            inputMode="decimal"
            value={text}
            textAlign="center"
            style={{
              fontStretch: '80%',
              fontVariantNumeric: 'tabular-nums',
              fontSize: big ? '26px' : '20px',
              fontWeight: 600,
            }}
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
          >
            +
          </Button>
        </Flex>
      )}
    </Field>
  );
}
