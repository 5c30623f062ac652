import { useState } from 'react';
import { H2, Panel } from '../shared/ui/elements';
import { Radios } from '../shared/ui/Radios';

/** Light or dark, kept on this screen. */
export function LightSettings() {
  const [dark, setDark] = useState(() => document.documentElement.classList.contains('dark'));
  const choose = (next: boolean) => {
    setDark(next);
    document.documentElement.classList.toggle('dark', next);
    localStorage.setItem('ruddy-theme', next ? 'dark' : 'light');
  };
  return (
    <Panel>
      <H2>Light or dark</H2>
      <Radios
        label="Light or dark"
        stacked
        options={[
          ['light', 'Light'],
          ['dark', 'Dark, for early mornings'],
        ]}
        value={dark ? 'dark' : 'light'}
        onChange={(chosen) => choose(chosen === 'dark')}
      />
    </Panel>
  );
}
