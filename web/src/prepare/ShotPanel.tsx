import { Box, Flex, Grid } from '@chakra-ui/react';
import { memo, useState } from 'react';
import type { Schemas } from '../shared/api/client';
import { usePrediction } from '../shared/sheet/prediction';
import { Announce } from '../shared/ui/Announce';
import { Figure, H2, Panel } from '../shared/ui/elements';
import { Radios } from '../shared/ui/Radios';
import { number } from '../shared/units/units';
import { GrindAdvice } from './GrindAdvice';
import { IndicatorCard } from './IndicatorCard';
import { PredictedChart } from '../shared/plot/PredictedChart';
import { WhatLands } from './WhatLands';

type Sheet = Schemas['Sheet'];

interface Props {
  /** As the server has it. */
  sheet: Sheet;
  /** What has to stay, as it is being ticked, a moment ahead. */
  locked: readonly Schemas['ChangeOf'][];
  scaleUnit: string | undefined;
  /** Takes what is advised into the sheet. */
  take: (part: Partial<Sheet>) => void;
}

/**
 * The shot that the sheet would make, the chance that it lands, what to set on the grinder, and what else would land
 * it.
 */
export const ShotPanel = memo(function ShotPanel({ sheet, locked, scaleUnit, take }: Props) {
  const { view, known } = usePrediction(sheet);
  if (!view) return null;
  return (
    <Panel order={2}>
      {view.shot && (
        <PredictedShot shot={view.shot} chance={view.grind?.chanceNow ?? null} yieldGrams={sheet.yieldGrams} />
      )}
      {view.grind && <GrindAdvice grind={view.grind} setting={sheet.grindSetting} scaleUnit={scaleUnit} take={take} />}
      {view.grind && <WhatLands sheet={sheet} locked={locked} predicted={known} take={take} />}
    </Panel>
  );
});

interface PredictedShotProps {
  shot: Schemas['PredictedShot'];
  chance: number | null;
  yieldGrams: number;
}

/** Drawn again only when another shot is predicted. */
const PredictedShot = memo(function PredictedShot({ shot, chance, yieldGrams }: PredictedShotProps) {
  const [card, setCard] = useState(false);
  const from = shot.knownShots === 1 ? 'one shot' : `${shot.knownShots} shots`;
  return (
    <>
      <Flex justify="space-between" align="center" wrap="wrap" columnGap="4" mb="1">
        <H2 mb="0">The shot this would make</H2>
        <Radios
          label="Draw it"
          options={[
            ['seconds', 'against seconds'],
            ['card', 'as indicator card'],
          ]}
          value={card ? 'card' : 'seconds'}
          onChange={(drawn) => setCard(drawn === 'card')}
        />
      </Flex>
      <Announce>
        {`${shot.reachesYield ? 'Yield reached' : 'Given up'} after ${number(shot.seconds, 0)} ` +
          `seconds, strength ${number(shot.strength * 100, 1)} percent, extraction ` +
          `${number(shot.extractionShare * 100, 1)} percent.`}
      </Announce>
      <Grid templateColumns={{ base: 'repeat(3, minmax(0,1fr))', sm: 'repeat(5, minmax(0,1fr))' }} gap="3" mb="1">
        <Figure
          label={shot.reachesYield ? 'To the yield' : 'Given up after'}
          why={{ of: 'seconds', from: 'sheet' }}
          value={number(shot.seconds, 0)}
          unit="s"
          note={`${number(shot.secondsLow, 0)} to ${number(shot.secondsHigh, 0)}`}
        />
        <Figure
          label="First drops"
          why={{ of: 'firstDrops', from: 'sheet' }}
          value={number(shot.firstDropsSeconds, 0)}
          unit="s"
        />
        <Figure
          label="Strength"
          why={{ of: 'strength', from: 'sheet' }}
          value={number(shot.strength * 100, 1)}
          unit="%"
        />
        <Figure
          label="Extraction"
          why={{ of: 'extraction', from: 'sheet' }}
          value={number(shot.extractionShare * 100, 1)}
          unit="%"
          note={`${number(shot.extractionLow * 100, 1)} to ${number(shot.extractionHigh * 100, 1)}`}
        />
        {chance !== null && (
          <Figure
            label="Chance to land"
            why={{ of: 'chance', from: 'sheet' }}
            value={number(chance * 100, 0)}
            unit="%"
            note="as it is set"
          />
        )}
      </Grid>
      {card ? <IndicatorCard shot={shot} /> : <PredictedChart shot={shot} yieldGrams={yieldGrams} />}
      {!shot.reachesYield && (
        <Box fontSize="13px">The expected shot falls short of the yield: it chokes, or the water runs out.</Box>
      )}
      {shot.knownShots === 0 ? (
        <Box fontSize="13px" color="quiet">
          Eight shots in ten lie in the ranges. Pull this coffee and they get narrower.
        </Box>
      ) : (
        // a phone has it on the cards of the figures
        <Box fontSize="13px" color="quiet" display={{ base: 'none', sm: 'block' }}>
          Eight shots in ten lie in the ranges, going by {from} of this bag on this grinder.
        </Box>
      )}
    </>
  );
});
