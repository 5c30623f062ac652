import { Box, Grid } from '@chakra-ui/react';
import type { Schemas } from '../shared/api/client';
import { Radios } from '../shared/ui/Radios';

type Before = Schemas['TickedBefore'];
const keyOf = {
  Preheated: 'preheated',
  Bled: 'bled',
  Purged: 'purged',
  ScreenIn: 'screenIn',
} as const satisfies Record<Schemas['DoneBefore'], keyof Before>;

const nobody: Before = { preheated: null, bled: null, purged: null, screenIn: null };

/** How many of them were forgotten, in a word. */
export function beforeInShort(before: Before | null | undefined): string {
  const said = Object.values(before ?? {}).filter((v) => v !== null);
  const forgotten = said.filter((v) => v === false).length;
  if (said.length === 0) return 'not said';
  return forgotten === 0 ? 'nothing forgotten' : `${forgotten} forgotten`;
}

interface Props {
  asked: readonly Schemas['AskedBefore'][];
  before: Before | null | undefined;
  onChange: (before: Before) => void;
}

/** What is easily forgotten before a pull: done, forgotten, or not said. */
export function BeforeAsked({ asked, before, onChange }: Props) {
  const now = { ...nobody, ...before };
  return (
    <Grid gap="1">
      {asked.map(({ what, name }) => {
        const value = now[keyOf[what]];
        return (
          <Box key={what}>
            <Box fontSize="14px">{name}</Box>
            <Radios
              label={name}
              options={[
                ['done', 'Done'],
                ['forgotten', 'Forgotten'],
                ['unsaid', 'Not sure'],
              ]}
              value={value === null ? 'unsaid' : value ? 'done' : 'forgotten'}
              onChange={(to) => onChange({ ...now, [keyOf[what]]: to === 'unsaid' ? null : to === 'done' })}
            />
          </Box>
        );
      })}
    </Grid>
  );
}
