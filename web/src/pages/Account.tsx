import type { peopleWire } from '@bastion/core';
import { formatDistanceToNow } from 'date-fns';
import { type SyntheticEvent, useCallback, useEffect, useState } from 'react';
import { api, failureSentence } from '../api/client.ts';
import { FormField, PASSWORD_HINT } from '../ui/FormField.tsx';

function PasswordChange() {
  const [old, setOld] = useState('');
  const [next, setNext] = useState('');
  const [said, setSaid] = useState<{ readonly text: string; readonly isGood: boolean }>();
  const submit = (event: SyntheticEvent): void => {
    event.preventDefault();
    api.changePassword(old, next).then(
      () => {
        setOld('');
        setNext('');
        setSaid({ text: 'Changed. Your other sessions have ended.', isGood: true });
      },
      (error: unknown) => setSaid({ text: failureSentence(error), isGood: false }),
    );
  };
  return (
    <form className="sheet grid gap-3 p-4" onSubmit={submit} aria-label="Change the password">
      <h2>Password</h2>
      <FormField
        label="Present password"
        type="password"
        value={old}
        onType={setOld}
        autoComplete="current-password"
      />
      <FormField
        label="New password"
        type="password"
        value={next}
        onType={setNext}
        autoComplete="new-password"
        hint={PASSWORD_HINT}
      />
      <p role="status" className={`min-h-5 font-semibold ${said?.isGood === false ? 'text-over' : ''}`}>
        {said?.text}
      </p>
      <div>
        <button type="submit" className="button button-main">
          Change it
        </button>
      </div>
    </form>
  );
}

/** A browser by what it says of itself, short. */
function agentWords(agent: string): string {
  const browser = /(Firefox|Edg|Chrome|Safari)\//.exec(agent)?.[1]?.replace('Edg', 'Edge') ?? 'a browser';
  const system = /(Android|iPhone|iPad|Windows|Mac OS X|Linux)/.exec(agent)?.[1];
  return system === undefined ? browser : `${browser} on ${system}`;
}

const ago = (iso: string): string => formatDistanceToNow(new Date(iso), { addSuffix: true });

function Sessions() {
  const [rows, setRows] = useState<readonly peopleWire.OwnSession[]>([]);
  const [failure, setFailure] = useState('');
  const load = useCallback(() => {
    api.ownSessions().then(setRows, (error: unknown) => setFailure(failureSentence(error)));
  }, []);
  useEffect(load, [load]);
  const end = (id: string): void => {
    api.endSession(id).then(load, (error: unknown) => setFailure(failureSentence(error)));
  };
  return (
    <section className="sheet p-4" aria-label="Sessions">
      <h2>Where you are signed in</h2>
      <p role="alert" className="font-semibold text-over empty:hidden">
        {failure}
      </p>
      <ul className="mt-2">
        {rows.map((row) => (
          <li key={row.id} className="flex flex-wrap items-center gap-x-3 border-t border-rule py-1.5">
            <span className="min-w-0 flex-1">
              {agentWords(row.agent)}
              {row.isThis && <strong> (this one)</strong>}
              <br />
              <span className="text-quiet">
                since {ago(row.startedAt)}, last seen {ago(row.seenAt)}
              </span>
            </span>
            {!row.isThis && (
              <button type="button" className="button" onClick={() => end(row.id)}>
                End it
              </button>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}

/** What everybody decides about their own account. */
export function Account() {
  return (
    <main className="h-full overflow-y-auto p-5">
      <div className="mx-auto grid max-w-2xl gap-4">
        <h1>Your account</h1>
        <PasswordChange />
        <Sessions />
      </div>
    </main>
  );
}
