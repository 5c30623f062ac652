import { Box, Flex } from '@chakra-ui/react';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { memo } from 'react';
import { api, data, type Schemas } from '../shared/api/client';
import { useLanding } from '../shared/sheet/prediction';
import { Check } from '../shared/ui/Check';
import { Fold } from '../shared/ui/Fold';
import { TextLink } from '../shared/ui/TextLink';
import { Button } from '../shared/ui/elements';
import { number, useUnits } from '../shared/units/units';

type Sheet = Schemas['Sheet'];
type Change = Schemas['ChangeOf'];
type Take = (part: Partial<Sheet>) => void;

interface Props {
  sheet: Sheet;
  locked: readonly Change[];
  /** Whether the prediction is there: what lands is asked for after it. */
  predicted: boolean;
  take: Take;
}

/** What else would land it, with anything left as it is: opens in place. */
export const WhatLands = memo(function WhatLands(props: Props) {
  return (
    <Fold title="What else would land it" open={props.locked.length > 0}>
      <Changes {...props} />
    </Fold>
  );
});

function Changes({ sheet, locked, predicted, take }: Props) {
  const units = useUnits();
  const queries = useQueryClient();
  const { changes, sentence, known } = useLanding(sheet, predicted);
  const soften = useMutation({
    mutationFn: (factor: number) =>
      data(api.POST('/api/plans/{key}/scaled', { params: { path: { key: sheet.planKey }, query: { factor } } })),
    onSuccess: () => queries.invalidateQueries({ queryKey: ['bench'] }),
  });
  const takeAll = async (parts: readonly Schemas['ChangePart'][]) => {
    const value = (of: Change) => parts.find((p) => p.of === of)?.value;
    const press = value('Pressure');
    const other = parts.find((p) => p.planKey !== null)?.planKey ?? sheet.planKey;
    const planKey = press === undefined ? other : (await soften.mutateAsync(press)).plan.key;
    take({
      planKey,
      doseGrams: value('Dose') ?? sheet.doseGrams,
      yieldGrams: value('Yield') ?? sheet.yieldGrams,
      grindSetting: value('Grind') ?? sheet.grindSetting,
    });
  };
  return (
    <>
      <Fixed locked={locked} take={take} />
      {changes.length > 0 && (
        <Box mt="2" as="ul" listStyleType="none" aria-label="Changes that land it">
          {changes.map((c) => (
            <Flex
              as="li"
              key={c.sentence}
              align="center"
              gap="3"
              borderTopWidth="1px"
              borderColor="hairline"
              minHeight="44px"
            >
              <Box flex="1">
                {units.sentence(c.sentence)} <Box as="span" color="quiet">{`${number(c.seconds, 0)} s.`}</Box>
              </Box>
              {c.parts.some((p) => p.of === 'Water') ? (
                <TextLink to="/warm">Warm</TextLink>
              ) : (
                c.parts.every((p) => p.of !== 'Time') && (
                  <Button
                    tone="quiet"
                    aria-label={`Use this: ${units.sentence(c.sentence)}`}
                    disabled={soften.isPending}
                    onClick={() => takeAll(c.parts)}
                  >
                    Use this
                  </Button>
                )
              )}
            </Flex>
          ))}
        </Box>
      )}
      {changes.length === 0 && known && sentence !== null && (
        <Box mt="2" fontSize="14px" color="quiet">
          {sentence}
        </Box>
      )}
    </>
  );
}

const fixable: [Change, string][] = [
  ['Grind', 'grind'],
  ['Dose', 'dose'],
  ['Yield', 'yield'],
  ['Pressure', 'pressure'],
  ['Plan', 'plan'],
  ['Water', 'water'],
  ['Time', 'time'],
];

/** What has to stay as it is; the rest is solved for. */
const Fixed = memo(function Fixed({ locked, take }: { locked: readonly Change[]; take: Take }) {
  return (
    <Flex as="fieldset" gap="4" rowGap="0" wrap="wrap" align="center" border="0" p="0" minWidth={0}>
      <Box as="legend" fontSize="14px" fontWeight={650} float="left" pe="2">
        Leave as it is
      </Box>
      {fixable.map(([of, name]) => (
        <Check
          key={of}
          checked={locked.includes(of)}
          onChange={(on) => take({ locked: on ? [...locked, of] : locked.filter((l) => l !== of) })}
        >
          {name}
        </Check>
      ))}
    </Flex>
  );
});
