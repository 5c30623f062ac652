import { Box, Flex } from '@chakra-ui/react';
import { useEffect, useRef, useState } from 'react';
import { cueSaid } from '../units/cue';
import { number, useUnits } from '../units/units';
import type { LiveFrame } from '../live/live';
import type { Instrument } from './instrument';
import { countdown } from './pullCues';

interface Said {
  /** What to do now. */
  main: string;
  /** Whether it is the coach who says it, and how urgent it is. */
  kind: string;
  /** The plan's own sentence beside it. */
  beside: string;
}

/**
 * One sentence: what to do now and what ends it. What the coach has to say takes its place, the plan's stands below.
 * Re-rendered only when
 * it changes, so that a screen reader hears each once.
 */
export function Sentence({ view }: { view: Instrument }) {
  const units = useUnits();
  const [said, setSaid] = useState<Said>({
    main: units.sentence(view.frame.reading?.sentence ?? ''),
    kind: '',
    beside: '',
  });
  // React keeps every update that changes nothing until the next one that does: it is told of changes only
  const last = useRef(said);
  useEffect(() => {
    const hear = (frame: LiveFrame) => {
      const r = frame.reading;
      const plan = units.sentence(r?.sentence ?? '');
      const advice = frame.stage === 'Running' ? r?.coach?.advice : null;
      const soon = countdown(frame);
      const next: Said = soon
        ? { main: soon, kind: 'Soon', beside: plan }
        : advice
          ? { main: units.sentence(advice.sentence), kind: advice.kind, beside: advice.kind === 'Stop' ? '' : plan }
          : { main: plan, kind: '', beside: besides(frame, units, view.plan) };
      const now = last.current;
      if (now.main === next.main && now.beside === next.beside && now.kind === next.kind) return;
      last.current = next;
      setSaid(next);
    };
    hear(view.frame);
    return view.listen(hear);
  }, [view, units]);
  const loud = said.kind !== '';
  return (
    <Box minHeight={{ base: '84px', md: '88px' }}>
      <Flex
        aria-live="assertive"
        data-testid="sentence"
        data-kind={said.kind}
        fontSize={loud && said.kind !== 'Soon' ? { base: '19px', md: '27px' } : { base: '21px', md: '32px' }}
        fontWeight={650}
        lineHeight={1.12}
        borderInlineStartWidth={loud ? '8px' : 0}
        borderColor={said.kind === 'Danger' ? 'oxide' : 'text'}
        ps={loud ? '3' : 0}
        minHeight={{ base: '46px', md: '40px' }}
        align="center"
      >
        {said.main}
      </Flex>
      <Box
        fontSize={{ base: '15px', md: '20px' }}
        lineHeight={1.25}
        data-testid="coach"
        ps={loud ? '5' : 0}
        color="text"
      >
        {said.beside}
      </Box>
    </Box>
  );
}

/** What a coach adds while all goes well: the pressure that holds the flow, and what comes next. */
function besides(frame: LiveFrame, units: ReturnType<typeof useUnits>, plan: Instrument['plan']): string {
  const coach = frame.reading?.coach;
  if (!coach || frame.stage !== 'Running' || !frame.reading?.dropsSeen) return '';
  const next = plan.phases[frame.reading.phaseIndex + 1];
  if (next && coach.nextCueSeconds !== null && coach.nextCueSeconds <= 3)
    return `In ${Math.ceil(coach.nextCueSeconds)} s: ${cueSaid(next, units)}.`;
  const holdsFlow = plan.phases.some((p) => p.move === 'HoldFlow');
  const flow = `${number(coach.wantedFlowGramsPerS, 1)} g/s`;
  // a flow that the plan asks for and that no pressure gives is said; one that nobody asked for is no matter
  if (coach.flowOutOfReach) return holdsFlow ? `${flow} cannot be reached with this puck: hold what you can.` : '';
  if (coach.holdBar === null) return '';
  const hand =
    coach.holdForceKgf === null
      ? ''
      : `, ${units.force(coach.holdForceKgf, 0).value} ${units.force(0).unit} at the hand`;
  return (
    `${units.pressure(Math.round(coach.holdBar * 5) / 5, 1).value} ${units.pressureUnit} ` +
    `would hold ${flow}${hand}.`
  );
}
