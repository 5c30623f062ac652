import { Box, Flex } from '@chakra-ui/react';
import { useEffect, useState } from 'react';
import type { Schemas } from '../shared/api/client';
import { Button, Field, Figure, Notice, Select } from '../shared/ui/elements';
import { Modal } from '../shared/ui/Modal';
import { number, useUnits } from '../shared/units/units';
import type { Weighed } from './WeighPass';

type Step = 'dose' | 'tamp' | 'water' | 'cup';

const words: Record<Step, { title: string; zero: string; then: string }> = {
  dose: {
    title: 'Dose',
    zero: 'Empty basket or cup on the scale, then zero.',
    then: 'Coffee into it, then take the weight.',
  },
  tamp: {
    title: 'Tamp',
    zero: 'Holder with the ground coffee on the scale, then zero.',
    then: 'Tamp on the scale; its highest reading counts.',
  },
  water: {
    title: 'Water',
    zero: 'What you pour into on the scale, then zero.',
    then: 'Pour to the mark, slowly, hands off the stream.',
  },
  cup: {
    title: 'Cup',
    zero: 'Cup on the scale, then zero.',
    then: 'Leave it there: the pull weighs what falls into it.',
  },
};

interface Props extends Weighed {
  /** Those that tell a weight now. */
  scales: readonly Schemas['DeviceView'][];
  close: () => void;
}

/** What is weighed in turn, one step at a time. */
export default function WeighSteps({ doseGrams, preparation, waterGrams, hasBoiler, change, scales, close }: Props) {
  const units = useUnits();
  // the weight of another scale would be read against this one's zero, so it stays the one until another is chosen
  const [name, setName] = useState(scales[0]?.name ?? '');
  const scale = scales.find((d) => d.name === name);
  const steps: Step[] = hasBoiler ? ['dose', 'tamp', 'cup'] : ['dose', 'tamp', 'water', 'cup'];
  const [at, setAt] = useState(0);
  const [zero, setZero] = useState<number | null>(null);
  const [peak, setPeak] = useState(0);
  const onScale = scale?.latest.Weight ?? null;
  const weight = onScale === null ? null : onScale - (zero ?? 0);
  useEffect(() => {
    if (zero !== null && weight !== null) setPeak((p) => Math.max(p, weight));
  }, [weight, zero]);

  const step = steps[at]!;
  const next = () => {
    setZero(null);
    setPeak(0);
    if (at + 1 < steps.length) setAt(at + 1);
    else close();
  };
  const take = () => {
    if (step === 'dose' && weight !== null) change({ doseGrams: Math.round(weight * 10) / 10 });
    if (step === 'tamp')
      change({ preparation: { ...preparation, tampKgf: Math.round(peak / 100) / 10 } as typeof preparation });
    next();
  };
  const kgf = units.force(peak / 1000, 1);
  const left = waterGrams !== null && weight !== null ? `, ${number(waterGrams - weight, 0)} g to go` : '';
  return (
    <Modal title={`${at + 1} of ${steps.length}: ${words[step].title}`} close={close}>
      {scales.some((d) => d.name !== name) && (
        <Field label="Scale">
          {(ids) => (
            <Select
              {...ids}
              value={name}
              onChange={(e) => {
                setName(e.target.value);
                setZero(null);
                setPeak(0);
              }}
            >
              {!scale && <option>{name}</option>}
              {scales.map((d) => (
                <option key={d.name}>{d.name}</option>
              ))}
            </Select>
          )}
        </Field>
      )}
      {onScale === null && <Notice role="status">No weight comes from the scale. Check that it is on.</Notice>}
      <Box my="3" role="status">
        {zero === null ? words[step].zero : words[step].then}
      </Box>
      {step === 'tamp' && zero !== null ? (
        <Figure label="Highest so far" size={52} value={kgf.value} unit={kgf.unit} />
      ) : (
        <Figure
          label={zero === null ? 'On the scale' : words[step].title}
          size={52}
          value={weight === null ? '\u2013' : number(weight, 1)}
          unit="g"
          note={
            step === 'dose'
              ? `the sheet says ${number(doseGrams, 1)} g`
              : step === 'water' && waterGrams !== null
                ? `pour to ${number(waterGrams, 0)} g${zero === null ? '' : left}`
                : undefined
          }
        />
      )}
      <Flex gap="2" mt="3" wrap="wrap">
        {zero === null ? (
          <Button
            tone="strong"
            disabled={onScale === null}
            onClick={() => {
              setZero(onScale);
              setPeak(0);
            }}
          >
            Zero
          </Button>
        ) : (
          <Button tone="strong" disabled={onScale === null} onClick={take}>
            {{ dose: 'Use this weight', tamp: 'Use this tamp', water: 'Poured', cup: 'Done' }[step]}
          </Button>
        )}
        <Button onClick={next}>Skip</Button>
        <Button tone="quiet" onClick={close}>
          Stop weighing
        </Button>
      </Flex>
    </Modal>
  );
}
