import { Link, useRouteError } from 'react-router';

/** An address that leads nowhere, or a page that failed: what was saved is safe, and the way back is plain. */
export function NotHere() {
  const error = useRouteError();
  return (
    <main className="mx-auto max-w-xl p-8">
      <h1>{error instanceof Error ? 'This page failed' : 'There is nothing here'}</h1>
      <p className="mt-2">
        {error instanceof Error
          ? `What was saved is kept. The failure said: ${error.message}`
          : 'The address may be mistyped, or the job belongs to another firm.'}
      </p>
      <p className="mt-4">
        <Link to="/" className="button" reloadDocument>
          To the jobs
        </Link>
      </p>
    </main>
  );
}
