import { Box, Flex, Grid } from '@chakra-ui/react';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { api, data, type Schemas } from '../shared/api/client';
import { Button, Figure, H2, Panel } from '../shared/ui/elements';
import { number } from '../shared/units/units';
import { PredictedChart } from './PredictedChart';

type Sheet = Schemas['Sheet'];

interface Props {
  /** The sheet as the server has it. */
  sheet: Sheet;
  scaleUnit: string | undefined;
  set: (setting: number) => void;
}

/** What to set on the grinder, and the shot that the sheet would make; both follow the sheet a moment after it. */
export function PredictionPanels({ sheet, scaleUnit, set }: Props) {
  const { data: view } = useQuery({
    queryKey: ['prediction', sheet],
    queryFn: () => data(api.GET('/api/prepare/prediction')),
    placeholderData: keepPreviousData,
    retry: false,
  });
  if (!view) return null;
  const { shot, grind } = view;
  return (
    <>
      {grind && (
        <Panel aria-live="polite">
          <H2>What to set on the grinder</H2>
          {grind.suggestion && (
            <Flex gap="5" wrap="wrap" align="flex-end" mb="3">
              <Figure
                label="Advised setting"
                size={52}
                value={String(Number(grind.suggestion.setting.toFixed(2)))}
                unit={scaleUnit}
                note={`well between ${number(grind.suggestion.low, 1)} and ${number(grind.suggestion.high, 1)}`}
              />
              <Figure
                label="Chance to land"
                value={number(grind.suggestion.chance * 100, 0)}
                unit="%"
                note={grind.chanceNow === null ? undefined : `${number(grind.chanceNow * 100, 0)} % as the sheet stands`}
              />
              {sheet.grindSetting !== grind.suggestion.setting && (
                <Button onClick={() => set(grind.suggestion!.setting)}>Take it</Button>
              )}
            </Flex>
          )}
          <Box fontSize="14px" color={grind.suggestion ? 'quiet' : 'text'}>
            {grind.sentences.join(' ')}
          </Box>
        </Panel>
      )}
      {shot && (
        <Panel aria-live="polite">
          <H2>The shot this would make</H2>
          <Grid templateColumns={{ base: 'minmax(0,1fr) minmax(0,1fr)', sm: 'repeat(4, minmax(0,1fr))' }} gap="3" mb="3">
            <Figure
              label={shot.reachesYield ? 'Time to the yield' : 'Given up after'}
              value={number(shot.seconds, 0)}
              unit="s"
              note={`${number(shot.secondsLow, 0)} to ${number(shot.secondsHigh, 0)}, eight times in ten`}
            />
            <Figure label="First drops" value={number(shot.firstDropsSeconds, 0)} unit="s" />
            <Figure label="Strength" value={number(shot.strength * 100, 1)} unit="%" />
            <Figure
              label="Extraction"
              value={number(shot.extractionShare * 100, 1)}
              unit="%"
              note={`${number(shot.extractionLow * 100, 1)} to ${number(shot.extractionHigh * 100, 1)}`}
            />
          </Grid>
          <PredictedChart shot={shot} yieldGrams={sheet.yieldGrams} />
          <Box fontSize="14px" color="quiet" mt="2">
            {shot.reachesYield
              ? ''
              : 'In the middle of what is to be expected the yield is not reached: it chokes, or the water runs out. '}
            From {shot.knownShots === 0 ? 'no shot' : shot.knownShots === 1 ? 'one shot' : `${shot.knownShots} shots`} of this bag
            on this grinder. Narrowed by {shot.narrowedBy}.
          </Box>
        </Panel>
      )}
    </>
  );
}
