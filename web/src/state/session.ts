import type { wire } from '@bastion/core';
import { create } from 'zustand';
import { api, failureSentence, RequestFailed, whenSignedOut } from '../api/client.ts';

type Session =
  | { readonly kind: 'asking' }
  | { readonly kind: 'out' }
  | { readonly kind: 'failed'; readonly message: string }
  | { readonly kind: 'in'; readonly user: wire.UserInfo };

interface SessionStore {
  session: Session;
  ask: () => Promise<void>;
  enter: (user: wire.UserInfo) => void;
  leave: () => Promise<void>;
}

/** Who is signed in. */
export const useSession = create<SessionStore>((set) => ({
  session: { kind: 'asking' },
  ask: async () => {
    try {
      set({ session: { kind: 'in', user: await api.me() } });
    } catch (error) {
      const out = error instanceof RequestFailed && error.status === 401;
      set({ session: out ? { kind: 'out' } : { kind: 'failed', message: failureSentence(error) } });
    }
  },
  enter: (user) => set({ session: { kind: 'in', user } }),
  leave: async () => {
    await api.signOut().catch(() => undefined);
    set({ session: { kind: 'out' } });
  },
}));

// A session that was ended elsewhere ends here too: what is not sent yet stays on this device for the next visit.
whenSignedOut(() => {
  if (useSession.getState().session.kind === 'in') useSession.setState({ session: { kind: 'out' } });
});
