import { Box, chakra, Flex } from '@chakra-ui/react';
import { useId, type ReactNode } from 'react';
import { sentenceOf } from '../api/client';
import { inOurUnits } from '../units/marks';
import { usePageName } from './usePageName';

/** A sheet of zinc with a hairline round it. */
export const Panel = chakra('section', {
  base: {
    bg: 'panel',
    borderWidth: '1px',
    borderColor: 'hairline',
    borderRadius: 'small',
    p: { base: '3', md: '4' },
    minWidth: 0,
  },
});

export const Button = chakra('button', {
  base: {
    display: 'inline-flex',
    alignItems: 'center',
    justifyContent: 'center',
    gap: '2',
    minHeight: '44px',
    px: '4',
    borderWidth: '1px',
    borderColor: 'edge',
    borderRadius: 'small',
    bg: 'panel',
    color: 'text',
    fontWeight: 600,
    cursor: 'pointer',
    textAlign: 'center',
    lineHeight: 1.15,
    _hover: { borderColor: 'text' },
    _disabled: { opacity: 0.5, cursor: 'default' },
  },
  variants: {
    tone: {
      strong: { bg: 'oxide', color: 'onOxide', borderColor: 'oxide', _hover: { borderColor: 'text' } },
      plain: {},
      quiet: {
        borderColor: 'transparent',
        bg: 'transparent',
        px: '2',
        textDecoration: 'underline',
        textUnderlineOffset: '3px',
      },
    },
    size: { usual: {}, big: { minHeight: '72px', px: { base: '3', md: '6' }, fontSize: { base: '17px', md: '22px' } } },
  },
  defaultVariants: { tone: 'plain', size: 'usual' },
});

const box = {
  width: '100%',
  minHeight: '44px',
  px: '3',
  bg: 'panel',
  color: 'text',
  borderWidth: '1px',
  borderColor: 'edge',
  borderRadius: 'small',
  fontSize: '16px',
  _invalid: { borderColor: 'oxide', borderWidth: '2px' },
} as const;

export const Input = chakra('input', { base: box });
export const Textarea = chakra('textarea', { base: { ...box, py: '2', resize: 'vertical' } });
export const Select = chakra('select', { base: { ...box, pe: '2' } });

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
    <Box minWidth={0}>
      <chakra.label htmlFor={id} display="block" fontSize="13px" color="quiet" mb="1">
        {label}
        {unit ? `, ${unit}` : ''}
      </chakra.label>
      {children({ id, 'aria-describedby': about, 'aria-invalid': problem ? true : undefined })}
      {about && (
        <Box id={about} fontSize="13px" mt="1" color={problem ? 'oxide' : 'quiet'} role={problem ? 'alert' : undefined}>
          {problem ? inOurUnits(problem) : hint}
        </Box>
      )}
    </Box>
  );
}

interface FigureProps {
  label: string;
  value: ReactNode;
  unit?: string;
  note?: ReactNode;
  size?: number;
  colour?: string;
}

/** A reading: condensed tabular figures with unit and label. */
export function Figure({ label, value, unit, note, size = 34, colour = 'text' }: FigureProps) {
  return (
    <Box minWidth={0}>
      <Box fontSize="13px" color="quiet">
        {label}
      </Box>
      <Flex align="baseline" gap="1.5" color={colour} lineHeight={1.1}>
        <Reading style={{ fontSize: `${size}px` }}>{value}</Reading>
        {unit && <Box fontSize={`${Math.max(14, size * 0.42)}px`}>{unit}</Box>}
      </Flex>
      {note && (
        <Box fontSize="13px" color="quiet" mt="0.5">
          {note}
        </Box>
      )}
    </Box>
  );
}

/** Condensed tabular figures. */
export const Reading = chakra('span', {
  base: {
    fontStretch: '78%',
    fontWeight: 600,
    fontVariantNumeric: 'tabular-nums',
    fontFeatureSettings: '"tnum"',
    whiteSpace: 'nowrap',
  },
});

/** A sentence of the server says its quantities in the household's units. */
const said = (children: ReactNode) => (typeof children === 'string' ? inOurUnits(children) : children);

/** What can hurt, at the step where it happens. */
export function Caution({ children }: { children: ReactNode }) {
  return (
    <Flex gap="3" borderInlineStartWidth="4px" borderColor="oxide" ps="3" py="1" fontSize="14px">
      <Box>
        <chakra.strong color="oxide">Caution. </chakra.strong>
        {said(children)}
      </Box>
    </Flex>
  );
}

/** Something the person should know, not dangerous. */
export function Notice({ children, role }: { children: ReactNode; role?: 'status' | 'alert' }) {
  return (
    <Box role={role} borderInlineStartWidth="4px" borderColor="resistance" ps="3" py="1" fontSize="14px">
      {said(children)}
    </Box>
  );
}

/** Heading of a page with what it is for. */
export function PageTitle({ title, children, aside }: { title: string; children?: ReactNode; aside?: ReactNode }) {
  const heading = usePageName(title);
  return (
    <Flex justify="space-between" align="flex-end" gap="4" wrap="wrap" mb="4">
      <Box minWidth={0}>
        <chakra.h1 ref={heading} tabIndex={-1} fontSize={{ base: '24px', md: '30px' }}>
          {title}
        </chakra.h1>
        {children && (
          <Box color="quiet" maxWidth="70ch">
            {children}
          </Box>
        )}
      </Box>
      {aside}
    </Flex>
  );
}

/** The name of a page whose instruments take its whole window. */
export function HiddenTitle({ title }: { title: string }) {
  const heading = usePageName(title);
  return (
    <chakra.h1 ref={heading} tabIndex={-1} srOnly>
      {title}
    </chakra.h1>
  );
}

export const H2 = chakra('h2', { base: { fontSize: '17px', mb: '3' } });

/** While something is on its way, or why it is not. */
export function Waiting({ error }: { error?: unknown }) {
  if (!error) return <Box color="quiet">One moment.</Box>;
  return <Notice role="alert">{sentenceOf(error)}</Notice>;
}
