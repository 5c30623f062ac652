import { Box, Flex } from '@chakra-ui/react';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { api, data, sentenceOf } from '../shared/api/client';
import { Button, Panel } from '../shared/ui/elements';
import { Fold } from '../shared/ui/Fold';
import { NumberField } from '../shared/ui/NumberField';
import { number } from '../shared/units/units';
import { useCareChanged } from './care';

/** Hardness of the water, which sets when to descale. */
export function Hardness({ hardness, degrees }: { hardness: number; degrees: number }) {
  const changed = useCareChanged();
  const [value, setValue] = useState(hardness);
  const save = useMutation({
    mutationFn: () => data(api.PUT('/api/care/hardness', { body: { waterHardness: value } })),
    onSuccess: changed,
  });
  return (
    <Panel>
      <Fold title="Hardness of the water" note={`${number(hardness, 0)} mg/l`}>
        <Box my="2" fontSize="14px">
          It sets after how many litres to descale: where water boils, its temporary hardness stays behind as scale. Ask
          your water supplier or use a test strip. {number(hardness, 0)} mg/l of CaCO₃ are {number(degrees, 1)} German
          degrees.
        </Box>
        <Flex gap="3" align="flex-end" wrap="wrap">
          <NumberField
            label="Hardness as CaCO₃"
            unit="mg/l"
            step={10}
            digits={0}
            value={value}
            problem={save.error ? sentenceOf(save.error) : undefined}
            onChange={setValue}
          />
          <Button onClick={() => save.mutate()} disabled={save.isPending || value === hardness}>
            Save
          </Button>
        </Flex>
      </Fold>
    </Panel>
  );
}
