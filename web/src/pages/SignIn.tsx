import { type Role, ROLE_WORDS } from '@bastion/core';
import { type SyntheticEvent, useEffect, useState } from 'react';
import { api, failureSentence } from '../api/client.ts';
import { useSession } from '../state/session.ts';
import { FirstAdministrator } from './FirstAdministrator.tsx';

function DemoUsers({ onFail }: { readonly onFail: (message: string) => void }) {
  const [users, setUsers] = useState<readonly { id: number; name: string; role: Role }[]>([]);
  const enter = useSession((store) => store.enter);
  useEffect(() => {
    api.demoUsers().then(
      (demo) => setUsers(demo.users),
      () => setUsers([]),
    );
  }, []);
  if (users.length === 0) return null;
  return (
    <section className="mt-6 border-t border-rule pt-4">
      <h2>Look around with sample data</h2>
      <div className="mt-2 grid gap-2">
        {users.map((user) => (
          <button
            key={user.id}
            type="button"
            className="button justify-between"
            onClick={() =>
              void api.signInDemo(user.id).then(enter, (error: unknown) => onFail(failureSentence(error)))
            }
          >
            <span>Continue as {user.name}</span>
            <span className="font-normal text-quiet">
              {user.role}: {ROLE_WORDS[user.role]}
            </span>
          </button>
        ))}
      </div>
    </section>
  );
}

/** The way in; on a server that nobody has come into yet, the way to become the first. */
export function SignIn() {
  const [isFirst, setIsFirst] = useState(false);
  useEffect(() => {
    api.firstStep().then(
      ({ needed }) => setIsFirst(needed),
      () => setIsFirst(false),
    );
  }, []);
  return isFirst ? <FirstAdministrator /> : <PasswordForm />;
}

function PasswordForm() {
  const enter = useSession((store) => store.enter);
  const [email, setEmail] = useState('');
  const [password, setPassword] = useState('');
  const [failure, setFailure] = useState('');
  const submit = (event: SyntheticEvent): void => {
    event.preventDefault();
    setFailure('');
    api.signIn(email, password).then(enter, (error: unknown) => setFailure(failureSentence(error)));
  };
  return (
    <main className="mx-auto max-w-md p-6">
      <h1>Sign in</h1>
      <p className="mt-1 text-quiet">Backup power, from the load survey to the recorded islanding test.</p>
      <form className="mt-4 grid gap-3" onSubmit={submit}>
        <label className="block">
          Email
          <input
            className="input"
            type="email"
            required
            autoComplete="username"
            value={email}
            onChange={(event) => setEmail(event.target.value)}
          />
        </label>
        <label className="block">
          Password
          <input
            className="input"
            type="password"
            required
            autoComplete="current-password"
            value={password}
            onChange={(event) => setPassword(event.target.value)}
          />
        </label>
        <p role="alert" className="min-h-5 font-semibold text-over">
          {failure}
        </p>
        <button type="submit" className="button button-main justify-center">
          Sign in
        </button>
      </form>
      <DemoUsers onFail={setFailure} />
    </main>
  );
}
