import { Box, Flex, Grid } from '@chakra-ui/react';
import { memo, type ReactNode } from 'react';
import type { Schemas } from '../shared/api/client';
import { NumberField } from '../shared/ui/NumberField';
import { H2, Notice, Panel, Reading } from '../shared/ui/elements';
import { number } from '../shared/units/units';
import { wrongIn } from './wrongIn';

type Change = (part: Partial<Schemas['Sheet']>) => void;

interface Props {
  doseGrams: number;
  yieldGrams: number;
  grindSetting: number | null;
  grinder: Schemas['GrinderView'] | undefined;
  ratio: number | null;
  problems: readonly Schemas['SheetProblem'][];
  /** Why what was typed did not reach the server. */
  failure: string | null;
  change: Change;
  /** What to make the yield of the dose, below the two. */
  ratios: ReactNode;
  /** Beside the heading. */
  aside: ReactNode;
  /** What is set below the numbers. */
  children: ReactNode;
}

/**
 * The numbers to set, large enough to read with a portafilter in the hand. Drawn again only when one of them changes.
 */
export const SetPanel = memo(function SetPanel(props: Props) {
  const { doseGrams, yieldGrams, grindSetting, grinder, ratio, ratios } = props;
  const { problems, failure, change, aside, children } = props;
  return (
    <Panel order={1}>
      <Flex justify="space-between" align="center" gap="3" minHeight="33px">
        <H2 mb="0">Set</H2>
        {aside}
        <Box fontSize="14px" color="quiet">
          Ratio <Reading color="text">{ratio === null ? '\u2013' : `1 : ${number(ratio, 2)}`}</Reading>
        </Box>
      </Flex>
      <Grid templateColumns="repeat(auto-fit, minmax(148px,1fr))" gap="3" rowGap="2">
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
        {ratios}
      </Grid>
      {children}
      {failure && (
        <Box mt="2">
          <Notice role="alert">{failure}</Notice>
        </Box>
      )}
    </Panel>
  );
});
