import { Button as KitButton, type ButtonProps } from '@chakra-ui/react';

interface Props extends Omit<ButtonProps, 'variant' | 'size'> {
  /** The one thing to do next, an ordinary thing, or one beside it. */
  tone?: 'strong' | 'plain' | 'quiet';
  size?: 'usual' | 'big';
}

/** What a big button has on screens of both widths, unless it is given something else. */
const big = { px: { base: '3', md: '6' }, fontSize: { base: '17px', md: '22px' } } as const;

/** A button of the kit in our recipe. */
export function Button({ tone = 'plain', size = 'usual', ...rest }: Props) {
  // the kit's types know only its own variants
  return (
    <KitButton
      variant={tone as ButtonProps['variant']}
      size={size as ButtonProps['size']}
      {...(size === 'big' ? big : {})}
      {...rest}
    />
  );
}
