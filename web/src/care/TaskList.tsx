import { Box, chakra, Flex } from '@chakra-ui/react';
import { H2, Panel } from '../shared/ui/elements';
import { dueWords, type CareTask } from './care';

interface Props {
  tasks: readonly CareTask[];
  chosen: string;
  choose: (key: string) => void;
}

const Row = chakra('button', {
  base: {
    display: 'block',
    width: '100%',
    textAlign: 'start',
    px: '3',
    py: '2',
    minHeight: '52px',
    borderTopWidth: '1px',
    borderColor: 'hairline',
    borderInlineStartWidth: '4px',
    borderInlineStartColor: 'transparent',
    cursor: 'pointer',
    _hover: { bg: 'page' },
    '&[aria-current]': { borderInlineStartColor: 'oxide', bg: 'page' },
  },
});

/** What the machine needs, what is due first on top. */
export function TaskList({ tasks, chosen, choose }: Props) {
  return (
    <Panel px={{ base: '0', md: '0' }} pb={{ base: '0', md: '0' }}>
      <Box px="4">
        <H2>What it needs</H2>
      </Box>
      {tasks.map((task) => {
        const late = task.due?.state === 'Due' || task.due?.state === 'Overdue';
        return (
          <Row key={task.key} aria-current={task.key === chosen || undefined} onClick={() => choose(task.key)}>
            <Flex justify="space-between" align="baseline" columnGap="3" wrap="wrap">
              <Box as="span" fontWeight={650} color={task.isOff ? 'quiet' : 'text'}>
                {task.name}
              </Box>
              <Box as="span" fontSize="14px" color="quiet">
                {task.due && `${task.due.by}, `}
                <Box as="span" color={late ? 'oxide' : 'quiet'} fontWeight={late ? 650 : 400}>
                  {dueWords(task)}
                </Box>
              </Box>
            </Flex>
            {task.due && (
              // how much of its interval is used up
              <Box as="span" display="block" height="3px" bg="hairline" mt="1.5" aria-hidden="true">
                <Box
                  as="span"
                  display="block"
                  height="3px"
                  bg={late ? 'oxide' : 'resistance'}
                  width={`${Math.min(100, 100 * task.due.share)}%`}
                />
              </Box>
            )}
          </Row>
        );
      })}
    </Panel>
  );
}
