import { Box } from '@chakra-ui/react';
import { useWhy } from '../shared/api/queries';
import { TextLink } from '../shared/ui/TextLink';
import { useUnits } from '../shared/units/units';

/** What the last shot of this coffee on this machine asks of the next one. */
export function LastWhy({ shotId }: { shotId: number }) {
  const { data: why, isFetched } = useWhy(shotId);
  const units = useUnits();
  // most say it in two lines: what stands below is not to move under the finger
  if (!isFetched) return <Box minHeight="42px" mt="1" />;
  if (!why || why.diagnosis.verdict === 'TooLittle') return null;
  const [first] = why.diagnosis.causes;
  return (
    <Box fontSize="14px" mt="1">
      <TextLink to={`/taste/${shotId}`}>Shot {shotId}</TextLink>: {why.headline}{' '}
      {why.diagnosis.verdict === 'NothingWrong' || !first
        ? ''
        : // one shot says one setting, all of the bag another: only what all say is shown here
          typeof first.change.grindSetting === 'number'
          ? 'Change only the grind; see the advised setting.'
          : units.sentence(first.change.do)}
      {why.taken !== null && why.taken === first?.key ? ' In use now.' : ''}
    </Box>
  );
}
