import { Box, Flex } from '@chakra-ui/react';
import { memo, useEffect, useRef, useState } from 'react';
import type { Schemas } from '../shared/api/client';
import { useDevices } from '../shared/live/live';
import { Button, Field, Figure, Select } from '../shared/ui/elements';
import { Modal } from '../shared/ui/Modal';
import { number, useUnits } from '../shared/units/units';

type Sheet = Schemas['Sheet'];

interface Props {
  doseGrams: number;
  preparation: Sheet['preparation'];
  waterGrams: number | null;
  hasBoiler: boolean;
  change: (part: Partial<Sheet>) => void;
}

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

/** One small scale does everything in turn: dose, tamp force, water in, cup. */
export const WeighPass = memo(function WeighPass({ doseGrams, preparation, waterGrams, hasBoiler, change }: Props) {
  const units = useUnits();
  const devices = useDevices();
  const scales = devices.filter((d) => !d.silent && d.latest.Weight !== undefined);
  const [open, setOpen] = useState(false);
  const [name, setName] = useState('');
  const scale = scales.find((d) => d.name === name) ?? scales[0];
  const steps: Step[] = hasBoiler ? ['dose', 'tamp', 'cup'] : ['dose', 'tamp', 'water', 'cup'];
  const [at, setAt] = useState(0);
  const [zero, setZero] = useState<number | null>(null);
  const [peak, setPeak] = useState(0);
  const weight = scale ? scale.latest.Weight! - (zero ?? 0) : 0;
  const weightNow = useRef(weight);
  useEffect(() => {
    weightNow.current = weight;
    if (zero !== null) setPeak((p) => Math.max(p, weight));
  }, [weight, zero]);

  if (scales.length === 0) return null;
  if (!open) {
    return (
      <Button
        tone="quiet"
        ms="auto"
        onClick={() => {
          setAt(0);
          setZero(null);
          setOpen(true);
        }}
      >
        Weigh it all
      </Button>
    );
  }
  const step = steps[at]!;
  const next = () => {
    setZero(null);
    setPeak(0);
    if (at + 1 < steps.length) setAt(at + 1);
    else setOpen(false);
  };
  const take = () => {
    if (step === 'dose') change({ doseGrams: Math.round(weight * 10) / 10 });
    if (step === 'tamp')
      change({ preparation: { ...preparation, tampKgf: Math.round(peak / 100) / 10 } as Sheet['preparation'] });
    next();
  };
  const kgf = units.force(peak / 1000, 1);
  return (
    <Modal title={`${at + 1} of ${steps.length}: ${words[step].title}`} close={() => setOpen(false)}>
      {scales.length > 1 && (
        <Field label="Scale">
          {(ids) => (
            <Select {...ids} value={scale!.name} onChange={(e) => setName(e.target.value)}>
              {scales.map((d) => (
                <option key={d.name}>{d.name}</option>
              ))}
            </Select>
          )}
        </Field>
      )}
      <Box my="3" role="status">
        {zero === null ? words[step].zero : words[step].then}
      </Box>
      {step === 'tamp' && zero !== null ? (
        <Figure label="Highest so far" size={52} value={kgf.value} unit={kgf.unit} />
      ) : (
        <Figure
          label={zero === null ? 'On the scale' : words[step].title}
          size={52}
          value={number(weight, 1)}
          unit="g"
          note={
            step === 'dose'
              ? `the sheet says ${number(doseGrams, 1)} g`
              : step === 'water' && waterGrams !== null
                ? `pour to ${number(waterGrams, 0)} ` +
                  `g${zero === null ? '' : `, ${number(waterGrams - weight, 0)} g to go`}`
                : undefined
          }
        />
      )}
      <Flex gap="2" mt="3" wrap="wrap">
        {zero === null ? (
          <Button
            tone="strong"
            onClick={() => {
              setZero(scale!.latest.Weight!);
              setPeak(0);
            }}
          >
            Zero
          </Button>
        ) : (
          <Button tone="strong" onClick={take}>
            {{ dose: 'Use this weight', tamp: 'Use this tamp', water: 'Poured', cup: 'Done' }[step]}
          </Button>
        )}
        <Button onClick={next}>Skip</Button>
        <Button tone="quiet" onClick={() => setOpen(false)}>
          Stop weighing
        </Button>
      </Flex>
    </Modal>
  );
});
