import { Button as KitButton, Flex } from '@chakra-ui/react';
import { useEffect } from 'react';
import { useSearchParams } from 'react-router';
import { api } from '../shared/api/client';
import { useHousehold } from '../shared/api/queries';

/** Over every page of a sample household that is looked at: what it is, and the way back. */
export function VisitBar() {
  const { data: household } = useHousehold();
  if (!household?.home) return null;
  return (
    <Flex
      className="no-print"
      gap="3"
      align="center"
      justify="center"
      wrap="wrap"
      px="3"
      bg="text"
      color="panel"
      fontSize="14px"
    >
      You are looking around a made-up household. Nothing you do here touches your own bench.
      <KitButton asChild variant={'quiet' as never} color="panel">
        <a href={`${household.home}/?visit=over`}>Back to my bench</a>
      </KitButton>
    </Flex>
  );
}

/** Back at home the sample household is ended, and nothing of it is left. */
export function useVisitOver() {
  const [search, setSearch] = useSearchParams();
  const over = search.get('visit') === 'over';
  useEffect(() => {
    if (!over) return;
    void api.POST('/api/sample/close');
    setSearch({}, { replace: true });
  }, [over, setSearch]);
}
