import { useSyncExternalStore } from 'react';
import { useShortcuts } from '../keys/shortcuts';
import { Key } from '../ui/Key';
import { Button } from '../ui/elements';
import { chartChoice } from './chartChoice';

/** Turns from the trace to the indicator card and back; C does the same. */
export function ChartSwitch() {
  const shown = useSyncExternalStore(chartChoice.subscribe, chartChoice.shown);
  useShortcuts('Chart', [{ key: 'c', does: 'Trace or indicator card', run: chartChoice.turn }]);
  const other = shown === 'card' ? 'Trace' : 'Indicator card';
  return (
    <Button size="big" px="3" aria-label={`Show the ${other.toLowerCase()}`} onClick={chartChoice.turn}>
      {other}
      <Key>c</Key>
    </Button>
  );
}
