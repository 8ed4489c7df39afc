import { type EquipmentType, liveWire, peopleWire, siteWire, wire } from '@bastion/core';
import { z } from 'zod';

/** A refusal by the server, with the sentence it gave. Code 'OFFLINE' is ours: the server could not be reached. */
export class RequestFailed extends Error {
  readonly status: number;
  readonly refusal: wire.Refusal;

  constructor(status: number, refusal: wire.Refusal) {
    super(refusal.message);
    this.status = status;
    this.refusal = refusal;
  }
}

const OFFLINE: wire.Refusal = {
  code: 'OFFLINE',
  message: 'The server cannot be reached.',
};

let onSignedOut = (): void => undefined;

/** Told when the server says that nobody is signed in any more. */
export function whenSignedOut(tell: () => void): void {
  onSignedOut = tell;
}

async function send(method: string, path: string, body?: unknown): Promise<unknown> {
  let response: Response;
  const content: RequestInit =
    body instanceof FormData
      ? { body }
      : body instanceof Blob
        ? { headers: { 'content-type': 'application/octet-stream' }, body }
        : body === undefined
          ? {}
          : { headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) };
  try {
    response = await fetch(`/api${path}`, { method, ...content });
  } catch {
    throw new RequestFailed(0, OFFLINE);
  }
  const text = await response.text();
  let value: unknown;
  try {
    value = text === '' ? undefined : JSON.parse(text);
  } catch {
    value = undefined;
  }
  if (response.ok) return value;
  const refusal = wire.refusal.safeParse(value);
  if (response.status === 401) onSignedOut();
  throw new RequestFailed(
    response.status,
    refusal.success
      ? refusal.data
      : { code: 'INTERNAL', message: 'The server gave an answer that is not understood.' },
  );
}

async function ask<T>(schema: z.ZodType<T>, method: string, path: string, body?: unknown): Promise<T> {
  return schema.parse(await send(method, path, body));
}

const created = z.object({ id: z.number() });

/** Failures that pass by themselves; signed out is one: after signing in again the same goes through. */
export function isTemporary(error: unknown): boolean {
  if (!(error instanceof RequestFailed)) return true;
  return ['OFFLINE', 'INTERNAL', 'BUSY', 'SIGN_IN_NEEDED'].includes(error.refusal.code);
}

/** Every request the pages make; each answer is parsed before it is believed. */
export const api = {
  me: () => ask(wire.userInfo, 'GET', '/session'),
  demoUsers: () => ask(wire.demoUsers, 'GET', '/session/demo'),
  signIn: (email: string, password: string) => ask(wire.userInfo, 'POST', '/session', { email, password }),
  signInDemo: (userId: number) => ask(wire.userInfo, 'POST', '/session/demo', { userId }),
  signOut: () => send('DELETE', '/session'),
  firstStep: () => ask(peopleWire.firstStep, 'GET', '/session/first'),
  makeFirst: (given: peopleWire.FirstAdministrator) => ask(wire.userInfo, 'POST', '/session/first', given),
  ticket: (token: string) => ask(peopleWire.ticketInfo, 'GET', `/session/link/${token}`),
  takeTicket: (token: string, password: string) =>
    ask(wire.userInfo, 'POST', `/session/link/${token}`, { password }),
  people: () => ask(z.array(peopleWire.personRow), 'GET', '/people'),
  invite: (given: peopleWire.Invitation) => ask(peopleWire.oneTimeLink, 'POST', '/people', given),
  changePerson: (id: number, change: peopleWire.PersonChange) => send('PUT', `/people/${id}`, change),
  linkFor: (id: number) => ask(peopleWire.oneTimeLink, 'POST', `/people/${id}/link`),
  trail: () => ask(peopleWire.auditPage, 'GET', '/audit'),
  changePassword: (old: string, next: string) => send('POST', '/me/password', { old, next }),
  ownSessions: () => ask(z.array(peopleWire.ownSession), 'GET', '/me/sessions'),
  endSession: (id: string) => send('DELETE', `/me/sessions/${id}`),
  tellExport: (jobId: number, kind: 'json' | 'csv' | 'xlsx' | 'svg' | 'dxf' | 'cff') =>
    send('POST', `/jobs/${jobId}/exports`, { kind }),
  jobs: () => ask(z.array(wire.jobSummary), 'GET', '/jobs'),
  createJob: (name: string, region: string | undefined) => ask(created, 'POST', '/jobs', { name, region }),
  importJob: (document: unknown) => ask(created, 'POST', '/jobs/import', document),
  job: (id: number) => ask(wire.jobDocument, 'GET', `/jobs/${id}`),
  replaceDocument: (id: number, document: unknown, replaces: number) =>
    ask(wire.saved, 'PUT', `/jobs/${id}/document?replaces=${replaces}`, document),
  revisions: (jobId: number, before: number | null) =>
    ask(wire.revisionList, 'GET', `/jobs/${jobId}/revisions${before === null ? '' : `?before=${before}`}`),
  revision: (jobId: number, revision: number) =>
    ask(wire.revisionDocument, 'GET', `/jobs/${jobId}/revisions/${revision}`),
  restore: (jobId: number, revision: number, replaces: number) =>
    ask(wire.saved, 'POST', `/jobs/${jobId}/revisions/${revision}/restore`, { replaces }),
  edit: (id: number, batch: wire.EditBatch) => ask(wire.saved, 'POST', `/jobs/${id}/edits`, batch),
  runs: (jobId: number) => ask(z.array(wire.runSummary), 'GET', `/jobs/${jobId}/runs`),
  startRun: (jobId: number, retest?: wire.StartRun['retest']) =>
    ask(wire.testRun, 'POST', `/jobs/${jobId}/runs`, retest === undefined ? {} : { retest }),
  run: (runId: number) => ask(wire.testRun, 'GET', `/runs/${runId}`),
  addReading: (runId: number, reading: wire.NewReading) =>
    ask(wire.reading, 'POST', `/runs/${runId}/readings`, reading),
  variants: (jobId: number) => ask(z.array(wire.variant), 'GET', `/jobs/${jobId}/variants`),
  createVariant: (jobId: number, name: string) => ask(created, 'POST', `/jobs/${jobId}/variants`, { name }),
  removeVariant: (jobId: number) => send('DELETE', `/jobs/${jobId}/variant`),
  library: () => ask(wire.library, 'GET', '/library'),
  keepInLibrary: (item: wire.LibraryItem) => ask(wire.libraryEntry, 'PUT', '/library', item),
  removeFromLibrary: (id: number) => send('DELETE', `/library/${id}`),
  catalogue: () => ask(wire.catalogue, 'GET', '/types'),
  keepTypes: (types: readonly EquipmentType[]) => ask(wire.catalogue, 'POST', '/types', { types }),
  removeType: (id: string) => send('DELETE', `/types/${encodeURIComponent(id)}`),
  attachments: (jobId: number) => ask(z.array(wire.attachment), 'GET', `/jobs/${jobId}/attachments`),
  addPhoto: (jobId: number, given: { id: string; photo: Blob; thumbnail: Blob; name: string }) => {
    const form = new FormData();
    form.set('photo', given.photo, given.name);
    form.set('thumbnail', given.thumbnail, given.name);
    return ask(wire.attachment, 'POST', `/jobs/${jobId}/attachments?key=${given.id}`, form);
  },
  keepCapture: (jobId: number, name: string, bytes: Blob) =>
    ask(wire.capture, 'POST', `/jobs/${jobId}/captures?name=${encodeURIComponent(name)}`, bytes),
  capture: async (captureId: number): Promise<File> => {
    const response = await fetch(`/api/captures/${captureId}`).catch(() => {
      throw new RequestFailed(0, OFFLINE);
    });
    if (!response.ok)
      throw new RequestFailed(response.status, {
        code: 'NOT_FOUND',
        message: 'This capture is not here any more.',
      });
    const name = /filename\*=UTF-8''(.+)$/u.exec(response.headers.get('content-disposition') ?? '')?.[1];
    return new File([await response.blob()], name === undefined ? 'capture.cff' : decodeURIComponent(name));
  },
  openSite: (jobId: number) => ask(siteWire.openSite, 'POST', `/jobs/${jobId}/site`),
  site: (jobId: number) => ask(siteWire.openSite, 'GET', `/jobs/${jobId}/site`),
  siteMenu: (jobId: number) => ask(siteWire.siteMenu, 'GET', `/jobs/${jobId}/site/menu`),
  siteAction: (jobId: number, action: siteWire.SiteAction) =>
    ask(siteWire.openSite, 'POST', `/jobs/${jobId}/site/actions`, action),
  closeSite: (jobId: number) => send('DELETE', `/jobs/${jobId}/site`),
  openLive: (jobId: number, device: liveWire.LiveDevice) =>
    ask(liveWire.liveLink, 'POST', `/jobs/${jobId}/live`, device),
  endRun: (runId: number, state: 'finished' | 'aborted', reason: string) =>
    ask(wire.testRun, 'POST', `/runs/${runId}/end`, { state, reason }),
};

/** The sentence of whatever went wrong, with the places it names. */
export function failureSentence(error: unknown): string {
  if (!(error instanceof RequestFailed))
    return error instanceof Error ? error.message : 'Something went wrong.';
  const problems =
    error.refusal.problems?.slice(0, 3).map((one) => `${one.path.join('.')} ${one.message}`) ?? [];
  return [error.refusal.message, ...problems].join(' ');
}
