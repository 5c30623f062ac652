import { lazy, memo, Suspense, useState } from 'react';
import type { Schemas } from '../shared/api/client';
import { useDevices } from '../shared/live/live';
import { Button } from '../shared/ui/elements';

type Sheet = Schemas['Sheet'];

const WeighSteps = lazy(() => import('./WeighSteps'));

/** What is weighed against, and what the weights are put on. */
export interface Weighed {
  doseGrams: number;
  preparation: Sheet['preparation'];
  waterGrams: number | null;
  hasBoiler: boolean;
  change: (part: Partial<Sheet>) => void;
}

/** One small scale does everything in turn: dose, tamp force, water in, cup. */
export const WeighPass = memo(function WeighPass(weighed: Weighed) {
  const scales = useDevices().filter((d) => !d.silent && d.latest.Weight !== undefined);
  const [open, setOpen] = useState(false);
  // a scale that falls silent on the way does not end what was begun
  if (scales.length === 0 && !open) return null;
  return (
    <>
      {/* as large as a finger in a row that does not grow by it: it comes when a scale does */}
      <Button tone="quiet" ms="auto" my="-6px" onClick={() => setOpen(true)}>
        Weigh it all
      </Button>
      {open && (
        <Suspense fallback={null}>
          <WeighSteps {...weighed} scales={scales} close={() => setOpen(false)} />
        </Suspense>
      )}
    </>
  );
});
