import { Box, Flex, Grid } from '@chakra-ui/react';
import type { Schemas } from '../shared/api/client';
import { Choice } from '../shared/ui/Choice';
import { PreparationFields, wholePreparation } from '../shared/ui/PreparationFields';
import { SidePanel } from '../shared/ui/SidePanel';
import { H2 } from '../shared/ui/elements';
import { TextLink } from '../shared/ui/TextLink';
import { PuckSection } from './PuckSection';
import { wrongIn } from './wrongIn';
import { inOurUnits } from '../shared/units/marks';

interface Props {
  bench: Schemas['BenchView'];
  sheet: Schemas['Sheet'];
  answer: Schemas['SheetAnswer'];
  family: Schemas['MachineFamily'] | undefined;
  chooseMachine: (id: number) => void;
  change: (part: Partial<Schemas['Sheet']>) => void;
  close: () => void;
}

const two = { base: 'minmax(0,1fr)', sm: 'minmax(0,1fr) minmax(0,1fr)' };

/** Beans of one's own, or everybody's; who is nobody in particular may take any. */
const isFor = (bag: Schemas['BagView'], brewerId: number | null) =>
  brewerId === null || bag.brewerId === null || bag.brewerId === brewerId;

/** Machine, person, beans, grinder and how the puck is prepared; what is chosen counts at once. */
export default function SheetPanel({ bench, sheet, answer, family, chooseMachine, change, close }: Props) {
  const bag = bench.bags.find((b) => b.id === sheet.bagId);
  const prep = wholePreparation(sheet.preparation ?? null);
  const withHolder = family !== 'TwinArmBasket' && family !== 'HandPump';
  const fit = answer.puck;
  return (
    <SidePanel title="Who and what" close={close}>
      <Grid templateColumns={two} gap="3">
        <Choice
          label="Machine"
          options={bench.machines}
          value={sheet.machineId}
          onChange={(id) => id && chooseMachine(id)}
        />
        <Choice
          label="Who brews"
          none="nobody in particular"
          options={bench.brewers}
          value={sheet.brewerId}
          onChange={(brewerId) => change({ brewerId })}
        />
        <Choice
          label="Beans"
          none="not noted"
          hint={bag?.meaning}
          value={sheet.bagId}
          onChange={(bagId) => change({ bagId })}
          options={bench.bags
            .filter((b) => (!b.finished && isFor(b, sheet.brewerId)) || b.id === sheet.bagId)
            .map((b) => ({ id: b.id, name: `${b.name}, ${b.daysFromRoast} days` }))}
        />
        <Choice
          label="Grinder"
          none="ground elsewhere"
          options={bench.grinders}
          value={sheet.grinderId}
          onChange={(grinderId) => change({ grinderId })}
        />
      </Grid>
      <Box mt="5">
        <H2>Puck</H2>
      </Box>
      <Grid gap="3" templateColumns={two}>
        <Choice
          label="Basket"
          none={'the machine\u2019s own'}
          options={bench.baskets}
          value={sheet.basketId ?? null}
          onChange={(basketId) => change({ basketId })}
        />
        <PreparationFields
          preparation={prep}
          change={(preparation) => change({ preparation })}
          tampProblem={wrongIn(answer.problems, 'tampKgf')}
          withHolder={withHolder}
        />
      </Grid>
      {fit && (
        <Flex gap="4" align="center" mt="2">
          <PuckSection fit={fit} cover={prep.cover} />
          <Box flex="1" color={fit.headspace === 'TooMuch' ? 'oxide' : 'text'} role="status">
            {inOurUnits(fit.sentence)}
          </Box>
        </Flex>
      )}
      <Box fontSize="14px" color="quiet" mt="2">
        {withHolder ? `${answer.holderWord} ` : ''}Schools differ on the tamp; all agree on doing it the same each time.{' '}
        {bench.baskets.length === 0 && <TextLink to="/shelf">Add your baskets</TextLink>}
      </Box>
    </SidePanel>
  );
}
