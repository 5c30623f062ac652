import { Box, Grid, Popover, Portal } from '@chakra-ui/react';
import { useQuery } from '@tanstack/react-query';
import { api, data, type Schemas } from '../api/client';
import { Waiting } from '../ui/elements';
import { TextLink } from '../ui/TextLink';
import { useUnits } from '../units/units';
import type { Explained } from './Why';

function cardsOf(from: Explained): Promise<Schemas['NumberCard'][]> {
  if (from === 'sheet') return data(api.GET('/api/explain/sheet'));
  if (from === 'session') return data(api.GET('/api/explain/session'));
  return 'shot' in from
    ? data(api.GET('/api/explain/shots/{id}', { params: { path: { id: from.shot } } }))
    : data(api.GET('/api/explain/machines/{id}', { params: { path: { id: from.machine } } }));
}

interface Props {
  of: string;
  from: Explained;
  anchor: () => HTMLElement | null;
  close: () => void;
}

/** What a number is, how it is computed and from what, how sure it is, and what would narrow it. */
export default function WhyCard({ of, from, anchor, close }: Props) {
  const { data: cards, error } = useQuery({
    queryKey: ['explain', from],
    queryFn: () => cardsOf(from),
    // it is asked for when it is opened, and what is set may have changed since
    staleTime: 0,
    gcTime: 0,
    retry: false,
  });
  const card = cards?.find((c) => c.key === of);
  return (
    <Popover.Root
      open
      onOpenChange={({ open }) => !open && close()}
      positioning={{ getAnchorElement: anchor, placement: 'bottom-start' }}
      finalFocusEl={anchor}
    >
      <Portal>
        <Popover.Positioner>
          <Popover.Content aria-label={card?.title} aria-labelledby="">
            {card ? (
              <Card card={card} />
            ) : cards ? (
              <Box>There is nothing to explain here.</Box>
            ) : (
              <Waiting error={error} />
            )}
          </Popover.Content>
        </Popover.Positioner>
      </Portal>
    </Popover.Root>
  );
}

function Card({ card }: { card: Schemas['NumberCard'] }) {
  const units = useUnits();
  return (
    <>
      <Popover.Title>{card.title}</Popover.Title>
      <Box>{units.sentence(card.what)}</Box>
      <Heading>How it is computed</Heading>
      <Box>{units.sentence(card.equation)}</Box>
      <Grid as="dl" templateColumns="minmax(0,1fr) auto" columnGap="3" mt="2">
        {card.inputs.map((input) => (
          <Box key={input.name} display="contents">
            <Box as="dt" color="quiet">
              {input.name}
            </Box>
            <Box as="dd" textAlign="end">
              {units.sentence(input.value)}
            </Box>
          </Box>
        ))}
      </Grid>
      <Heading>How sure it is</Heading>
      <Box>{units.sentence(card.howSure)}</Box>
      {card.narrows && (
        <>
          <Heading>What would narrow it</Heading>
          <Box>{units.sentence(card.narrows)}</Box>
        </>
      )}
      <Box mt="3">
        <TextLink to="/terms">What the terms mean</TextLink>
      </Box>
    </>
  );
}

const Heading = ({ children }: { children: string }) => (
  <Box fontWeight={650} mt="3">
    {children}
  </Box>
);
