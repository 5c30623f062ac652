import { Box } from '@chakra-ui/react';
import { useQuery } from '@tanstack/react-query';
import { api, data, type Schemas } from '../shared/api/client';
import { Waiting } from '../shared/ui/elements';
import { HeatChart } from './HeatChart';
import { ResistanceChart } from './ResistanceChart';

interface Props {
  shotId: number;
  resistance: readonly Schemas['ResistancePoint'][];
  r10: number | null;
}

/** Resistance against grams with the band that was expected, and the heat of group and water through the shot. */
export function ExpectedBeside({ shotId, resistance, r10 }: Props) {
  const { data: view, error } = useQuery({
    queryKey: ['shot', shotId, 'expected'],
    queryFn: () => data(api.GET('/api/shots/{id}/expected', { params: { path: { id: shotId } } })),
    retry: false,
  });
  if (!view) return <Waiting error={error} />;
  return (
    <>
      {resistance.length > 1 ? (
        <ResistanceChart measured={resistance} expected={view.resistance} r10={r10} />
      ) : (
        <Box color="quiet">Resistance needs both a gauge and a scale.</Box>
      )}
      {resistance.length > 1 && view.resistance.length === 0 && (
        <Box fontSize="14px" color="quiet">
          Nothing was expected of this grind yet: note the grinder and its setting, and pull a few shots.
        </Box>
      )}
      {view.heat ? (
        <HeatChart heat={view.heat} />
      ) : (
        <Box color="quiet" mt="3">
          The heat of this shot is not known: pull within a session on Warm, or with a thermometer.
        </Box>
      )}
    </>
  );
}
