import { chakra } from '@chakra-ui/react';
import { lazy, Suspense, useRef, useState, type ReactNode } from 'react';

const WhyCard = lazy(() => import('./WhyCard'));

/** Where a number's explanation is kept: the sheet or the session as it stands, a shot or a machine. */
export type Explained = 'sheet' | 'session' | { shot: number } | { machine: number };

interface Props {
  /** What the number is called: "water", "chance". */
  of: string;
  from: Explained;
  /** The label and the number. */
  children: ReactNode;
}

const Press = chakra('button', {
  base: {
    display: 'block',
    textAlign: 'start',
    minHeight: '44px',
    maxWidth: '100%',
    cursor: 'help',
    '& > :first-of-type': {
      textDecoration: 'underline',
      textDecorationStyle: 'dotted',
      textUnderlineOffset: '3px',
    },
  },
});

/** A computed number that can be asked why: a press opens its card. */
export function Why({ of, from, children }: Props) {
  const anchor = useRef<HTMLButtonElement>(null);
  const [open, setOpen] = useState(false);
  return (
    <>
      <Press
        ref={anchor}
        type="button"
        aria-haspopup="dialog"
        aria-expanded={open}
        title="Why this number"
        onClick={() => setOpen(true)}
      >
        {children}
      </Press>
      {open && (
        <Suspense fallback={null}>
          <WhyCard of={of} from={from} anchor={() => anchor.current} close={() => setOpen(false)} />
        </Suspense>
      )}
    </>
  );
}
