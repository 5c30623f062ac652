import { useEffect, useSyncExternalStore } from 'react';
import { Key } from '../shared/ui/Key';
import { Button } from '../shared/ui/elements';
import { chartChoice } from './chartChoice';

/** Turns from the trace to the indicator card and back; C does the same. */
export function ChartSwitch() {
  const shown = useSyncExternalStore(chartChoice.subscribe, chartChoice.shown);
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      const target = event.target as HTMLElement;
      if (event.ctrlKey || event.metaKey || event.altKey || event.key.toLowerCase() !== 'c') return;
      if (['SELECT', 'TEXTAREA', 'INPUT'].includes(target.tagName)) return;
      chartChoice.turn();
    };
    window.addEventListener('keydown', press);
    return () => window.removeEventListener('keydown', press);
  }, []);
  const other = shown === 'card' ? 'Trace' : 'Indicator card';
  return (
    <Button size="big" px="3" aria-label={`Show the ${other.toLowerCase()}`} onClick={chartChoice.turn}>
      {other}
      <Key>c</Key>
    </Button>
  );
}
