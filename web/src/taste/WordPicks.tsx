import { Box, Flex } from '@chakra-ui/react';
import { useHousehold } from '../shared/api/queries';
import { TextLink } from '../shared/ui/TextLink';
import { Button } from '../shared/ui/elements';
import { hasWord, withoutWord, withWord } from './words';

interface Props {
  /** What was written so far. */
  text: string;
  onChange: (text: string) => void;
}

/** The household's own words, to tap into the note. */
export function WordPicks({ text, onChange }: Props) {
  const { data: household } = useHousehold();
  const words = household?.tasteWords ?? [];
  if (words.length === 0) return null;
  return (
    <>
      <Flex gap="1" wrap="wrap" role="group" aria-label="Words">
        {words.map((word) => {
          const has = hasWord(text, word);
          return (
            <Button
              key={word}
              tone={has ? 'strong' : undefined}
              px="2"
              fontWeight={400}
              aria-pressed={has}
              onClick={() => onChange(has ? withoutWord(text, word) : withWord(text, word))}
            >
              {word}
            </Button>
          );
        })}
      </Flex>
      <Box mt="1" fontSize="14px">
        <TextLink to="/settings">Edit the words</TextLink>
      </Box>
    </>
  );
}
