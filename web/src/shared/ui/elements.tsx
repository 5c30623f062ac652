import { Box, chakra, Flex, Grid, type HTMLChakraProps } from '@chakra-ui/react';
import type { ReactNode } from 'react';
import { sentenceOf } from '../api/client';
import { inOurUnits } from '../units/marks';
import { Why, type Explained } from '../why/Why';
import { condensed } from '../../theme/type';
import { usePageName } from './usePageName';

const Sheet = chakra('section', {
  base: { bg: 'panel', borderWidth: '1px', borderColor: 'hairline', borderRadius: 'small', minWidth: 0 },
});

/** A sheet of zinc with a hairline round it. */
export const Panel = (props: HTMLChakraProps<'section'>) => <Sheet p={{ base: '3', md: '4' }} {...props} />;

export { Button } from './Button';
export { Field, Input, Select, Textarea } from './Field';

interface FigureProps {
  label: string;
  value: ReactNode;
  unit?: string;
  note?: ReactNode;
  size?: number;
  colour?: string;
  /** Where it is explained; a figure that is computed has one. */
  why?: { of: string; from: Explained };
}

/** A reading: condensed tabular figures with unit and label. */
export function Figure({ label, value, unit, note, size = 34, colour = 'text', why }: FigureProps) {
  const reading = (
    <>
      <Box as="span" display="block" fontSize="13px" color="quiet">
        {label}
      </Box>
      <Flex as="span" align="baseline" gap="1.5" color={colour} lineHeight={1.1}>
        <Reading fontSize={`${size}px`}>{value}</Reading>
        {unit && (
          <Box as="span" fontSize={`${Math.max(14, size * 0.42)}px`} whiteSpace="nowrap">
            {unit}
          </Box>
        )}
      </Flex>
    </>
  );
  return (
    <Box minWidth={0}>
      {why ? <Why {...why}>{reading}</Why> : reading}
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
    fontStretch: condensed,
    fontWeight: 650,
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

interface PageTitleProps {
  title: string;
  children?: ReactNode;
  aside?: ReactNode;
  /** Keeps the room of buttons beside it until they are there. */
  asideToCome?: boolean;
  /** Without room under it. */
  tight?: boolean;
  /** Only for who listens on a phone, where the strip above says it. */
  inStrip?: boolean;
}

const roomy = { areas: { base: `"title" "text" "aside"`, md: `"title aside" "text aside"` }, mb: '4' };
const close = {
  areas: { base: `"title" "text" "aside"`, md: `"title aside" "text text"` },
  mb: { base: '3', md: '2' },
};

/** Heading of a page with what it is for. */
export function PageTitle({ title, children, aside, asideToCome, tight, inStrip }: PageTitleProps) {
  const heading = usePageName(title);
  const { areas, mb } = tight ? close : roomy;
  return (
    <Grid
      templateAreas={areas}
      templateColumns={{ base: 'minmax(0,1fr)', md: 'minmax(0,1fr) auto' }}
      alignItems={tight ? 'center' : 'end'}
      columnGap="4"
      mb={tight && !children ? '0' : mb}
    >
      <chakra.h1
        ref={heading}
        tabIndex={-1}
        gridArea="title"
        fontSize={tight ? '24px' : { base: '24px', md: '30px' }}
        srOnly={inStrip ? { base: true, md: false } : undefined}
      >
        {title}
      </chakra.h1>
      {children && (
        <Box
          gridArea="text"
          color="quiet"
          maxWidth={tight ? undefined : '70ch'}
          fontSize={tight ? '14px' : undefined}
          mt={tight && aside ? { md: '1' } : undefined}
        >
          {children}
        </Box>
      )}
      {(aside || asideToCome) && (
        <Box gridArea="aside" mt={{ base: '3', md: '0' }} minHeight={asideToCome ? '44px' : undefined}>
          {aside}
        </Box>
      )}
    </Grid>
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

/** A quiet word beside a heading. */
export const Aside = chakra('span', {
  base: { color: 'quiet', fontSize: '14px', fontWeight: 400, fontStretch: '100%' },
});

/** While something is on its way, or why it is not. */
export function Waiting({ error }: { error?: unknown }) {
  if (!error) return <Box color="quiet">Loading</Box>;
  return <Notice role="alert">{sentenceOf(error)}</Notice>;
}
