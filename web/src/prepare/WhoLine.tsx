import { Box, Flex } from '@chakra-ui/react';
import { memo } from 'react';
import type { Schemas } from '../shared/api/client';
import { wholePreparation } from '../shared/ui/PreparationFields';
import { Button } from '../shared/ui/elements';

interface Props {
  bench: Schemas['BenchView'];
  sheet: Schemas['Sheet'];
  open: () => void;
}

const covers: Record<string, string | undefined> = { Screen: 'metal screen', Paper: 'paper disc' };

/** Who brews what on which machine, in one line that opens to be changed. */
export const WhoLine = memo(function WhoLine({ bench, sheet, open }: Props) {
  const named = (list: readonly { id: number; name: string }[], id: number | null | undefined) =>
    list.find((one) => one.id === id)?.name;
  const bag = bench.bags.find((b) => b.id === sheet.bagId);
  const prep = wholePreparation(sheet.preparation ?? null);
  const puck = [
    named(bench.baskets, sheet.basketId) ?? 'its own basket',
    covers[prep.cover],
    prep.misted && 'misted',
    prep.stirred && 'stirred',
    prep.tapped && 'tapped',
  ].filter(Boolean);
  const parts = [
    named(bench.machines, sheet.machineId),
    bag ? `${bag.name}, ${bag.daysFromRoast} days` : 'beans not noted',
    named(bench.grinders, sheet.grinderId) ?? 'ground elsewhere',
    puck.join(', '),
    named(bench.brewers, sheet.brewerId),
  ].filter(Boolean);
  return (
    <Flex columnGap="1" align="center">
      <Box data-testid="who" minWidth={0}>
        {parts.join(' \u00b7 ')}
      </Box>
      <Button tone="quiet" onClick={open} aria-haspopup="dialog" my="-10px">
        Change
      </Button>
    </Flex>
  );
});
