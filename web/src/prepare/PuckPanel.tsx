import { Box, Flex, Grid } from '@chakra-ui/react';
import { memo } from 'react';
import { Link } from 'react-router';
import type { Schemas } from '../shared/api/client';
import { Choice } from '../shared/ui/Choice';
import { PreparationFields, wholePreparation } from '../shared/ui/PreparationFields';
import { H2, Panel } from '../shared/ui/elements';
import { PuckSection } from './PuckSection';
import { wrongIn } from './wrongIn';

type Sheet = Schemas['Sheet'];

interface Props {
  family: Schemas['MachineFamily'] | undefined;
  baskets: Schemas['BenchView']['baskets'];
  basketId: number | null;
  preparation: Schemas['Preparation'] | null;
  fit: Schemas['PuckFit'] | null;
  holderWord: string;
  problems: readonly Schemas['SheetProblem'][];
  change: (part: Partial<Sheet>) => void;
}

/** Basket, headspace, and how the puck is prepared. Drawn anew only when one of them changes. */
export const PuckPanel = memo(function PuckPanel(props: Props) {
  const { family, baskets, basketId, preparation, fit, holderWord, problems, change } = props;
  const prep = wholePreparation(preparation);
  const withHolder = family !== 'TwinArmBasket' && family !== 'HandPump';
  return (
    <Panel order={3}>
      <H2>Puck</H2>
      <Grid gap="3" templateColumns={{ base: 'minmax(0,1fr)', sm: 'minmax(0,1fr) minmax(0,1fr)' }}>
        <Choice
          label="Basket"
          none={'the machine\u2019s own'}
          options={baskets}
          value={basketId}
          onChange={(basketId) => change({ basketId })}
        />
        <PreparationFields
          preparation={prep}
          change={(preparation) => change({ preparation })}
          tampProblem={wrongIn(problems, 'tampKgf')}
          withHolder={withHolder}
        />
      </Grid>
      {fit && (
        <Flex gap="4" align="center" mt="2">
          <PuckSection fit={fit} cover={prep.cover} />
          <Box flex="1" color={fit.headspace === 'TooMuch' ? 'oxide' : 'text'} role="status">
            {fit.sentence}
          </Box>
        </Flex>
      )}
      <Box fontSize="14px" color="quiet" mt="2">
        {withHolder ? `${holderWord} ` : ''}Schools differ on the tamp; what all agree on is doing it the same each
        time.{' '}
        {baskets.length === 0 && (
          <Link to="/shelf" style={{ textDecoration: 'underline' }}>
            Add your baskets
          </Link>
        )}
      </Box>
    </Panel>
  );
});
