import { Box, Flex, Grid } from '@chakra-ui/react';
import type { Schemas } from '../shared/api/client';
import { NumberField } from '../shared/ui/NumberField';
import { Button, Field, Input, Select } from '../shared/ui/elements';
import { cueKept, cueSaid } from '../shared/units/cue';
import { useUnits } from '../shared/units/units';
import { ink } from '../theme/system';
import { ArmGlyph } from './ArmPane';
import { byEvent, endings, moves, usualCue, whole, withOneMore, type Phase, type Plan } from './planWords';

interface Props {
  plan: Plan;
  hasBoiler: boolean;
  selected: number;
  select: (phase: number) => void;
  change: (phases: Phase[]) => void;
  problem: (phase: number) => string | undefined;
  /** What the arm does in each phase, as the server says it. */
  arm: readonly Schemas['ArmStep'][];
}

const usualEnd: Record<Phase['ending'], number> = {
  FirstDrops: 0,
  Seconds: 5,
  YieldShare: 1,
  Grams: 10,
  Blonding: 0,
  Strokes: 1,
};

/** The phases of a plan as a list; the chosen one with everything that can be set about it. */
export function PhaseFields({ plan, hasBoiler, selected, select, change, problem, arm }: Props) {
  const units = useUnits();
  const phases = plan.phases.map(whole);
  const { unit, show, wire } = units.of('bar');
  const set = (i: number, part: Partial<Phase>) =>
    change(
      phases.map((p, n) => {
        if (n !== i) return p;
        const next = { ...p, ...part };
        // another move says something else; another pressure only its number
        return part.move ? { ...next, cue: usualCue(next) } : next;
      }),
    );
  const swap = (i: number, by: number) => {
    const next = [...phases];
    [next[i], next[i + by]] = [next[i + by]!, next[i]!];
    change(next);
    select(i + by);
  };
  return (
    <Box>
      <Box as="ol" listStyleType="none" aria-label="Phases">
        {phases.map((phase, i) => (
          <Box as="li" key={i} borderTopWidth="1px" borderColor="hairline" py="1">
            <Flex
              as="button"
              width="100%"
              gap="3"
              align="center"
              minHeight="44px"
              textAlign="left"
              aria-expanded={selected === i}
              onClick={() => select(i)}
            >
              <svg width="22" height="22" viewBox="-11 -11 22 22" aria-hidden="true">
                <ArmGlyph move={arm[i]?.move ?? 'Hold'} x={0} y={0} stroke={ink(selected === i ? 'oxide' : 'text')} />
              </svg>
              <Box flex="1" fontWeight={selected === i ? 650 : 400}>
                {arm[i] ? units.sentence(arm[i].sentence) : phase.name}
              </Box>
              <Box color="quiet" fontSize="14px">
                {phase.name}
              </Box>
            </Flex>
            {problem(i) && (
              <Box color="oxide" fontSize="14px" pb="2" role="alert">
                {units.sentence(problem(i)!)}
              </Box>
            )}
            {selected === i && (
              <Box pb="3">
                <Grid gap="3" templateColumns={{ base: 'minmax(0,1fr)', sm: 'minmax(0,1fr) minmax(0,1fr)' }}>
                  <Field label="Name of the phase">
                    {(ids) => (
                      <Input
                        {...ids}
                        maxLength={40}
                        value={phase.name}
                        onChange={(e) => set(i, { name: e.target.value })}
                      />
                    )}
                  </Field>
                  <Field label="What the hand does">
                    {(ids) => (
                      <Select
                        {...ids}
                        value={phase.move}
                        onChange={(e) => {
                          const move = e.target.value as Phase['move'];
                          set(i, {
                            move,
                            ...(move === 'HoldFlow' && { flowGramsPerS: phase.flowGramsPerS || 1.5 }),
                            ...(move === 'Rest' && { toBar: 0 }),
                          });
                        }}
                      >
                        {(Object.keys(moves) as Phase['move'][])
                          .filter((m) => m !== 'Lift' || hasBoiler || phase.move === 'Lift')
                          .map((m) => (
                            <option key={m} value={m}>
                              {moves[m]}
                            </option>
                          ))}
                      </Select>
                    )}
                  </Field>
                  {phase.move !== 'Rest' && (
                    <NumberField
                      label={phase.move === 'HoldFlow' ? 'Never above' : 'Pressure at its end'}
                      unit={unit}
                      step={unit === 'bar' ? 0.1 : 1}
                      value={show(phase.toBar)}
                      onChange={(v) => set(i, { toBar: wire(v) })}
                    />
                  )}
                  {phase.move === 'HoldFlow' && (
                    <NumberField
                      label="Flow to hold"
                      unit="g/s"
                      step={0.1}
                      value={phase.flowGramsPerS}
                      onChange={(v) => set(i, { flowGramsPerS: v })}
                    />
                  )}
                  <Field label="It is over">
                    {(ids) => (
                      <Select
                        {...ids}
                        value={phase.ending}
                        onChange={(e) => {
                          const ending = e.target.value as Phase['ending'];
                          set(i, { ending, endsAt: usualEnd[ending] });
                        }}
                      >
                        {(Object.keys(endings) as Phase['ending'][]).map((k) => (
                          <option key={k} value={k}>
                            {endings[k]}
                          </option>
                        ))}
                      </Select>
                    )}
                  </Field>
                  {!byEvent(phase) && (
                    <NumberField
                      label={
                        { Seconds: 'Seconds', Grams: 'Grams', YieldShare: 'Share of the yield', Strokes: 'Strokes' }[
                          phase.ending as 'Grams'
                        ]
                      }
                      unit={
                        { Seconds: 's', Grams: 'g', YieldShare: '%', Strokes: '' }[phase.ending as 'Grams'] || undefined
                      }
                      step={{ Seconds: 0.5, Grams: 1, YieldShare: 5, Strokes: 0.5 }[phase.ending as 'Grams']}
                      value={phase.ending === 'YieldShare' ? phase.endsAt * 100 : phase.endsAt}
                      hint={phase.ending === 'Strokes' ? '0.5 is a half pull' : undefined}
                      onChange={(v) => set(i, { endsAt: phase.ending === 'YieldShare' ? v / 100 : v })}
                    />
                  )}
                  {(byEvent(phase) || phase.ending === 'Strokes') && (
                    <>
                      <NumberField
                        label="To the pressure within"
                        unit="s"
                        step={0.5}
                        value={phase.leadSeconds}
                        onChange={(v) => set(i, { leadSeconds: v })}
                      />
                      <NumberField
                        label="At most"
                        unit="s"
                        step={1}
                        value={phase.atMostSeconds}
                        onChange={(v) => set(i, { atMostSeconds: v })}
                      />
                    </>
                  )}
                  <Box gridColumn={{ sm: '1 / -1' }}>
                    <Field label="What the screen says">
                      {(ids) => (
                        <Input
                          {...ids}
                          maxLength={120}
                          value={cueSaid(phase, units)}
                          onChange={(e) => set(i, { cue: cueKept(e.target.value, phase, units) })}
                        />
                      )}
                    </Field>
                  </Box>
                </Grid>
                <Flex gap="1" mt="2" wrap="wrap">
                  <Button tone="quiet" disabled={i === 0} onClick={() => swap(i, -1)}>
                    Earlier
                  </Button>
                  <Button tone="quiet" disabled={i === phases.length - 1} onClick={() => swap(i, 1)}>
                    Later
                  </Button>
                  <Button
                    tone="quiet"
                    disabled={phases.length === 1}
                    onClick={() => {
                      change(phases.filter((_, n) => n !== i));
                      select(Math.max(0, i - 1));
                    }}
                  >
                    Delete step
                  </Button>
                </Flex>
              </Box>
            )}
          </Box>
        ))}
      </Box>
      <Button
        mt="2"
        disabled={phases.length >= 20}
        onClick={() => {
          change(withOneMore(phases));
          select(phases.length);
        }}
      >
        Add a phase
      </Button>
    </Box>
  );
}
