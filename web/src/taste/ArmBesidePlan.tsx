import { Box, Table } from '@chakra-ui/react';
import type { Schemas } from '../shared/api/client';
import { number, useUnits, type Units } from '../shared/units/units';

/** How far the arm was from the plan, phase by phase, and what the trace says of a channel. */
export function ArmBesidePlan({
  arm,
  sign,
}: {
  arm: Schemas['PlanDistance'] | null;
  sign: Schemas['ChannelEvidence'] | null;
}) {
  const units = useUnits();
  if (!arm && !sign) return null;
  return (
    <Box mt="4">
      {sign && (
        <Box mb="3" fontSize="14px">
          {`At ${number(sign.atSeconds, 0)} s the resistance fell by ${number(sign.fall * 100, 0)} % more than a puck\u2019s own, with the pressure not rising: a sign of a channel.`}
        </Box>
      )}
      {arm && (
        <>
          <Table.Root aria-label="The arm beside its plan">
            <Table.Header>
              <Table.Row>
                <Table.ColumnHeader>Phase</Table.ColumnHeader>
                <Table.ColumnHeader textAlign="end">From</Table.ColumnHeader>
                <Table.ColumnHeader textAlign="end">Off the plan</Table.ColumnHeader>
                <Table.ColumnHeader textAlign="end">In its band</Table.ColumnHeader>
              </Table.Row>
            </Table.Header>
            <Table.Body>
              {arm.phases.map((p) => (
                <Table.Row key={p.fromSeconds}>
                  <Table.Cell>{p.name}</Table.Cell>
                  <Table.Cell textAlign="end">{`${number(p.fromSeconds, 0)} s`}</Table.Cell>
                  <Table.Cell textAlign="end">{off(p.offBar, units)}</Table.Cell>
                  <Table.Cell textAlign="end">{`${number(p.insideShare * 100, 0)} %`}</Table.Cell>
                </Table.Row>
              ))}
            </Table.Body>
          </Table.Root>
          <Box fontSize="14px" color="quiet" mt="2">
            {arm.shakeBar === null
              ? ''
              : `The hand shook by ${units.pressure(arm.shakeBar, 2).value} ${units.pressureUnit} while it should hold. `}
            {arm.missed > 0 ? `${arm.missed} ${arm.missed === 1 ? 'phase was' : 'phases were'} never reached.` : ''}
          </Box>
        </>
      )}
    </Box>
  );
}

/** How far off, with its sign. */
function off(bar: number, units: Units): string {
  const { value, unit } = units.pressure(Math.abs(bar), 1);
  if (Number(value) === 0) return `0 ${unit}`;
  return `${bar >= 0 ? '+' : '\u2212'}${value} ${unit}`;
}
