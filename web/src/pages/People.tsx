import { type peopleWire, POWERS, roleSchema } from '@bastion/core';
import { formatDistanceToNow } from 'date-fns';
import { useCallback, useEffect, useState } from 'react';
import { api, failureSentence } from '../api/client.ts';
import { useSession } from '../state/session.ts';
import { InviteForm } from './people/InviteForm.tsx';
import { LinkNote, type Told } from './people/LinkNote.tsx';
import { Trail } from './people/Trail.tsx';

interface RowProps {
  readonly person: peopleWire.PersonRow;
  readonly isSelf: boolean;
  readonly onChange: (change: peopleWire.PersonChange) => void;
  readonly onLink: () => void;
}

function stateWords({ disabled, invited, lastSeenAt }: peopleWire.PersonRow): string {
  if (disabled) return 'disabled';
  if (invited) return 'invited, not come in yet';
  return lastSeenAt === null
    ? 'not signed in'
    : `seen ${formatDistanceToNow(new Date(lastSeenAt), { addSuffix: true })}`;
}

function PersonLine({ person, isSelf, onChange, onLink }: RowProps) {
  return (
    <tr className="border-t border-rule align-top max-sm:grid max-sm:py-1.5">
      <td className="py-1.5 pr-3">
        <strong>{person.name}</strong>
        {isSelf && ' (you)'}
        <br />
        <span className="text-quiet">{person.email}</span>
      </td>
      <td className="py-1.5 pr-3">
        <select
          className="input w-40!"
          aria-label={`Role of ${person.name}`}
          value={person.role}
          onChange={(event) => onChange({ role: roleSchema.parse(event.target.value) })}
        >
          {roleSchema.options.map((role) => (
            <option key={role} value={role}>
              {role}
            </option>
          ))}
        </select>
        {person.licence !== null && (
          <p className="text-[13px] text-quiet">
            licence {person.licence}
            {person.licenceBody !== null && `, ${person.licenceBody}`}
          </p>
        )}
      </td>
      <td className="py-1.5 pr-3">{stateWords(person)}</td>
      <td className="py-1.5">
        <div className="flex flex-wrap gap-1.5">
          <button
            type="button"
            className="button"
            onClick={onLink}
            aria-label={`${person.invited ? 'New invitation' : 'Reset the password'} of ${person.name}`}
          >
            {person.invited ? 'New invitation' : 'Reset password'}
          </button>
          <button
            type="button"
            className="button"
            aria-label={`${person.disabled ? 'Enable' : 'Disable'} ${person.name}`}
            onClick={() => onChange({ disabled: !person.disabled })}
          >
            {person.disabled ? 'Enable' : 'Disable'}
          </button>
        </div>
      </td>
    </tr>
  );
}

/** The people of the firm: who they are, what they may do, and what was done. */
export function People() {
  const session = useSession((store) => store.session);
  const [people, setPeople] = useState<readonly peopleWire.PersonRow[]>([]);
  const [told, setTold] = useState<Told>();
  const [failure, setFailure] = useState('');
  const [turn, setTurn] = useState(0);
  const fail = (error: unknown): void => setFailure(failureSentence(error));
  const load = useCallback(() => {
    api.people().then(setPeople, fail);
  }, []);
  const again = (): void => {
    setFailure('');
    setTurn((now) => now + 1);
    load();
  };
  useEffect(load, [load]);
  if (session.kind !== 'in' || !POWERS[session.user.role].manage)
    return <main className="p-8">People are managed by an administrator of the firm.</main>;
  return (
    <main className="h-full overflow-y-auto p-5">
      <div className="mx-auto grid max-w-4xl gap-4">
        <h1>People of {session.user.firm}</h1>
        {told !== undefined && <LinkNote told={told} key={told.link.path} />}
        <p role="alert" className="font-semibold text-over empty:hidden">
          {failure}
        </p>
        <div className="sheet relative overflow-x-auto p-4">
          <table className="w-full sm:min-w-[640px]">
            <thead className="max-sm:hidden">
              <tr className="text-left text-quiet">
                <th className="pb-1 font-medium">Person</th>
                <th className="pb-1 font-medium">Role</th>
                <th className="pb-1 font-medium">State</th>
                <th className="pb-1 font-medium">
                  <span className="sr-only">What can be done</span>
                </th>
              </tr>
            </thead>
            <tbody>
              {people.map((person) => (
                <PersonLine
                  key={person.id}
                  person={person}
                  isSelf={person.id === session.user.id}
                  onChange={(change) => void api.changePerson(person.id, change).then(again, fail)}
                  onLink={() =>
                    void api.linkFor(person.id).then((link) => {
                      setTold({ link, name: person.name, email: person.email });
                      again();
                    }, fail)
                  }
                />
              ))}
            </tbody>
          </table>
        </div>
        <InviteForm
          onMade={(made) => {
            setTold(made);
            again();
          }}
        />
        <Trail key={turn} />
      </div>
    </main>
  );
}
