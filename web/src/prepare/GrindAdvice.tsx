import { Box, Flex } from '@chakra-ui/react';
import { memo } from 'react';
import type { Schemas } from '../shared/api/client';
import { Announce } from '../shared/ui/Announce';
import { Button, Figure } from '../shared/ui/elements';
import { number } from '../shared/units/units';
import { toDecimals } from '../shared/units/decimals';
import { inOurUnits } from '../shared/units/marks';

interface Props {
  grind: Schemas['GrindAdviceView'];
  /** What the sheet says now. */
  setting: number | null;
  scaleUnit: string | undefined;
  take: (part: Partial<Schemas['Sheet']>) => void;
}

/** What to set on the grinder, with the chance that it lands, and why. */
export const GrindAdvice = memo(function GrindAdvice({ grind, setting, scaleUnit, take }: Props) {
  const { suggestion } = grind;
  const advised = suggestion && toDecimals(2, suggestion.setting);
  return (
    <Flex gap="4" wrap="wrap" align="center" mt="2" pt="2" borderTopWidth="1px" borderColor="hairline">
      <Announce>
        {suggestion
          ? `Grinder: ${advised} ${scaleUnit}, lands ${number(suggestion.chance * 100, 0)} times in a hundred.`
          : ''}
      </Announce>
      {suggestion && (
        <Flex gap="3" align="center">
          <Figure
            label="Advised setting"
            why={{ of: 'grind', from: 'sheet' }}
            value={advised}
            unit={scaleUnit}
            note={`${number(suggestion.low, 1)} to ${number(suggestion.high, 1)}`}
          />
          {setting !== suggestion.setting && (
            <Button onClick={() => take({ grindSetting: suggestion.setting })}>Use this</Button>
          )}
        </Flex>
      )}
      <Box flex="1 1 240px" fontSize="13px" color={suggestion ? 'quiet' : 'text'}>
        {inOurUnits(grind.sentences.join(' '))}
      </Box>
    </Flex>
  );
});
