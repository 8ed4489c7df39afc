import { randomInt } from 'node:crypto';
import { siteWire } from '@bastion/core';
import { z } from 'zod';
import { RefusalError } from '../errors.ts';
import { canTest, type Person } from './accounts.ts';
import type { Jobs } from './jobs.ts';

/** Where the process with the simulated sites listens, and the word that it answers to. */
export interface SiteAccess {
  readonly url: string;
  readonly token: string;
}

const MOST_SEED = 2 ** 31;
const ANSWER_MS = 5000;
const refused = z.object({ message: z.string() });

/** Simulated sites, one for each job: opened from its design as it stands, and acted on by whoever may test. */
export function site({ access, jobs }: { access: SiteAccess | undefined; jobs: Jobs }) {
  const keyOf = ({ firmId }: Person, jobId: number): string => `${firmId}-${jobId}`;

  const ask = async (method: 'GET' | 'POST' | 'DELETE', path: string, body?: unknown): Promise<Response> => {
    if (access === undefined) throw new RefusalError('SITE_AWAY');
    try {
      return await fetch(`${access.url}/sites/${path}`, {
        method,
        headers: {
          authorization: `Bearer ${access.token}`,
          ...(body === undefined ? {} : { 'content-type': 'application/json' }),
        },
        ...(body === undefined ? {} : { body: JSON.stringify(body) }),
        signal: AbortSignal.timeout(ANSWER_MS),
      });
    } catch {
      throw new RefusalError('SITE_AWAY');
    }
  };

  const answered = async <T>(answer: Response, schema: z.ZodType<T>): Promise<T> => {
    if (answer.status === 404) throw new RefusalError('SITE_NOT_OPEN');
    if (answer.status === 422) {
      const told = refused.safeParse(await answer.json());
      const message = told.success ? told.data.message : 'no reason was given';
      throw new RefusalError('SITE_IMPOSSIBLE', { problems: [{ path: [], message }] });
    }
    if (!answer.ok) throw new RefusalError('SITE_AWAY');
    return schema.parse(await answer.json());
  };

  const owned = async (person: Person, jobId: number): Promise<string> => {
    // A job of another firm is not found, whatever is open for it.
    await jobs.latestRevision(person, jobId);
    return keyOf(person, jobId);
  };

  return {
    /** Opens the site of a job anew, from its design as it stands. */
    open: async (person: Person, jobId: number): Promise<siteWire.OpenSite> => {
      if (!canTest(person)) throw new RefusalError('NOT_ALLOWED');
      const { design, revision } = await jobs.design(person, jobId);
      const body = { revision, document: design, seed: randomInt(MOST_SEED) };
      return answered(await ask('POST', keyOf(person, jobId), body), siteWire.openSite);
    },

    view: async (person: Person, jobId: number): Promise<siteWire.OpenSite> =>
      answered(await ask('GET', await owned(person, jobId)), siteWire.openSite),

    menu: async (person: Person, jobId: number) =>
      answered(await ask('GET', `${await owned(person, jobId)}/menu`), siteWire.siteMenu),

    act: async (person: Person, jobId: number, action: siteWire.SiteAction): Promise<siteWire.OpenSite> => {
      if (!canTest(person)) throw new RefusalError('NOT_ALLOWED');
      return answered(await ask('POST', `${await owned(person, jobId)}/actions`, action), siteWire.openSite);
    },

    close: async (person: Person, jobId: number): Promise<void> => {
      if (!canTest(person)) throw new RefusalError('NOT_ALLOWED');
      await ask('DELETE', await owned(person, jobId));
    },
  };
}
export type SiteService = ReturnType<typeof site>;
