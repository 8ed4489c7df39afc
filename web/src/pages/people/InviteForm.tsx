import { ROLE_WORDS, roleSchema } from '@bastion/core';
import { type SyntheticEvent, useId, useState } from 'react';
import { z } from 'zod';
import { api, failureSentence } from '../../api/client.ts';
import { useSession } from '../../state/session.ts';
import { FormField } from '../../ui/FormField.tsx';
import { useKept } from '../../ui/useKept.ts';
import type { Told } from './LinkNote.tsx';

/** An invitation that is not made yet. */
const halfTyped = z.object({
  name: z.string(),
  email: z.string(),
  role: roleSchema,
  licence: z.string(),
  licenceBody: z.string(),
});
const NOTHING_TYPED: z.infer<typeof halfTyped> = {
  name: '',
  email: '',
  role: 'designer',
  licence: '',
  licenceBody: '',
};

/** Makes a one-time link for somebody who is not here yet. */
export function InviteForm({ onMade }: { readonly onMade: (told: Told) => void }) {
  const id = useId();
  const userId = useSession((store) => (store.session.kind === 'in' ? store.session.user.id : 0));
  const [typed, setTyped, forget] = useKept(`invite-${userId}`, halfTyped, NOTHING_TYPED);
  const { name, email, role, licence, licenceBody } = typed;
  const type =
    (field: 'name' | 'email' | 'licence' | 'licenceBody') =>
    (text: string): void =>
      setTyped({ ...typed, [field]: text });
  const [failure, setFailure] = useState('');
  const submit = (event: SyntheticEvent): void => {
    event.preventDefault();
    const held = role !== 'approver' ? {} : { licence: licence.trim(), licenceBody: licenceBody.trim() };
    const given = Object.fromEntries(Object.entries(held).filter(([, text]) => text !== ''));
    api.invite({ name, email, role, ...given }).then(
      (link) => {
        onMade({ link, name, email });
        forget();
        setFailure('');
      },
      (error: unknown) => setFailure(failureSentence(error)),
    );
  };
  return (
    <form className="sheet grid gap-3 p-4 sm:grid-cols-2" onSubmit={submit} aria-label="Invite somebody">
      <h2 className="sm:col-span-2">Invite somebody</h2>
      <FormField label="Name" value={name} onType={type('name')} />
      <FormField label="Email" type="email" value={email} onType={type('email')} />
      <div className="sm:col-span-2">
        <label htmlFor={id} className="block">
          Role
        </label>
        <select
          id={id}
          className="input"
          value={role}
          onChange={(event) => setTyped({ ...typed, role: roleSchema.parse(event.target.value) })}
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
          <FormField label="Licence number" value={licence} onType={type('licence')} />
          <FormField label="Licensing body" value={licenceBody} onType={type('licenceBody')} />
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
