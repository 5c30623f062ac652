import { Box, chakra, Flex, Grid } from '@chakra-ui/react';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useNavigate } from 'react-router';
import { api, data, sentenceOf, type Schemas } from '../shared/api/client';
import { useWhy } from '../shared/api/queries';
import { Fold } from '../shared/ui/Fold';
import { Aside, Button, Caution, H2, Notice, Panel, Reading, Waiting } from '../shared/ui/elements';
import { number, useUnits } from '../shared/units/units';
import { SchoolsFold } from './SchoolsFold';

type Cause = Schemas['PossibleCause'];

const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);
const lower = (text: string) => text.charAt(0).toLowerCase() + text.slice(1);

const Headline = chakra('div', { base: { fontSize: '19px', fontWeight: 650, lineHeight: 1.25 } });

const Bar = chakra('span', { base: { display: 'block', height: '6px', bg: 'text', borderRadius: 'small' } });

interface Props {
  shotId: number;
  /** Whether it was tasted: before that, what is said is short and less sure. */
  tasted: boolean;
}

/** Why a shot was as it was: the answer, the one change, and the numbers that speak for it. */
export function WhyPanel({ shotId, tasted }: Props) {
  const { data: why, error } = useWhy(shotId);
  const units = useUnits();
  const queries = useQueryClient();
  const navigate = useNavigate();
  const take = useMutation({
    mutationFn: (cause: string) =>
      data(api.POST('/api/shots/{id}/advice', { params: { path: { id: shotId } }, body: { cause } })),
    onSuccess: async (sheet) => {
      queries.setQueryData(['prepare'], sheet);
      await queries.invalidateQueries({ queryKey: ['shot', shotId, 'why'] });
      await navigate('/prepare');
    },
  });
  if (!why)
    return (
      // what stands below it on a phone lies under the screen's edge meanwhile, so that nothing moves under the finger
      <Panel aria-label="Why" minHeight={error ? undefined : { base: '85vh', lg: '112px' }}>
        <H2>Why</H2>
        <Waiting error={error} />
      </Panel>
    );
  const { diagnosis } = why;
  const [first] = diagnosis.causes;
  const changes = first && (diagnosis.verdict === 'OneCause' || diagnosis.verdict === 'CannotTell');
  const advice = changes && (
    <>
      <Box mt="2" fontWeight={650}>
        {units.sentence(first.change.do)}
      </Box>
      <Box fontSize="14px" color="quiet">
        {units.sentence(first.change.leave)} Then expect: {lower(units.sentence(first.change.expect))}
      </Box>
      {first.caution && (
        <Box mt="2">
          <Caution>{first.caution}</Caution>
        </Box>
      )}
      <Flex gap="3" mt="3" align="center" wrap="wrap">
        <Button tone="strong" disabled={take.isPending} onClick={() => take.mutate(first.key)}>
          Use this for the next shot
        </Button>
        <Box role="status" fontSize="14px" color="quiet">
          {why.taken === first.key ? 'In use: the next shot will show whether it helped.' : ''}
        </Box>
      </Flex>
      {take.error && <Notice role="alert">{sentenceOf(take.error)}</Notice>}
    </>
  );
  const earlier = why.before && (
    <Box mt="2">
      <Notice>{units.sentence(why.before.sentence)}</Notice>
    </Box>
  );
  const evidence = changes && (
    <Box mt="2">{capital(first.for.map((e) => units.sentence(e.text)).join('; ')) || 'This is a common cause'}.</Box>
  );
  const telling = diagnosis.telling && (
    <Box mt="2" fontSize="14px">
      <b>To tell more:</b> {units.sentence(diagnosis.telling.do)}{' '}
      <Box as="span" color="quiet">
        {units.sentence(diagnosis.telling.ifSo)} {units.sentence(diagnosis.telling.ifNot)}
      </Box>
    </Box>
  );
  const together = why.together && (
    <Box mt="2">
      <Notice>{why.together}</Notice>
    </Box>
  );
  const chances = diagnosis.causes.length > 0 && (
    <Grid gap="3">
      <Chance name="Nothing is wrong" probability={diagnosis.nothing} />
      {diagnosis.causes.map((cause) => (
        <CauseLine key={cause.key} cause={cause} />
      ))}
    </Grid>
  );
  if (!tasted)
    return (
      <Panel aria-label="Why" pt={{ base: '2', md: '3' }} pb={{ base: '1', md: '1' }}>
        <H2 mb="1">
          Why <Aside>from the trace alone; surer once it is tasted</Aside>
        </H2>
        <Headline>{why.headline}</Headline>
        {(chances || earlier || telling || together) && (
          <Fold
            title={changes ? 'What to change' : 'What it may be'}
            note={changes ? 'and the evidence for it' : `of ${diagnosis.signs.length} signs`}
          >
            {earlier}
            {evidence}
            {advice}
            {telling}
            {together}
            {chances && <Box mt="3">{chances}</Box>}
          </Fold>
        )}
      </Panel>
    );
  return (
    <Panel aria-label="Why">
      <H2 mb="1">Why</H2>
      <Headline>{why.headline}</Headline>
      {earlier}
      {evidence}
      {advice}
      {!changes && (
        <Box mt="2" color="quiet">
          {diagnosis.verdict === 'TooLittle'
            ? 'Say what stream and puck looked like, or record a trace.'
            : 'Change nothing for the next shot.'}
        </Box>
      )}
      {telling}
      {together}
      {chances && (
        <Fold title="What it may be" note={`of ${diagnosis.signs.length} signs`}>
          {chances}
        </Fold>
      )}
      <SchoolsFold shotId={shotId} />
      {why.score.judged > 0 && (
        <Box mt="2" fontSize="14px" color="quiet">
          {`Of ${why.score.judged} pieces of advice used here, ${why.score.worked} worked.`}
        </Box>
      )}
    </Panel>
  );
}

function Chance({ name, probability }: { name: string; probability: number }) {
  return (
    <Box>
      <Flex justify="space-between" gap="3" align="baseline">
        <Box fontWeight={650}>{name}</Box>
        <Reading>{number(probability * 100, 0)} %</Reading>
      </Flex>
      <Bar width={`${Math.max(1, probability * 100)}%`} aria-hidden="true" />
    </Box>
  );
}

function CauseLine({ cause }: { cause: Cause }) {
  const units = useUnits();
  const say = (evidence: Cause['for']) => evidence.map((e) => units.sentence(e.text)).join('; ');
  return (
    <Box>
      <Chance name={cause.name} probability={cause.probability} />
      <Box fontSize="14px" mt="1">
        {cause.for.length > 0 && <Box>For it: {say(cause.for)}.</Box>}
        {cause.against.length > 0 && <Box>Against it: {say(cause.against)}.</Box>}
        <Box color="quiet">{units.sentence(cause.change.do)}</Box>
      </Box>
    </Box>
  );
}
