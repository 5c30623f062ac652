import { Box, Flex, Grid } from '@chakra-ui/react';
import { useQuery } from '@tanstack/react-query';
import { Link, useSearchParams } from 'react-router';
import { api, data } from '../shared/api/client';
import { useBench } from '../shared/api/queries';
import { Choice } from '../shared/ui/Choice';
import { TextLink } from '../shared/ui/TextLink';
import { Figure, PageTitle, Panel, Waiting } from '../shared/ui/elements';
import { useUnits } from '../shared/units/units';
import { Progress } from './Progress';

/** The lessons in their order, what each teaches and why, and how one has got on. */
export default function PracticePage() {
  const { data: overview, error } = useQuery({ queryKey: ['practice'], queryFn: () => data(api.GET('/api/practice')) });
  const { data: bench } = useBench();
  const units = useUnits();
  const [search, setSearch] = useSearchParams();
  const machine = Number(search.get('machine')) || null;
  if (!overview) {
    return (
      <>
        <PageTitle title="Practice" />
        <Waiting error={error} />
      </>
    );
  }
  const feel = machine ? `?machine=${machine}` : '';
  return (
    <>
      <PageTitle
        title="Practice"
        aside={
          <Box width="260px">
            <Choice
              label="With the feel of"
              none="a portable lever"
              options={bench?.machines ?? []}
              value={machine}
              onChange={(id) => setSearch(id ? { machine: String(id) } : {}, { replace: true })}
            />
          </Box>
        }
      >
        A virtual lever on a simulated puck, in lessons of half a minute. None of it is mixed with your shots. The
        tongue has lessons of its own: <TextLink to="/ladders">blind ladders</TextLink>.
      </PageTitle>
      <Grid as="ol" gap="3" listStyleType="none">
        {overview.lessons.map((lesson, i) => {
          const best = lesson.played.length === 0 ? null : Math.max(...lesson.played.map((p) => p.points));
          const next = lesson.key === overview.next;
          return (
            <Panel as="li" key={lesson.key} borderColor={next ? 'text' : 'hairline'} borderWidth={next ? '2px' : '1px'}>
              <Grid
                templateColumns={{ base: 'minmax(0,1fr)', md: '44px minmax(0,1fr) 190px 90px 150px' }}
                gap="4"
                alignItems="center"
              >
                <Box fontSize="26px" fontWeight={650} color="quiet" display={{ base: 'none', md: 'block' }}>
                  {i + 1}
                </Box>
                <Box minWidth={0}>
                  <Box fontWeight={650} fontSize="18px">
                    {units.sentence(lesson.name)}
                    {next && (
                      <Box as="span" fontSize="14px" fontWeight={400} color="quiet">
                        {' '}
                        next for you
                      </Box>
                    )}
                  </Box>
                  <Box>{units.sentence(lesson.teaches)}</Box>
                  <Box fontSize="14px" color="quiet">
                    {units.sentence(lesson.why)}
                  </Box>
                </Box>
                <Flex align="center">
                  {lesson.played.length > 0 ? (
                    <Progress played={lesson.played} />
                  ) : (
                    <Box fontSize="14px" color="quiet">
                      not played yet
                    </Box>
                  )}
                </Flex>
                <Box>{best !== null && <Figure label="Best score of 100" value={best} size={28} />}</Box>
                <Link
                  to={`/practice/${lesson.key}${feel}`}
                  aria-label={`Play ${units.sentence(lesson.name)}`}
                  style={{
                    minHeight: 64,
                    display: 'flex',
                    alignItems: 'center',
                    justifyContent: 'center',
                    borderRadius: 3,
                    fontWeight: 650,
                    fontSize: 18,
                    border: '1px solid var(--rs-colors-edge)',
                    background: next ? 'var(--rs-colors-oxide)' : 'var(--rs-colors-panel)',
                    color: next ? 'var(--rs-colors-on-oxide)' : 'var(--rs-colors-text)',
                  }}
                >
                  {lesson.played.length > 0 ? 'Play it again' : 'Play'}
                </Link>
              </Grid>
            </Panel>
          );
        })}
      </Grid>
    </>
  );
}
