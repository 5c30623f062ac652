import { Box, Flex } from '@chakra-ui/react';
import { useRef, useState } from 'react';
import { sentenceOf, type Schemas } from '../shared/api/client';
import { timeOfDay } from '../shared/clock';
import { useShortcuts } from '../shared/keys/shortcuts';
import { Button, Field, H2, Input, Notice, Select } from '../shared/ui/elements';
import { useUnits } from '../shared/units/units';
import type { useSessionActions } from './useSessionActions';
import { typedNumber } from '../shared/units/decimals';
import { condensed } from '../theme/type';

type Session = Schemas['SessionView'];
type Kind = Schemas['HeatReadingKind'];

interface Props {
  session: Session;
  actions: ReturnType<typeof useSessionActions>;
  setLamp: (lamp: Schemas['LampMeans']) => void;
}

/** What was read just now: a number and Enter, or one button. R puts the cursor in. */
export function Readings({ session, actions, setLamp }: Props) {
  const units = useUnits();
  const valued: Kind[] = session.hasBoiler ? ['Strip', 'Probe', 'BoilerGauge'] : ['Probe', 'Strip'];
  const [kind, setKind] = useState<Kind>(
    session.reads.includes('Probe') && !session.reads.includes('Strip') ? 'Probe' : valued[0]!,
  );
  const [text, setText] = useState('');
  const input = useRef<HTMLInputElement>(null);
  useShortcuts('A reading', [{ key: 'r', does: 'Enter a reading', run: () => input.current?.focus() }]);
  const words: Record<Kind, string> = {
    Strip: session.hasBoiler ? 'strip on the group' : 'strip on the chamber',
    Probe: session.hasBoiler ? 'probe on the group' : 'probe in the chamber',
    BoilerGauge: 'boiler gauge',
    LampOn: 'lamp on',
    LampOff: 'lamp off',
    Sizzles: 'a drop sizzles',
    DoesNotSizzle: 'a drop does not sizzle',
  };
  const gauge = kind === 'BoilerGauge';
  const send = () => {
    const value = typedNumber(text);
    if (value === null) return;
    actions.read.mutate(
      { kind, value: gauge ? value / units.pressureFactor : units.toCelsius(value) },
      {
        onSuccess: () => {
          setText('');
          input.current?.blur(); // so that the next key is a step's again
        },
      },
    );
  };
  const problem = actions.read.error;
  return (
    <>
      <H2>A reading</H2>
      <form
        onSubmit={(e) => {
          e.preventDefault();
          send();
        }}
      >
        <Flex gap="2" align="flex-end" wrap="wrap">
          <Box flex="1 1 150px">
            <Field label="What">
              {(ids) => (
                <Select {...ids} value={kind} onChange={(e) => setKind(e.target.value as Kind)}>
                  {valued.map((k) => (
                    <option key={k} value={k}>
                      {words[k]}
                    </option>
                  ))}
                </Select>
              )}
            </Field>
          </Box>
          <Box flex="1 1 110px">
            <Field label="Reads (R)" unit={gauge ? units.pressureUnit : units.temperature(0).unit}>
              {(ids) => (
                <Input
                  {...ids}
                  ref={input}
                  inputMode="decimal"
                  value={text}
                  onChange={(e) => setText(e.target.value)}
                  fontStretch={condensed}
                  fontSize="20px"
                  fontWeight={650}
                  textAlign="center"
                />
              )}
            </Field>
          </Box>
          <Button type="submit" disabled={actions.read.isPending}>
            Save
          </Button>
        </Flex>
      </form>
      <Flex gap="2" mt="3" wrap="wrap">
        <Button onClick={() => actions.read.mutate({ kind: 'Sizzles' })}>A drop sizzles</Button>
        <Button onClick={() => actions.read.mutate({ kind: 'DoesNotSizzle' })}>It does not</Button>
        {session.hasBoiler && session.reads.includes('Lamp') && session.lamp !== 'Unknown' && (
          <>
            <Button onClick={() => actions.read.mutate({ kind: 'LampOn' })}>Lamp on</Button>
            <Button onClick={() => actions.read.mutate({ kind: 'LampOff' })}>Lamp off</Button>
          </>
        )}
      </Flex>
      {session.hasBoiler && session.reads.includes('Lamp') && session.lamp === 'Unknown' && (
        <Box mt="3" fontSize="14px">
          What does a lit lamp mean on yours?{' '}
          <Flex gap="2" mt="2" wrap="wrap">
            <Button onClick={() => setLamp('Heating')}>It heats</Button>
            <Button onClick={() => setLamp('Ready')}>It is ready</Button>
          </Flex>
        </Box>
      )}
      {problem && (
        <Box mt="3">
          <Notice role="alert">{sentenceOf(problem)}</Notice>
        </Box>
      )}
      {session.readings.length > 0 && (
        <Box as="ul" mt="3" aria-label="Readings" listStyleType="none">
          {[...session.readings]
            .reverse()
            .slice(0, 6)
            .map((r) => (
              <Flex
                as="li"
                key={r.index}
                gap="3"
                fontSize="14px"
                align="center"
                borderTopWidth="1px"
                borderColor="hairline"
              >
                <Box color="quiet" width="44px">
                  {timeOfDay(Date.parse(session.originAt) + r.seconds * 1000)}
                </Box>
                <Box flex="1">
                  {words[r.kind]}
                  {r.kind === 'Strip' || r.kind === 'Probe'
                    ? ` ${units.temperature(r.value, 1).value} ${units.temperature(0).unit}`
                    : r.kind === 'BoilerGauge'
                      ? ` ${units.pressure(r.value, 2).value} ${units.pressureUnit}`
                      : ''}
                </Box>
                <Button tone="quiet" onClick={() => actions.forget.mutate(r)} aria-label={`Delete ${words[r.kind]}`}>
                  Delete
                </Button>
              </Flex>
            ))}
        </Box>
      )}
    </>
  );
}
