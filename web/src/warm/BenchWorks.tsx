import { Grid } from '@chakra-ui/react';
import type { Schemas } from '../shared/api/client';
import { NumberField } from '../shared/ui/NumberField';
import { Field, Select } from '../shared/ui/elements';
import { useUnits } from '../shared/units/units';
import { SidePanel } from '../shared/ui/SidePanel';
import type { Wants, WantsProps } from './wants';

interface Props extends WantsProps {
  close: () => void;
}

const ways: Record<Schemas['PreheatMethod'], string> = {
  SteamBath: 'steam bath',
  Submersion: 'submersion',
  FillAndHold: 'fill and hold',
  BlankPresses: 'blank presses',
  ElectricStep: 'heater',
  None: 'no preheat',
};

/** How the bench works: what a dose takes, how the machine is warmed, how much goes in and out. */
export default function BenchWorks({ session, request, change, wrong, close }: Props) {
  const wants = request.wants as Wants;
  const set = (part: Partial<Wants>) => change((now) => ({ wants: { ...now.wants, ...part } }));
  const units = useUnits();
  return (
    <SidePanel title="How the bench works" close={close}>
      <Grid templateColumns={{ base: 'minmax(0,1fr)', sm: 'minmax(0,1fr) minmax(0,1fr)' }} gap="3">
        <NumberField
          label="Grinding a dose"
          unit="s"
          step={5}
          digits={0}
          value={wants.grindSeconds}
          problem={wrong('grindSeconds')}
          onChange={(v) => set({ grindSeconds: v })}
        />
        <NumberField
          label="Spare baskets or heads"
          step={1}
          digits={0}
          value={wants.spareBaskets}
          problem={wrong('spareBaskets')}
          hint="Filled while it warms"
          onChange={(v) => set({ spareBaskets: Math.max(0, Math.round(v)) })}
        />
        <Field label="Cups from one pull" problem={wrong('cupsAPull')}>
          {(ids) => (
            <Select {...ids} value={wants.cupsAPull} onChange={(e) => set({ cupsAPull: Number(e.target.value) })}>
              <option value={1}>one</option>
              <option value={2}>two, shared</option>
            </Select>
          )}
        </Field>
        {session.hasBoiler ? (
          <>
            <Field label="When the group is too hot">
              {(ids) => (
                <Select
                  {...ids}
                  value={String(wants.cloth)}
                  onChange={(e) => set({ cloth: e.target.value === 'true' })}
                >
                  <option value="true">cold wet cloth round it</option>
                  <option value="false">rest, switched off</option>
                </Select>
              )}
            </Field>
            <Field label="Steam milk">
              {(ids) => (
                <Select
                  {...ids}
                  value={String(wants.steamAlongside)}
                  onChange={(e) => set({ steamAlongside: e.target.value === 'true' })}
                >
                  <option value="false">after the pull</option>
                  <option value="true">while the arm pulls</option>
                </Select>
              )}
            </Field>
          </>
        ) : (
          <>
            <Field label="Warm it by" problem={wrong('preheat')}>
              {(ids) => (
                <Select
                  {...ids}
                  value={wants.preheat}
                  onChange={(e) => set({ preheat: e.target.value as Wants['preheat'], preheatTimes: null })}
                >
                  {(Object.keys(ways) as Wants['preheat'][])
                    .filter((w) =>
                      w === 'ElectricStep' ? session.hasHeater : !(session.hasHeater && /Steam|Submersion/.test(w)),
                    )
                    .map((w) => (
                      <option key={w} value={w}>
                        {ways[w]}
                      </option>
                    ))}
                </Select>
              )}
            </Field>
            {wants.preheat === 'ElectricStep' && (
              <Field label="Step of the heater" problem={wrong('heaterStepC')}>
                {(ids) => (
                  <Select
                    {...ids}
                    value={wants.heaterStepC ?? session.heaterStepsC.at(-1)}
                    onChange={(e) => set({ heaterStepC: Number(e.target.value) })}
                  >
                    {session.heaterStepsC.map((step) => (
                      <option key={step} value={step}>
                        {units.temperature(step, 0).value} {units.temperature(0).unit}
                      </option>
                    ))}
                  </Select>
                )}
              </Field>
            )}
            {(wants.preheat === 'FillAndHold' || wants.preheat === 'BlankPresses') && (
              <NumberField
                label={wants.preheat === 'FillAndHold' ? 'Times to fill and hold' : 'Blank presses'}
                step={1}
                digits={0}
                value={wants.preheatTimes ?? (wants.preheat === 'FillAndHold' ? 1 : 3)}
                problem={wrong('times')}
                onChange={(v) => set({ preheatTimes: Math.round(v) })}
              />
            )}
            <NumberField
              label="Bloom before the press"
              unit="s"
              step={5}
              digits={0}
              value={wants.bloomSeconds}
              problem={wrong('bloomSeconds')}
              onChange={(v) => set({ bloomSeconds: v })}
            />
            <NumberField
              label="Water in the kettle"
              unit="g"
              step={50}
              digits={0}
              value={wants.kettleGrams}
              problem={wrong('kettleGrams')}
              onChange={(v) => set({ kettleGrams: v })}
            />
          </>
        )}
        <NumberField
          label="Dose"
          unit="g"
          step={0.5}
          value={wants.doseGrams}
          problem={wrong('doseGrams')}
          onChange={(v) => set({ doseGrams: v })}
        />
        <NumberField
          label="Yield a pull"
          unit="g"
          step={1}
          value={wants.yieldGrams}
          problem={wrong('yieldGrams')}
          onChange={(v) => set({ yieldGrams: v })}
        />
      </Grid>
    </SidePanel>
  );
}
