import { Box, Flex, Grid } from '@chakra-ui/react';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { api, data, sentenceOf, type Schemas } from '../shared/api/client';
import { patchBrewer } from '../shared/api/patch';
import { keepBench, useBench, useHousehold, useSchools, useShot } from '../shared/api/queries';
import { useHouseholdChange } from '../shared/bench/useHouseholdChange';
import { Fold } from '../shared/ui/Fold';
import { Button, Notice, Waiting } from '../shared/ui/elements';
import { useUnits } from '../shared/units/units';

/** What each school says of this shot, and why they disagree. */
export function SchoolsFold({ shotId }: { shotId: number }) {
  const { data: household } = useHousehold();
  const { data: schools } = useSchools();
  const key = useBrewerOf(shotId)?.school ?? household?.school;
  const judged = schools?.find((s) => s.key === key)?.name.toLowerCase();
  return (
    <Fold title="Other schools" note={judged && `judged by ${judged}`}>
      <Schools shotId={shotId} />
    </Fold>
  );
}

/** Whoever brewed the shot, while they are known by that name. */
function useBrewerOf(shotId: number) {
  const { data: shot } = useShot(shotId);
  const { data: bench } = useBench();
  return bench?.brewers.find((b) => b.name === shot?.shot.brewer);
}

function Schools({ shotId }: { shotId: number }) {
  const { data: household } = useHousehold();
  const queries = useQueryClient();
  const brewer = useBrewerOf(shotId);
  const households = useHouseholdChange(household);
  // who has a school of their own changes that one
  const own = useMutation({
    mutationFn: (school: string) => patchBrewer(brewer!, { school }),
    onSuccess: (bench) => keepBench(queries, bench),
  });
  const change = brewer?.school ? own : households;
  const { data: schools, error } = useQuery({
    queryKey: ['shot', shotId, 'schools'],
    queryFn: () => data(api.GET('/api/shots/{id}/schools', { params: { path: { id: shotId } } })),
    retry: false,
  });
  if (!schools) return <Waiting error={error} />;
  return (
    <Grid gap="4">
      {schools.map((school) => (
        <OneSchool
          key={school.key}
          school={school}
          inUse={school.isOwn}
          pending={change.isPending}
          use={() => (brewer?.school ? own.mutate(school.key) : households.mutate({ school: school.key }))}
        />
      ))}
      {change.error && <Notice role="alert">{sentenceOf(change.error)}</Notice>}
    </Grid>
  );
}

interface OneProps {
  school: Schemas['SchoolSays'];
  inUse: boolean;
  pending: boolean;
  use: () => void;
}

function OneSchool({ school, inUse, pending, use }: OneProps) {
  const units = useUnits();
  return (
    <Box as="section" aria-label={school.name} borderTopWidth="1px" borderColor="hairline" pt="3">
      <Flex justify="space-between" align="center" gap="3" minHeight="44px">
        <Box fontWeight={650}>{school.name}</Box>
        {inUse ? (
          <Box color="quiet" fontSize="14px">
            in use
          </Box>
        ) : (
          <Button disabled={pending} onClick={use}>
            Judge by this
          </Button>
        )}
      </Flex>
      <Box fontSize="14px" color="quiet">
        {units.sentence(school.holds)}
      </Box>
      <Grid as="ul" listStyleType="none" fontSize="14px" mt="2" gap="1">
        {school.targets.map((t) => (
          <Flex as="li" key={t.what} gap="2" wrap="wrap">
            <Box as="span" aria-hidden="true" width="16px" fontWeight={650}>
              {t.met === null ? '\u2013' : t.met ? '\u2713' : '\u2717'}
            </Box>
            <span>
              {t.what}: {t.was === null ? 'not recorded' : units.sentence(t.was) + (t.met ? '' : ', off')}; wanted:{' '}
              {units.sentence(t.wanted)}
            </span>
          </Flex>
        ))}
      </Grid>
      <Box mt="2" fontWeight={650}>
        {units.sentence(school.headline)}
      </Box>
      {school.advice && <Box fontSize="14px">{units.sentence(school.advice)}</Box>}
      {school.disagrees && (
        <Box mt="1" fontSize="14px" color="quiet">
          Why it differs: {units.sentence(school.disagrees)}
        </Box>
      )}
    </Box>
  );
}
