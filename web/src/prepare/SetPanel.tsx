import { Box, Flex, Grid } from '@chakra-ui/react';
import { memo, type ReactNode } from 'react';
import type { Schemas } from '../shared/api/client';
import { NumberField } from '../shared/ui/NumberField';
import { Button, H2, Notice, Panel, Reading } from '../shared/ui/elements';
import { number } from '../shared/units/units';
import { SameAs } from './SameAs';
import { wrongIn } from './wrongIn';
import { ownText } from '../shared/units/decimals';

type Change = (part: Partial<Schemas['Sheet']>) => void;

interface Props {
  doseGrams: number;
  yieldGrams: number;
  grindSetting: number | null;
  grinder: Schemas['GrinderView'] | undefined;
  ratio: number | null;
  ratios: readonly Schemas['RatioView'][];
  lastTime: Schemas['LastTime'] | null;
  since: Schemas['SinceShot'] | null;
  problems: readonly Schemas['SheetProblem'][];
  /** Why what was typed did not reach the server. */
  failure: string | null;
  change: Change;
  /** Beside the heading. */
  aside: ReactNode;
  /** What is set below the numbers. */
  children: ReactNode;
}

/**
 * The numbers to set, large enough to read with a portafilter in the hand. Drawn anew only when one of them changes.
 */
export const SetPanel = memo(function SetPanel(props: Props) {
  const { doseGrams, yieldGrams, grindSetting, grinder, ratio, ratios } = props;
  const { lastTime, since, problems, failure, change, aside, children } = props;
  return (
    <Panel order={1}>
      <Flex justify="space-between" align="center" gap="3" minHeight="33px">
        <H2 mb="0">Set</H2>
        {aside}
        <Box fontSize="14px" color="quiet">
          Ratio <Reading color="text">{ratio === null ? '\u2013' : `1 : ${number(ratio, 2)}`}</Reading>
        </Box>
      </Flex>
      <Grid templateColumns={{ base: 'repeat(2, minmax(0,1fr))', sm: 'repeat(3, minmax(0,1fr))' }} gap="3" rowGap="2">
        <NumberField
          label="Dose"
          unit="g"
          big
          value={doseGrams}
          step={0.1}
          problem={wrongIn(problems, 'doseGrams')}
          onChange={(v) => change({ doseGrams: v })}
        />
        <NumberField
          label="Yield"
          unit="g"
          big
          value={yieldGrams}
          step={1}
          problem={wrongIn(problems, 'yieldGrams')}
          onChange={(v) => change({ yieldGrams: v })}
        />
        <NumberField
          label="Grind"
          unit={grinder?.scaleUnit}
          big
          value={grindSetting}
          step={grinder?.step ?? 1}
          digits={2}
          problem={wrongIn(problems, 'grindSetting')}
          hint={grinder ? (grinder.finerIsLower ? 'smaller is finer' : 'larger is finer') : undefined}
          onChange={(v) => change({ grindSetting: v })}
          onClear={() => change({ grindSetting: null })}
        />
        <Ratios ratios={ratios} yieldGrams={yieldGrams} change={change} />
      </Grid>
      {children}
      <SameAs lastTime={lastTime} since={since} change={change} />
      {failure && (
        <Box mt="2">
          <Notice role="alert">{failure}</Notice>
        </Box>
      )}
    </Panel>
  );
});

interface RatiosProps {
  ratios: readonly Schemas['RatioView'][];
  yieldGrams: number;
  change: Change;
}

/** The yields that the schools ask of this roast. */
const Ratios = memo(function Ratios({ ratios, yieldGrams, change }: RatiosProps) {
  if (ratios.length === 0) return null;
  return (
    <Flex
      gap="1"
      gridColumn={{ base: '1 / -1', sm: '1 / 3' }}
      gridRow={{ sm: 2 }}
      role="group"
      aria-label="Ratios for this roast"
    >
      {ratios.map((r) => (
        <Button
          key={r.school}
          disabled={!r.fits}
          aria-pressed={yieldGrams === r.yieldGrams}
          title={r.fits ? r.why : 'more than this machine gives from this dose'}
          onClick={() => change({ yieldGrams: r.yieldGrams })}
          fontWeight={yieldGrams === r.yieldGrams ? 700 : 400}
          px="1"
          gap="1"
          flex="1"
          fontSize="14px"
          flexWrap="wrap"
        >
          {r.school}
          <Box as="span" whiteSpace="nowrap">
            1 : {ownText(r.ratio)}
          </Box>
        </Button>
      ))}
    </Flex>
  );
});
