import { dayOf } from '../shared/clock';
import { Box } from '@chakra-ui/react';
import type { Schemas } from '../shared/api/client';
import { Notice } from '../shared/ui/elements';
import { number } from '../shared/units/units';
import { Check } from '../shared/ui/Check';
import { TextLink } from '../shared/ui/TextLink';

type Kind = Schemas['ImportQuestionKind'];
type Question = Schemas['ImportQuestion'];

function Text({ question: q }: { question: Question }) {
  switch (q.kind) {
    case 'SameFile':
      return (
        <>
          This file is already stored as <TextLink to={`/taste/${q.shotId}`}>shot {q.shotId}</TextLink>.
        </>
      );
    case 'FarSetting':
      return (
        <>
          This grinder was used from {number(q.low, 1)} to {number(q.high, 1)}. Is the setting right?
        </>
      );
    case 'BeforeRoasting':
      return <>The beans were roasted on {dayOf(q.roastedOn!)}, after this shot. Are date and beans right?</>;
  }
}

const yes: Record<Kind, string> = {
  SameFile: 'Store it once more',
  FarSetting: 'The setting is right',
  BeforeRoasting: 'Both are right',
};

interface Props {
  questions: readonly Question[];
  answered: readonly Kind[];
  setAnswered: (answered: Kind[]) => void;
}

/** What looks odd about a shot is asked before it is stored. */
export function Questions({ questions, answered, setAnswered }: Props) {
  return questions.map((q) => (
    <Box key={q.kind} mt="3">
      <Notice role="status">
        <Text question={q} />
        <Check
          checked={answered.includes(q.kind)}
          onChange={(on) => setAnswered(on ? [...answered, q.kind] : answered.filter((k) => k !== q.kind))}
        >
          {yes[q.kind]}
        </Check>
      </Notice>
    </Box>
  ));
}
