import { Box, Grid } from '@chakra-ui/react';
import { useQuery } from '@tanstack/react-query';
import { useEffect } from 'react';
import { useLocation } from 'react-router';
import { api, data } from '../shared/api/client';
import { PageTitle, Panel, Waiting } from '../shared/ui/elements';

/** A term's place on the page: "first-drops". */
const placeOf = (name: string) => name.toLowerCase().replaceAll(' ', '-');

/** The trade's terms that the pages use. */
export default function TermsPage() {
  const { data: terms, error } = useQuery({
    queryKey: ['glossary'],
    queryFn: () => data(api.GET('/api/explain/glossary')),
    staleTime: Infinity,
  });
  const { hash } = useLocation();
  useEffect(() => {
    if (terms && hash) document.getElementById(hash.slice(1))?.scrollIntoView();
  }, [terms, hash]);
  return (
    <>
      <PageTitle title="Terms">What the words on these pages mean.</PageTitle>
      {terms ? (
        <Panel>
          <Grid
            as="dl"
            templateColumns={{ base: 'minmax(0,1fr)', sm: '180px minmax(0,1fr)' }}
            columnGap="4"
            rowGap={{ base: '0', sm: '2' }}
          >
            {terms.map((term) => (
              <Box key={term.name} display="contents">
                <Box as="dt" id={placeOf(term.name)} fontWeight={650} mt={{ base: '3', sm: '0' }}>
                  {term.name}
                </Box>
                <Box as="dd" maxWidth="70ch">
                  {term.meaning}
                </Box>
              </Box>
            ))}
          </Grid>
        </Panel>
      ) : (
        <Waiting error={error} />
      )}
    </>
  );
}
