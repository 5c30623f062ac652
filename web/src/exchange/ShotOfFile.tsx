import { Box, Grid } from '@chakra-ui/react';
import type { Schemas } from '../shared/api/client';
import { useBench } from '../shared/api/queries';
import { Choice } from '../shared/ui/Choice';
import { NumberField } from '../shared/ui/NumberField';
import { PreparationFields, wholePreparation } from '../shared/ui/PreparationFields';
import { Button, Field, Input, Select, Textarea } from '../shared/ui/elements';
import { useUnits } from '../shared/units/units';
import { ownText } from '../shared/units/decimals';

export type ImportedShot = Required<Schemas['ImportedShot']>;

/** The fields that are drawn here. */
export const fieldsOfShot = [
  'pulledAt',
  'doseGrams',
  'yieldGrams',
  'grindSetting',
  'waterC',
  'groupC',
  'tampKgf',
  'seen',
] as const;

interface Props {
  shot: ImportedShot;
  change: (part: Partial<ImportedShot>) => void;
  wrong: (field: (typeof fieldsOfShot)[number]) => string | undefined;
  /** What is stored where nothing is typed. */
  stored: Pick<Schemas['ImportPreview'], 'yieldGrams' | 'groupC'>;
}

const minute = 60_000;
/** A time as its field writes it, by the clock on the wall. */
const onTheWall = (utc: string) => {
  const at = new Date(utc);
  return new Date(at.getTime() - at.getTimezoneOffset() * minute).toISOString().slice(0, 16);
};

/** What a shot has that its file does not say. */
export function ShotOfFile({ shot, change, wrong, stored }: Props) {
  const { data: bench } = useBench();
  const units = useUnits();
  const degrees = units.of('degC');
  if (!bench) return null;
  const grinder = bench.grinders.find((g) => g.id === shot.grinderId);
  const machine = bench.machines.find((m) => m.id === shot.machineId);
  const plans = bench.plans.filter((p) => machine?.planKeys.includes(p.key));
  const degreesOf = (label: string, field: 'waterC' | 'groupC', hint?: string) => (
    <NumberField
      label={label}
      unit={degrees.unit}
      step={1}
      value={shot[field] === null ? null : degrees.show(shot[field])}
      hint={hint}
      problem={wrong(field)}
      onChange={(v) => change({ [field]: degrees.wire(v) })}
      onClear={() => change({ [field]: null })}
    />
  );
  return (
    <Grid gap="3" templateColumns={{ base: 'minmax(0,1fr)', sm: 'minmax(0,1fr) minmax(0,1fr)' }} alignItems="start">
      <Box gridColumn="1 / -1">
        <Field label="Pulled at" problem={wrong('pulledAt')}>
          {(ids) => (
            <Input
              {...ids}
              type="datetime-local"
              value={onTheWall(shot.pulledAt)}
              onChange={(e) => e.target.value && change({ pulledAt: new Date(e.target.value).toISOString() })}
            />
          )}
        </Field>
      </Box>
      <Choice
        label="Machine"
        options={bench.machines}
        value={shot.machineId}
        onChange={(id) => id !== null && change({ machineId: id, planKey: null })}
      />
      <Choice
        label="Beans"
        none="not noted"
        options={bench.bags}
        value={shot.bagId}
        onChange={(bagId) => change({ bagId })}
      />
      <Choice
        label="Who brewed"
        none="not noted"
        options={bench.brewers}
        value={shot.brewerId}
        onChange={(brewerId) => change({ brewerId })}
      />
      <NumberField
        label="Dose"
        unit="g"
        value={shot.doseGrams}
        step={0.1}
        problem={wrong('doseGrams')}
        onChange={(doseGrams) => change({ doseGrams })}
      />
      <NumberField
        label="Target yield"
        unit="g"
        value={shot.yieldGrams}
        step={0.5}
        hint={
          shot.yieldGrams === null && stored.yieldGrams !== null
            ? `empty: ${ownText(stored.yieldGrams)} g, as in the cup`
            : undefined
        }
        problem={wrong('yieldGrams')}
        onChange={(yieldGrams) => change({ yieldGrams })}
        onClear={() => change({ yieldGrams: null })}
      />
      <Choice
        label="Grinder"
        none="not noted"
        options={bench.grinders}
        value={shot.grinderId}
        onChange={(grinderId) => change({ grinderId, grindSetting: grinderId === null ? null : shot.grindSetting })}
      />
      {grinder && (
        <NumberField
          label="Grind"
          unit={grinder.scaleUnit}
          value={shot.grindSetting}
          step={grinder.step}
          digits={2}
          problem={wrong('grindSetting')}
          onChange={(grindSetting) => change({ grindSetting })}
          onClear={() => change({ grindSetting: null })}
        />
      )}
      <Field label="Plan">
        {(ids) => (
          <Select {...ids} value={shot.planKey ?? ''} onChange={(e) => change({ planKey: e.target.value || null })}>
            <option value="">not known</option>
            {plans.map((p) => (
              <option key={p.key} value={p.key}>
                {p.name}
              </option>
            ))}
          </Select>
        )}
      </Field>
      {degreesOf('Water at the puck', 'waterC')}
      {degreesOf(
        'Group at lever-up',
        'groupC',
        shot.groupC === null && stored.groupC !== null
          ? `empty: ${units.channel('Group', stored.groupC)}, from the file`
          : undefined,
      )}
      <Choice
        label="Basket"
        none={'the machine\u2019s own'}
        options={bench.baskets}
        value={shot.basketId}
        onChange={(basketId) => change({ basketId })}
      />
      {shot.preparation === null ? (
        <Box gridColumn="1 / -1">
          <Button onClick={() => change({ preparation: wholePreparation(null) })}>
            Note how the puck was prepared
          </Button>
        </Box>
      ) : (
        <PreparationFields
          preparation={wholePreparation(shot.preparation)}
          change={(preparation) => change({ preparation })}
          tampProblem={wrong('tampKgf')}
          withHolder={machine?.spec.family !== 'TwinArmBasket' && machine?.spec.family !== 'HandPump'}
        />
      )}
      <Box gridColumn="1 / -1">
        <Field label="What was seen" hint="of stream and puck: spurts, pale streaks, holes" problem={wrong('seen')}>
          {(ids) => (
            <Textarea {...ids} rows={2} value={shot.seen ?? ''} onChange={(e) => change({ seen: e.target.value })} />
          )}
        </Field>
      </Box>
    </Grid>
  );
}
