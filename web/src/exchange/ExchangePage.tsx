import { Box, Flex, Grid } from '@chakra-ui/react';
import { Download } from 'lucide-react';
import { Link } from 'react-router';
import { Button, H2, PageTitle, Panel } from '../shared/ui/elements';
import { TextLink } from '../shared/ui/TextLink';
import { HouseholdImport } from './HouseholdImport';

const downloads = [
  {
    to: '/api/exchange/logbook.csv',
    name: 'Logbook as CSV',
    what: 'A row for each shot, for a spreadsheet. To save only some of them, filter the ledger and save from there.',
  },
  {
    to: '/api/exchange/household.json',
    name: 'Whole household as JSON',
    what: 'Shots with their traces and photos, sessions, bags, machines, plans, practice and settings. It can be imported again.',
  },
];

/** Everything out, and in again. */
export default function ExchangePage() {
  return (
    <>
      <PageTitle title="Import and export" aside={<TextLink to="/ledger">Back to the ledger</TextLink>}>
        Your shots are yours: take them along in open formats, and bring in what you have kept elsewhere.
      </PageTitle>
      <Grid templateColumns={{ base: 'minmax(0,1fr)', lg: 'minmax(0,1fr) minmax(0,1fr)' }} gap="4" alignItems="start">
        <Panel>
          <H2>Export</H2>
          <Grid gap="4">
            {downloads.map(({ to, name, what }) => (
              <Box key={to}>
                <Button asChild>
                  <a href={to} download>
                    <Download size={18} aria-hidden="true" /> {name}
                  </a>
                </Button>
                <Box fontSize="14px" color="quiet" mt="1">
                  {what}
                </Box>
              </Box>
            ))}
            <Box fontSize="14px" color="quiet">
              A single trace is saved from its shot, and a session plan as a calendar from Warm. The JSON file is
              described by{' '}
              <TextLink to="/api/exchange/household.schema.json" reloadDocument>
                its schema
              </TextLink>
              .
            </Box>
          </Grid>
        </Panel>
        <Grid gap="4">
          <Panel>
            <H2>Import shots</H2>
            <Grid gap="4">
              <Box>
                <Flex gap="2" wrap="wrap">
                  <Button asChild>
                    <Link to="/ledger/import">Import a trace</Link>
                  </Button>
                  <Button asChild>
                    <Link to="/ledger/import/logbook">Import a logbook</Link>
                  </Button>
                </Flex>
                <Box fontSize="14px" color="quiet" mt="1">
                  A trace is one pull, recorded by a gauge or a scale. A logbook is a spreadsheet with a row for each
                  shot, with columns of any names.
                </Box>
              </Box>
            </Grid>
          </Panel>
          <HouseholdImport />
        </Grid>
      </Grid>
    </>
  );
}
