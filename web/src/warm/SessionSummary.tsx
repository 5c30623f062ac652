import { Box } from '@chakra-ui/react';
import type { Schemas } from '../shared/api/client';
import { timeOfDay } from '../shared/clock';
import { Notice } from '../shared/ui/elements';
import { number, useUnits } from '../shared/units/units';

type Session = Schemas['SessionView'];

/** What was ticked off that does not add up, or must not be. */
export function SessionNotices({ sentences }: { sentences: readonly string[] }) {
  const units = useUnits();
  return sentences.map((n) => (
    <Notice key={n} role="status">
      {units.sentence(n)}
    </Notice>
  ));
}

/** What the plan comes to, or why it cannot be met and what would help. */
export function SessionSummary({ session }: { session: Session }) {
  const origin = Date.parse(session.originAt);
  const at = (s: number) => timeOfDay(origin + s * 1000);
  if (session.problem) return <Trouble session={session} />;
  return (
    <Box fontSize="14px">
      {session.begun ? '' : `Begin at ${at(session.startSeconds)}. `}Last drink ready at{' '}
      <strong>{at(session.lastCupSeconds)}</strong>, finished at {at(session.endSeconds)}.
      {session.water.refills > 0
        ? ` ${session.hasBoiler ? 'The boiler' : 'The kettle'} has to be refilled on the way.`
        : ''}
      {session.hasBoiler
        ? ` ${number(session.water.atEndGrams, 0)} g of water left in the boiler at the end; ` +
          `${number(session.water.minimumGrams, 0)} g must stay over the element.`
        : ''}
    </Box>
  );
}

function Trouble({ session }: { session: Session }) {
  const units = useUnits();
  return (
    <Notice role="status">
      <strong>{units.sentence(session.problem!)}</strong>
      {session.remedies.length > 0 && (
        <Box as="ul" ps="4" listStyleType="disc">
          {session.remedies.map((r) => (
            <li key={r}>{units.sentence(r)}</li>
          ))}
        </Box>
      )}
    </Notice>
  );
}
