import { Box } from '@chakra-ui/react';
import type { Schemas } from '../shared/api/client';
import { Fold } from '../shared/ui/Fold';
import { Table } from '../shared/ui/Table';
import { number, useUnits, type Units } from '../shared/units/units';
import { typedNumber } from '../shared/units/decimals';

/** How far the arm was from the plan, phase by phase. */
export function ArmBesidePlan({ arm }: { arm: Schemas['PlanDistance'] | null }) {
  const units = useUnits();
  if (!arm) return null;
  return (
    <Fold title="The arm beside its plan">
      <Table
        label="The arm beside its plan"
        head={['Phase', 'From', 'Off the plan', 'In its band']}
        rows={arm.phases.map((p) => ({
          key: String(p.fromSeconds),
          cells: [p.name, `${number(p.fromSeconds, 0)} s`, off(p.offBar, units), `${number(p.insideShare * 100, 0)} %`],
        }))}
      />
      <Box fontSize="14px" color="quiet" mt="2">
        {arm.shakeBar === null
          ? ''
          : `The hand shook by ${units.pressure(arm.shakeBar, 2).value} ${units.pressureUnit} while it should hold. `}
        {arm.missed > 0 ? `${arm.missed} ${arm.missed === 1 ? 'phase was' : 'phases were'} never reached.` : ''}
      </Box>
    </Fold>
  );
}

/** How far off, with its sign. */
function off(bar: number, units: Units): string {
  const { value, unit } = units.pressure(Math.abs(bar), 1);
  if (typedNumber(value) === 0) return `0 ${unit}`;
  return `${bar >= 0 ? '+' : '\u2212'}${value} ${unit}`;
}
