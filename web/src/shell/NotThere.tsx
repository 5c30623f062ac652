import { Box } from '@chakra-ui/react';
import { useEffect } from 'react';
import { useRouteError } from 'react-router';
import { Button, Notice, PageTitle } from '../shared/ui/elements';
import { TextLink } from '../shared/ui/TextLink';

const back = <TextLink to="/prepare">Back to Prepare</TextLink>;

/** An address that leads nowhere: says so and leads back. */
export function NotThere() {
  return (
    <>
      <PageTitle title="Nothing here" />
      <Notice role="alert">This address leads nowhere. {back}</Notice>
    </>
  );
}

/**
 * A page that broke: what stands round it, and a pull under way, go on. What broke is for the browser's console, not
 * for people.
 */
export function Broken() {
  const error = useRouteError();
  useEffect(() => console.error(error), [error]);
  return (
    <>
      <PageTitle title="This page stopped working" />
      <Notice role="alert">
        Nothing that was stored is lost, and a pull under way goes on. Reload the page, or go on elsewhere. {back}
      </Notice>
      <Box mt="3">
        <Button onClick={() => location.reload()}>Reload</Button>
      </Box>
    </>
  );
}
