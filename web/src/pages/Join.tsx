import type { peopleWire } from '@bastion/core';
import { type SyntheticEvent, useEffect, useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import { api, failureSentence } from '../api/client.ts';
import { useSession } from '../state/session.ts';
import { FormField, PASSWORD_HINT } from '../ui/FormField.tsx';

/** Where a one-time link leads: an invitation is taken, or a password set anew. */
export function Join() {
  const { token = '' } = useParams();
  const navigate = useNavigate();
  const enter = useSession((store) => store.enter);
  const [ticket, setTicket] = useState<peopleWire.TicketInfo>();
  const [password, setPassword] = useState('');
  const [failure, setFailure] = useState('');
  useEffect(() => {
    api.ticket(token).then(setTicket, (error: unknown) => setFailure(failureSentence(error)));
  }, [token]);
  const submit = (event: SyntheticEvent): void => {
    event.preventDefault();
    setFailure('');
    api.takeTicket(token, password).then(
      (user) => {
        enter(user);
        void navigate('/', { replace: true });
      },
      (error: unknown) => setFailure(failureSentence(error)),
    );
  };
  if (ticket === undefined)
    return (
      <main className="mx-auto max-w-md p-6">
        <h1>One-time link</h1>
        <p role="alert" className="mt-3">
          {failure === '' ? 'One moment…' : failure}
        </p>
      </main>
    );
  const isInvite = ticket.kind === 'invite';
  return (
    <main className="mx-auto max-w-md p-6">
      <h1>{isInvite ? `Welcome to ${ticket.firm}` : 'A new password'}</h1>
      <p className="mt-1 text-quiet">
        {ticket.name}, {ticket.email}.{' '}
        {isInvite ? 'Choose the password you will sign in with.' : 'Every session of the old password ends.'}
      </p>
      <form className="mt-4 grid gap-3" onSubmit={submit}>
        <input type="hidden" autoComplete="username" value={ticket.email} readOnly />
        <FormField
          label="Password"
          type="password"
          value={password}
          onType={setPassword}
          autoComplete="new-password"
          hint={PASSWORD_HINT}
        />
        <p role="alert" className="min-h-5 font-semibold text-over">
          {failure}
        </p>
        <button type="submit" className="button button-main justify-center">
          {isInvite ? 'Come in' : 'Set it and come in'}
        </button>
      </form>
    </main>
  );
}
