import { type Role, ROLE_WORDS, roleSchema } from '@bastion/core';
import { type SyntheticEvent, useId, useState } from 'react';
import { api, failureSentence } from '../../api/client.ts';
import { FormField } from '../../ui/FormField.tsx';
import type { Told } from './LinkNote.tsx';

/** Makes a one-time link for somebody who is not here yet. */
export function InviteForm({ onMade }: { readonly onMade: (told: Told) => void }) {
  const id = useId();
  const [name, setName] = useState('');
  const [email, setEmail] = useState('');
  const [role, setRole] = useState<Role>('designer');
  const [licence, setLicence] = useState('');
  const [licenceBody, setLicenceBody] = useState('');
  const [failure, setFailure] = useState('');
  const submit = (event: SyntheticEvent): void => {
    event.preventDefault();
    const held = role !== 'approver' ? {} : { licence: licence.trim(), licenceBody: licenceBody.trim() };
    const given = Object.fromEntries(Object.entries(held).filter(([, text]) => text !== ''));
    api.invite({ name, email, role, ...given }).then(
      (link) => {
        onMade({ link, name, email });
        setName('');
        setEmail('');
        setLicence('');
        setLicenceBody('');
        setFailure('');
      },
      (error: unknown) => setFailure(failureSentence(error)),
    );
  };
  return (
    <form className="sheet grid gap-3 p-4 sm:grid-cols-2" onSubmit={submit} aria-label="Invite somebody">
      <h2 className="sm:col-span-2">Invite somebody</h2>
      <FormField label="Name" value={name} onType={setName} />
      <FormField label="Email" type="email" value={email} onType={setEmail} />
      <div className="sm:col-span-2">
        <label htmlFor={id} className="block">
          Role
        </label>
        <select
          id={id}
          className="input"
          value={role}
          onChange={(event) => setRole(roleSchema.parse(event.target.value))}
        >
          {roleSchema.options.map((one) => (
            <option key={one} value={one}>
              {one}: {ROLE_WORDS[one]}
            </option>
          ))}
        </select>
      </div>
      {role === 'approver' && (
        <>
          <FormField label="Licence number" value={licence} onType={setLicence} />
          <FormField label="Licensing body" value={licenceBody} onType={setLicenceBody} />
        </>
      )}
      <p role="alert" className="font-semibold text-over empty:hidden sm:col-span-2">
        {failure}
      </p>
      <div>
        <button type="submit" className="button button-main">
          Make the link
        </button>
      </div>
    </form>
  );
}
