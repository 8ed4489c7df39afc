import type { peopleWire } from '@bastion/core';
import { Copy } from 'lucide-react';
import { useId, useState } from 'react';

/** A link that was just made, and for whom. */
export interface Told {
  readonly link: peopleWire.OneTimeLink;
  readonly name: string;
  readonly email: string;
}

/** Shows a one-time link the one time it is known. The server sends no mail: whoever invites passes it on. */
export function LinkNote({ told }: { readonly told: Told }) {
  const id = useId();
  const [isCopied, setIsCopied] = useState(false);
  const address = `${location.origin}${told.link.path}`;
  const copy = (): void => {
    navigator.clipboard.writeText(address).then(
      () => setIsCopied(true),
      () => setIsCopied(false),
    );
  };
  return (
    <section className="sheet border-edge p-4" role="status" aria-label="One-time link">
      <label htmlFor={id} className="block">
        Link for <strong>{told.name}</strong> ({told.email}). It works once, until{' '}
        {new Date(told.link.expiresAt).toLocaleString()}, and is shown only now: pass it on yourself.
      </label>
      <div className="mt-1 flex gap-2">
        <input
          id={id}
          className="input font-mono"
          readOnly
          value={address}
          onFocus={(event) => event.target.select()}
        />
        <button type="button" className="button" onClick={copy}>
          <Copy size={14} aria-hidden="true" /> {isCopied ? 'Copied' : 'Copy'}
        </button>
      </div>
    </section>
  );
}
