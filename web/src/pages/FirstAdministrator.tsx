import { type SyntheticEvent, useState } from 'react';
import { api, failureSentence } from '../api/client.ts';
import { useSession } from '../state/session.ts';
import { FormField, PASSWORD_HINT } from '../ui/FormField.tsx';

/** On a server that nobody has come into yet: the firm, and the person who runs it. */
export function FirstAdministrator() {
  const enter = useSession((store) => store.enter);
  const [code, setCode] = useState('');
  const [firm, setFirm] = useState('');
  const [name, setName] = useState('');
  const [email, setEmail] = useState('');
  const [password, setPassword] = useState('');
  const [failure, setFailure] = useState('');
  const submit = (event: SyntheticEvent): void => {
    event.preventDefault();
    setFailure('');
    api
      .makeFirst({ code, firm, name, email, password })
      .then(enter, (error: unknown) => setFailure(failureSentence(error)));
  };
  return (
    <main className="mx-auto h-full max-w-md overflow-y-auto p-6">
      <h1>The first administrator</h1>
      <p className="mt-1 text-quiet">
        Nobody can come in yet. The start of the server has printed a code; whoever has it makes the firm, and
        invites the others.
      </p>
      <form className="mt-4 grid gap-3" onSubmit={submit}>
        <FormField label="Code from the start" value={code} onType={setCode} />
        <FormField label="Firm" value={firm} onType={setFirm} autoComplete="organization" />
        <FormField label="Your name" value={name} onType={setName} autoComplete="name" />
        <FormField label="Email" type="email" value={email} onType={setEmail} autoComplete="username" />
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
          Make the firm
        </button>
      </form>
    </main>
  );
}
