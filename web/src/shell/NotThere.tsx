import { Link, useRouteError } from 'react-router';
import { Notice, PageTitle } from '../shared/ui/elements';

/** An address that leads nowhere, or a page that broke: says so and leads back. */
export function NotThere() {
  const error = useRouteError();
  return (
    <>
      <PageTitle title={error ? 'This page stopped working' : 'Nothing here'} />
      <Notice role="alert">
        {error instanceof Error ? `${error.message}. Nothing that was stored is lost. ` : 'This address leads nowhere. '}
        <Link to="/prepare" style={{ textDecoration: 'underline' }}>
          Back to Prepare
        </Link>
      </Notice>
    </>
  );
}
