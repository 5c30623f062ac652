import { Box, Flex, Grid } from '@chakra-ui/react';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { api, data, type Schemas } from '../shared/api/client';
import { Button, Figure, H2, Panel } from '../shared/ui/elements';
import { number, useUnits } from '../shared/units/units';
import { PredictedChart } from './PredictedChart';

type Sheet = Schemas['Sheet'];

/** Predicted shot and grind advice of the sheet as the server has it; they follow it a moment later. */
function usePrediction(sheet: Sheet) {
  return useQuery({
    queryKey: ['prediction', sheet],
    queryFn: () => data(api.GET('/api/prepare/prediction')),
    placeholderData: keepPreviousData,
    retry: false,
  }).data;
}

interface GrindProps {
  sheet: Sheet;
  scaleUnit: string | undefined;
  /** Takes what is advised into the sheet. */
  take: (part: Partial<Sheet>) => void;
}

/** What to set on the grinder, with the chance that it lands, and why. */
export function GrindPanel({ sheet, scaleUnit, take }: GrindProps) {
  const units = useUnits();
  const view = usePrediction(sheet);
  const grind = view?.grind;
  if (!view || !grind) return null;
  const { suggestion } = grind;
  return (
    <Panel order={3} aria-live="polite">
      <H2>What to set on the grinder</H2>
      {suggestion && (
        <Flex gap="5" wrap="wrap" align="flex-end" mb="3">
          <Figure
            label="Advised setting"
            size={52}
            value={String(Number(suggestion.setting.toFixed(2)))}
            unit={scaleUnit}
            note={`well between ${number(suggestion.low, 1)} and ${number(suggestion.high, 1)}`}
          />
          <Figure
            label="Chance to land"
            value={number(suggestion.chance * 100, 0)}
            unit="%"
            note={grind.chanceNow === null ? undefined : `${number(grind.chanceNow * 100, 0)} % as the sheet stands`}
          />
          {sheet.grindSetting !== suggestion.setting && (
            <Button onClick={() => take({ grindSetting: suggestion.setting })}>Take it</Button>
          )}
        </Flex>
      )}
      <Box fontSize="14px" color={suggestion ? 'quiet' : 'text'}>
        {grind.sentences.join(' ')}
      </Box>
      {view.withThisGrind.length > 0 && (
        <Box mt="3">
          <Box fontSize="14px" fontWeight={650}>
            Or leave the grind and change one other thing
          </Box>
          {view.withThisGrind.map((c) => (
            <Flex key={c.of} align="center" gap="3" borderTopWidth="1px" borderColor="hairline" minHeight="44px">
              <Box flex="1">{units.sentence(c.sentence)}</Box>
              {c.of !== 'Pressure' && (
                <Button
                  tone="quiet"
                  aria-label={`Take it: ${c.sentence}`}
                  onClick={() => take(c.of === 'Dose' ? { doseGrams: c.value } : { yieldGrams: c.value })}
                >
                  Take it
                </Button>
              )}
            </Flex>
          ))}
        </Box>
      )}
    </Panel>
  );
}

/** The shot that the sheet would make, with a band that is honest about what is not known yet. */
export function ShotPanel({ sheet }: { sheet: Sheet }) {
  const shot = usePrediction(sheet)?.shot;
  if (!shot) return null;
  return (
    <Panel order={6} aria-live="polite">
      <H2>The shot this would make</H2>
      <Grid templateColumns={{ base: 'minmax(0,1fr) minmax(0,1fr)', sm: 'repeat(4, minmax(0,1fr))' }} gap="3" mb="3">
        <Figure
          label={shot.reachesYield ? 'To the yield' : 'Given up after'}
          value={number(shot.seconds, 0)}
          unit="s"
          note={`${number(shot.secondsLow, 0)} to ${number(shot.secondsHigh, 0)}`}
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
        Eight shots in ten lie in the ranges. From{' '}
        {shot.knownShots === 0 ? 'no shot' : shot.knownShots === 1 ? 'one shot' : `${shot.knownShots} shots`} of this bag on this
        grinder; narrowed by {shot.narrowedBy}.
      </Box>
    </Panel>
  );
}
