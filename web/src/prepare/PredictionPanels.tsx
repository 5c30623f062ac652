import { Box, Flex, Grid } from '@chakra-ui/react';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { memo, useState } from 'react';
import { Link } from 'react-router';
import { api, data, type Schemas } from '../shared/api/client';
import { Announce } from '../shared/ui/Announce';
import { Button, Figure, H2, Panel } from '../shared/ui/elements';
import { number, useUnits } from '../shared/units/units';
import { IndicatorCard } from './IndicatorCard';
import { PredictedChart } from './PredictedChart';
import { useLanding, usePrediction } from '../shared/sheet/prediction';
import { Check } from '../shared/ui/Check';
import { Radios } from '../shared/ui/Radios';

type Sheet = Schemas['Sheet'];
type Change = Schemas['ChangeOf'];

interface GrindProps {
  /** As the server has it. */
  sheet: Sheet;
  /** What has to stay, as it is being ticked, a moment ahead. */
  locked: readonly Change[];
  scaleUnit: string | undefined;
  /** Takes what is advised into the sheet. */
  take: (part: Partial<Sheet>) => void;
}

/** What to set on the grinder, with the chance that it lands, and why. */
export const GrindPanel = memo(function GrindPanel({ sheet, locked, scaleUnit, take }: GrindProps) {
  const units = useUnits();
  const queries = useQueryClient();
  const { view, known: predicted } = usePrediction(sheet);
  const { changes: landing, sentence, known } = useLanding(sheet, predicted);
  const soften = useMutation({
    mutationFn: (factor: number) =>
      data(api.POST('/api/plans/{key}/scaled', { params: { path: { key: sheet.planKey }, query: { factor } } })),
    onSuccess: () => queries.invalidateQueries({ queryKey: ['bench'] }),
  });
  const grind = view?.grind;
  if (!view || !grind) return null;
  const { suggestion } = grind;
  const takeAll = async (parts: readonly Schemas['ChangePart'][]) => {
    const value = (of: Change) => parts.find((p) => p.of === of)?.value;
    const press = value('Pressure');
    const other = parts.find((p) => p.planKey !== null)?.planKey ?? sheet.planKey;
    const planKey = press === undefined ? other : (await soften.mutateAsync(press)).plan.key;
    take({
      planKey,
      doseGrams: value('Dose') ?? sheet.doseGrams,
      yieldGrams: value('Yield') ?? sheet.yieldGrams,
      grindSetting: value('Grind') ?? sheet.grindSetting,
    });
  };
  return (
    <Panel order={3}>
      <H2>What to set on the grinder</H2>
      <Announce>
        {suggestion
          ? `Grinder: ${Number(suggestion.setting.toFixed(2))} ${scaleUnit}, lands ${number(suggestion.chance * 100, 0)} times in a hundred.`
          : ''}
      </Announce>
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
      {(suggestion || landing.length > 0 || sentence !== null) && <Fixed locked={locked} take={take} />}
      {landing.length > 0 ? (
        <Box mt="2" as="ul" style={{ listStyle: 'none' }} aria-label="Changes that land it">
          {landing.map((c) => (
            <Flex
              as="li"
              key={c.sentence}
              align="center"
              gap="3"
              borderTopWidth="1px"
              borderColor="hairline"
              minHeight="44px"
            >
              <Box flex="1">
                {units.sentence(c.sentence)} <Box as="span" color="quiet">{`${number(c.seconds, 0)} s.`}</Box>
              </Box>
              {c.parts.some((p) => p.of === 'Water') ? (
                <Link to="/warm" style={{ textDecoration: 'underline' }}>
                  Warm
                </Link>
              ) : (
                c.parts.every((p) => p.of !== 'Time') && (
                  <Button
                    tone="quiet"
                    aria-label={`Take it: ${units.sentence(c.sentence)}`}
                    disabled={soften.isPending}
                    onClick={() => takeAll(c.parts)}
                  >
                    Take it
                  </Button>
                )
              )}
            </Flex>
          ))}
        </Box>
      ) : (
        known &&
        sentence !== null && (
          <Box mt="2" fontSize="14px" color="quiet">
            {sentence}
          </Box>
        )
      )}
    </Panel>
  );
});

const fixable: [Change, string][] = [
  ['Grind', 'grind'],
  ['Dose', 'dose'],
  ['Yield', 'yield'],
  ['Pressure', 'pressure'],
  ['Plan', 'plan'],
  ['Water', 'water'],
  ['Time', 'time'],
];

/** What has to stay as it is; the rest is solved for. */
const Fixed = memo(function Fixed({ locked, take }: { locked: readonly Change[]; take: GrindProps['take'] }) {
  return (
    <Flex as="fieldset" gap="4" rowGap="0" wrap="wrap" mt="3" align="center" border="0" p="0" minWidth={0}>
      <Box as="legend" fontSize="14px" fontWeight={650} float="left" pe="2">
        Leave as it is, solve the rest
      </Box>
      {fixable.map(([of, name]) => (
        <Check
          key={of}
          checked={locked.includes(of)}
          onChange={(on) => take({ locked: on ? [...locked, of] : locked.filter((l) => l !== of) })}
        >
          {name}
        </Check>
      ))}
    </Flex>
  );
});

/** The shot that the sheet would make, with a band that is honest about what is not known yet. */
export const ShotPanel = memo(function ShotPanel({ sheet }: { sheet: Sheet }) {
  const shot = usePrediction(sheet).view?.shot;
  return shot ? <PredictedShot shot={shot} yieldGrams={sheet.yieldGrams} /> : null;
});

interface PredictedShotProps {
  shot: Schemas['PredictedShot'];
  yieldGrams: number;
}

/** Drawn anew only when another shot is predicted. */
const PredictedShot = memo(function PredictedShot({ shot, yieldGrams }: PredictedShotProps) {
  const [card, setCard] = useState(false);
  return (
    <Panel order={6}>
      <H2>The shot this would make</H2>
      <Announce>
        {`${shot.reachesYield ? 'Yield reached' : 'Given up'} after ${number(shot.seconds, 0)} seconds, strength ${number(shot.strength * 100, 1)} percent, extraction ${number(shot.extractionShare * 100, 1)} percent.`}
      </Announce>
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
      <Radios
        label="Draw it"
        options={[
          ['seconds', 'against seconds'],
          ['card', 'as indicator card'],
        ]}
        value={card ? 'card' : 'seconds'}
        onChange={(drawn) => setCard(drawn === 'card')}
      />
      {card ? <IndicatorCard shot={shot} /> : <PredictedChart shot={shot} yieldGrams={yieldGrams} />}
      <Box fontSize="14px" color="quiet" mt="2">
        {shot.reachesYield ? '' : 'The expected shot falls short of the yield: it chokes, or the water runs out. '}
        Eight shots in ten lie in the ranges. From{' '}
        {shot.knownShots === 0 ? 'no shot' : shot.knownShots === 1 ? 'one shot' : `${shot.knownShots} shots`} of this
        bag on this grinder; narrowed by {shot.narrowedBy}.
      </Box>
    </Panel>
  );
});
