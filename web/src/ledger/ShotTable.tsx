import { dayOf, timeOfDay } from '../shared/clock';
import { Box, chakra } from '@chakra-ui/react';
import { memo } from 'react';
import type { Schemas } from '../shared/api/client';
import { SmallTrace } from '../shared/plot/SmallTrace';
import { Reading } from '../shared/ui/elements';
import { number, useUnits } from '../shared/units/units';
import { Check } from '../shared/ui/Check';
import { TextLink } from '../shared/ui/TextLink';

const cell = { px: '2', py: '1.5', textAlign: 'start', verticalAlign: 'middle' } as const;
const Th = chakra('th', {
  base: { ...cell, fontSize: '13px', color: 'quiet', fontWeight: 500, whiteSpace: 'nowrap', lineHeight: 1.15 },
});
const Td = chakra('td', { base: cell });

const time = (iso: string) => timeOfDay(Date.parse(iso));
const wide = { base: 'none', lg: 'table-cell' } as const;
const middle = { base: 'none', md: 'table-cell' } as const;

interface Props {
  shots: readonly Schemas['ShotLine'][];
  pinned: readonly number[];
  pin: (id: number) => void;
  open: (id: number) => void;
}

/** The shots of a page of the ledger. */
export function ShotTable({ shots, pinned, pin, open }: Props) {
  const units = useUnits();
  return (
    <chakra.table width="100%" borderCollapse="collapse" tableLayout="auto">
      <thead>
        <tr>
          <Th scope="col">
            <chakra.span srOnly>Compare</chakra.span>
          </Th>
          <Th scope="col">Shot</Th>
          <Th scope="col">Trace</Th>
          <Th scope="col" display={middle}>
            Coffee and machine
          </Th>
          <Th scope="col" display={wide}>
            Grind
          </Th>
          <Th scope="col" textAlign="end">
            In, out
            <br />g
          </Th>
          <Th scope="col" textAlign="end" display={middle}>
            Ratio
            <br />1 :
          </Th>
          <Th scope="col" textAlign="end">
            Time
            <br />s
          </Th>
          <Th scope="col" textAlign="end" display={wide}>
            Drops
            <br />s
          </Th>
          <Th scope="col" textAlign="end" display={wide}>
            Peak
            <br />
            {units.pressureUnit}
          </Th>
          <Th scope="col" textAlign="end" display={wide}>
            Flow
            <br />
            g/s
          </Th>
          <Th scope="col" textAlign="end" display={middle}>
            R10
            <br />
            {units.resistance(0).unit}
          </Th>
          <Th scope="col" display={middle}>
            Taste
          </Th>
        </tr>
      </thead>
      <tbody>
        {shots.map((s) => (
          <ShotRow key={s.id} shot={s} pinned={pinned.includes(s.id)} pin={pin} open={open} />
        ))}
      </tbody>
    </chakra.table>
  );
}

interface RowProps {
  shot: Schemas['ShotLine'];
  pinned: boolean;
  pin: (id: number) => void;
  open: (id: number) => void;
}

/** Drawn anew only when it changes or is ticked. */
const ShotRow = memo(function ShotRow({ shot: s, pinned, pin, open }: RowProps) {
  const units = useUnits();
  return (
    <chakra.tr
      borderTopWidth="1px"
      borderColor="hairline"
      cursor="pointer"
      _hover={{ bg: 'page' }}
      onClick={(e) => {
        if (!(e.target as HTMLElement).closest('a, input, label')) open(s.id);
      }}
    >
      <Td>
        <Check checked={pinned} onChange={() => pin(s.id)} label={`Compare shot ${s.id}`} />
      </Td>
      <Td whiteSpace="nowrap">
        <TextLink to={`/taste/${s.id}`} fontWeight="650px">
          {s.id}
        </TextLink>
        <Box fontSize="13px" color="quiet" lineHeight={1.2}>
          {dayOf(s.pulledAt)}
          <br />
          {time(s.pulledAt)}
        </Box>
      </Td>
      <Td>
        <SmallTrace pressure={s.smallPressure} weight={s.smallWeight} width={96} height={42} />
        <Box display={{ base: 'block', md: 'none' }} fontSize="13px" color="quiet" lineHeight={1.25}>
          {[s.bag || 'beans not noted', s.source === 'Imported' ? 'imported' : ''].filter(Boolean).join(', ')}
        </Box>
      </Td>
      <Td display={middle}>
        <Box lineHeight={1.25}>{s.bag || 'beans not noted'}</Box>
        <Box fontSize="13px" color="quiet" lineHeight={1.25}>
          {[s.machine, s.brewer, s.source === 'Imported' ? 'imported' : ''].filter(Boolean).join(', ')}
        </Box>
      </Td>
      <Td display={wide} whiteSpace="nowrap">
        <Reading>{s.grindSetting ?? '\u2013'}</Reading>{' '}
        <chakra.span fontSize="13px" color="quiet">
          {s.grindSetting !== null ? s.scaleUnit : ''}
        </chakra.span>
      </Td>
      <Td textAlign="end" whiteSpace="nowrap">
        <Reading>
          {number(s.doseGrams, 1)}, {number(s.measures.cupGrams, 1)}
        </Reading>
      </Td>
      <Td textAlign="end" display={middle}>
        <Reading>{number(s.measures.ratio, 2)}</Reading>
      </Td>
      <Td textAlign="end">
        <Reading>{number(s.measures.secondsFromPressure, 0)}</Reading>
      </Td>
      <Td textAlign="end" display={wide}>
        <Reading>{number(s.measures.secondsToDrops, 0)}</Reading>
      </Td>
      <Td textAlign="end" display={wide}>
        <Reading>{units.pressure(s.measures.peakBar, 1).value}</Reading>
      </Td>
      <Td textAlign="end" display={wide}>
        <Reading>{number(s.measures.meanFlowGramsPerS, 2)}</Reading>
      </Td>
      <Td textAlign="end" display={middle}>
        <Reading>{units.resistance(s.measures.r10).value}</Reading>
      </Td>
      <Td display={middle} maxWidth="190px">
        <Box lineHeight={1.25}>{s.taste.liking !== null ? `${s.taste.liking} of 5` : 'not tasted'}</Box>
        <Box fontSize="13px" color="quiet" truncate>
          {s.taste.words}
        </Box>
      </Td>
    </chakra.tr>
  );
});
