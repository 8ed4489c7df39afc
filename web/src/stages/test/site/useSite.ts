import type { siteWire } from '@bastion/core';
import { useCallback, useEffect, useState } from 'react';
import { api, failureSentence, RequestFailed } from '../../../api/client.ts';

const EVERY_MS = 1000;
type State =
  | { readonly kind: 'loading' }
  | { readonly kind: 'closed' }
  | { readonly kind: 'open'; readonly site: siteWire.OpenSite; readonly menu: siteWire.SiteMenu };

export interface UsedSite {
  readonly state: State;
  /** The last thing that could not be done, or that the site did not answer. */
  readonly failure: string;
  readonly open: () => void;
  readonly close: () => void;
  readonly act: (action: siteWire.SiteAction) => Promise<siteWire.OpenSite | undefined>;
}

const both = (jobId: number) => Promise.all([api.site(jobId), api.siteMenu(jobId)]);

/** The simulated site of a job, looked at every second while its page is in sight. */
export function useSite(jobId: number): UsedSite {
  const [state, setState] = useState<State>({ kind: 'loading' });
  const [failure, setFailure] = useState('');
  const fail = useCallback((error: unknown): void => {
    if (error instanceof RequestFailed && error.refusal.code === 'SITE_NOT_OPEN')
      setState({ kind: 'closed' });
    else setFailure(failureSentence(error));
  }, []);

  const show = useCallback(
    ([site, menu]: readonly [siteWire.OpenSite, siteWire.SiteMenu]): void =>
      setState({ kind: 'open', site, menu }),
    [],
  );

  useEffect(() => {
    both(jobId).then(show, (error: unknown) => {
      fail(error);
      setState((now) => (now.kind === 'loading' ? { kind: 'closed' } : now));
    });
  }, [jobId, show, fail]);

  const isOpen = state.kind === 'open';
  useEffect(() => {
    if (!isOpen) return undefined;
    const timer = setInterval(() => {
      if (document.visibilityState !== 'visible') return;
      api.site(jobId).then((site) => {
        setFailure('');
        setState((now) => (now.kind === 'open' ? { ...now, site } : now));
      }, fail);
    }, EVERY_MS);
    return () => clearInterval(timer);
  }, [isOpen, jobId, fail]);

  const open = useCallback((): void => {
    setFailure('');
    api
      .openSite(jobId)
      .then(() => both(jobId))
      .then(show)
      .catch(fail);
  }, [jobId, show, fail]);

  const close = useCallback((): void => {
    api.closeSite(jobId).then(() => setState({ kind: 'closed' }), fail);
  }, [jobId, fail]);

  const act = useCallback(
    async (action: siteWire.SiteAction): Promise<siteWire.OpenSite | undefined> => {
      try {
        const site = await api.siteAction(jobId, action);
        setFailure(site.problem ?? '');
        setState((now) => (now.kind === 'open' ? { ...now, site } : now));
        return site;
      } catch (error) {
        fail(error);
        return undefined;
      }
    },
    [jobId, fail],
  );

  return { state, failure, open, close, act };
}
