import { POWERS, type Powers, type Role, roleSchema, SAMPLE_TYPES } from '@bastion/core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Caller, type Harness, smallDesign, startHarness } from '../server/src/testkit/harness.ts';
import { photoForm } from './lib/photo.ts';
import { routesOf } from './lib/routes.ts';

/** Who may use a route: nobody needs to be signed in, everybody of the firm, or whoever has a power. */
type Needs = 'nobody' | 'anybody' | keyof Powers;

interface Attempt {
  readonly needs: Needs;
  /** Its path with what stands for things of the firm filled in. */
  readonly path?: (ids: Ids) => string;
  readonly body?: () => unknown;
}

/** Things of the north firm that routes are about. */
interface Ids {
  readonly job: number;
  readonly variant: number;
  readonly run: number;
  readonly photo: number;
  readonly capture: number;
  readonly person: number;
}

const design = smallDesign();
const own = { ...SAMPLE_TYPES[0], id: 'own-set', version: 1, name: 'Own set' };
const edit = (path: string[]) => () => ({
  baseRevision: 1,
  editId: `${path.join('-')}-${Math.floor(performance.now() * 1000)}`,
  patches: [{ op: 'set', path, after: 'x' }],
});

/** Every route of the server. One that is not here fails the trial. */
const ROUTES: Record<string, Attempt> = {
  'GET /api/health': { needs: 'nobody' },
  'POST /api/session': { needs: 'nobody', body: () => ({ email: 'a@b.test', password: 'x' }) },
  'GET /api/session': { needs: 'anybody' },
  'GET /api/session/demo': { needs: 'nobody' },
  'POST /api/session/demo': { needs: 'nobody', body: () => ({ userId: 1 }) },
  'GET /api/session/first': { needs: 'nobody' },
  'POST /api/session/first': {
    needs: 'nobody',
    body: () => ({ code: 'x', firm: 'x', name: 'x', email: 'a@b.test', password: 'x' }),
  },
  'GET /api/session/link/{token}': { needs: 'nobody', path: () => '/api/session/link/not-a-link-at-all' },
  'POST /api/session/link/{token}': {
    needs: 'nobody',
    path: () => '/api/session/link/not-a-link-at-all',
    body: () => ({ password: 'x' }),
  },
  'GET /api/people': { needs: 'manage' },
  'POST /api/people': { needs: 'manage', body: () => ({ name: 'x', email: 'a@b.test', role: 'viewer' }) },
  'PUT /api/people/{personId}': {
    needs: 'manage',
    path: ({ person }) => `/api/people/${person}`,
    body: () => ({ disabled: false }),
  },
  'POST /api/people/{personId}/link': {
    needs: 'manage',
    path: ({ person }) => `/api/people/${person}/link`,
  },
  'GET /api/audit': { needs: 'manage' },
  'POST /api/me/password': { needs: 'anybody', body: () => ({ old: 'x', next: 'y' }) },
  'GET /api/me/sessions': { needs: 'anybody' },
  'DELETE /api/me/sessions/{sessionId}': { needs: 'anybody', path: () => '/api/me/sessions/none' },
  'GET /api/jobs': { needs: 'anybody' },
  'POST /api/jobs': { needs: 'design', body: () => ({ name: 'x' }) },
  'POST /api/jobs/import': { needs: 'design', body: () => design },
  'GET /api/jobs/{jobId}': { needs: 'anybody' },
  'POST /api/jobs/{jobId}/exports': { needs: 'anybody', body: () => ({ kind: 'json' }) },
  'POST /api/jobs/{jobId}/edits': { needs: 'design', body: edit(['name']) },
  'PUT /api/jobs/{jobId}/document': { needs: 'design', body: () => design },
  'GET /api/jobs/{jobId}/revisions': { needs: 'anybody' },
  'GET /api/jobs/{jobId}/revisions/{revision}': {
    needs: 'anybody',
    path: ({ job }) => `/api/jobs/${job}/revisions/1`,
  },
  'POST /api/jobs/{jobId}/revisions/{revision}/restore': {
    needs: 'design',
    path: ({ job }) => `/api/jobs/${job}/revisions/1/restore`,
    body: () => ({ replaces: 1 }),
  },
  'GET /api/jobs/{jobId}/variants': { needs: 'anybody' },
  'POST /api/jobs/{jobId}/variants': { needs: 'design', body: () => ({ name: 'x' }) },
  'DELETE /api/jobs/{jobId}/variant': {
    needs: 'design',
    path: ({ variant }) => `/api/jobs/${variant}/variant`,
  },
  'GET /api/types': { needs: 'anybody' },
  'POST /api/types': { needs: 'design', body: () => ({ types: [own] }) },
  'DELETE /api/types/{typeId}': { needs: 'design', path: () => '/api/types/own-set' },
  'GET /api/library': { needs: 'anybody' },
  'PUT /api/library': { needs: 'design', body: () => ({ name: 'Lamp', quantity: 1, runningW: 9 }) },
  'DELETE /api/library/{id}': { needs: 'design', path: () => '/api/library/999' },
  'GET /api/jobs/{jobId}/attachments': { needs: 'anybody' },
  'POST /api/jobs/{jobId}/attachments': { needs: 'note', body: photoForm },
  'GET /api/attachments/{attachmentId}': {
    needs: 'anybody',
    path: ({ photo }) => `/api/attachments/${photo}`,
  },
  'GET /api/attachments/{attachmentId}/thumbnail': {
    needs: 'anybody',
    path: ({ photo }) => `/api/attachments/${photo}/thumbnail`,
  },
  'POST /api/jobs/{jobId}/captures': {
    needs: 'test',
    path: ({ job }) => `/api/jobs/${job}/captures?name=gap.csv`,
    body: () => Buffer.from('t,u\n'),
  },
  'GET /api/captures/{captureId}': {
    needs: 'anybody',
    path: ({ capture }) => `/api/captures/${capture}`,
  },
  'GET /api/jobs/{jobId}/runs': { needs: 'anybody' },
  'POST /api/jobs/{jobId}/runs': { needs: 'test' },
  'GET /api/runs/{runId}': { needs: 'anybody', path: ({ run }) => `/api/runs/${run}` },
  'POST /api/runs/{runId}/readings': {
    needs: 'test',
    path: ({ run }) => `/api/runs/${run}/readings`,
    body: () => ({ stepId: 'x', readingId: 'x', value: 1, attempt: 1 }),
  },
  'POST /api/runs/{runId}/end': {
    needs: 'test',
    path: ({ run }) => `/api/runs/${run}/end`,
    body: () => ({ state: 'aborted', reason: '' }),
  },
  'POST /api/jobs/{jobId}/site': { needs: 'test' },
  'GET /api/jobs/{jobId}/site': { needs: 'anybody' },
  'DELETE /api/jobs/{jobId}/site': { needs: 'test' },
  'GET /api/jobs/{jobId}/site/menu': { needs: 'anybody' },
  'POST /api/jobs/{jobId}/site/actions': { needs: 'test', body: () => ({ kind: 'bring-up' }) },
  'POST /api/jobs/{jobId}/live': {
    needs: 'test',
    body: () => ({ host: '127.0.0.1', port: 4999, unitId: 1, everyMs: 1000 }),
  },
  'GET /api/jobs/{jobId}/limits.pdf': { needs: 'anybody' },
  'GET /api/jobs/{jobId}/rehearsals.pdf': { needs: 'anybody' },
  'GET /api/jobs/{jobId}/drilling.pdf': { needs: 'anybody' },
  'GET /api/jobs/{jobId}/drawing.pdf': { needs: 'anybody' },
  'GET /api/runs/{runId}/record.pdf': { needs: 'anybody', path: ({ run }) => `/api/runs/${run}/record.pdf` },
  // Signs out: after everything else.
  'DELETE /api/session': { needs: 'nobody' },
};

const ROLES: readonly Role[] = roleSchema.options;
type Method = Parameters<Caller>[0];
const methodOf = (route: string): Method => route.split(' ')[0] as Method;

let harness: Harness;
let ids: Ids;
let stranger: Caller;
const callers = new Map<Role, Caller>();
const pathOf = (route: string): string =>
  ROUTES[route]?.path?.(ids) ?? (route.split(' ')[1] ?? '').replace('{jobId}', String(ids.job));

beforeAll(async () => {
  harness = await startHarness();
  const designer = await harness.as('designer@north.test');
  const made = async (url: string, body?: unknown) =>
    (await designer('POST', url, body)).json<{ id: number }>().id;
  const job = await made('/api/jobs/import', design);
  const { models } = harness.database;
  const person = await models.users.create({
    firmId: (await models.users.findOne({ where: { email: 'field@north.test' }, rejectOnEmpty: true }))
      .firmId,
    name: 'Somebody',
    email: 'somebody@north.test',
    role: 'viewer',
    passwordHash: null,
    demo: false,
  });
  for (const role of ROLES) callers.set(role, await harness.as(`${role}@north.test`));
  stranger = await harness.as('administrator@south.test');
  ids = {
    job,
    variant: await made(`/api/jobs/${job}/variants`, { name: 'Other' }),
    run: await made(`/api/jobs/${job}/runs`),
    photo: await made(`/api/jobs/${job}/attachments`, photoForm()),
    capture: await made(`/api/jobs/${job}/captures?name=gap.csv`, Buffer.from('t,u\n')),
    person: person.id,
  };
});
afterAll(() => harness.close());

it('the table has every route, and no other', async () => {
  const routes = await routesOf(stranger);
  expect(Object.keys(ROUTES).sort()).toEqual(routes.map(({ name }) => name).sort());
});

describe.each(Object.keys(ROUTES))('%s', (route) => {
  const { needs, body } = ROUTES[route] ?? { needs: 'nobody' };

  it('without a session', async () => {
    const given = body?.();
    const answer = await harness.app.inject({
      method: methodOf(route),
      url: pathOf(route),
      remoteAddress: `10.210.${Math.floor(Math.random() * 250)}.${Math.floor(Math.random() * 250)}`,
      ...(given === undefined ? {} : { payload: given as object }),
    });
    const isShut = needs !== 'nobody';
    expect([
      answer.statusCode === 401 && answer.body.includes('SIGN_IN_NEEDED'),
      answer.statusCode < 500,
    ]).toEqual([isShut, true]);
  });

  it.each(ROLES)('as %s', async (role) => {
    const caller = callers.get(role) ?? stranger;
    const answer = await caller(methodOf(route), pathOf(route), body?.());
    const may = needs === 'nobody' || needs === 'anybody' || POWERS[role][needs];
    expect(answer.statusCode).toBeLessThan(500);
    // What is refused for another reason was not refused for the role.
    expect(answer.statusCode === 403 && answer.body.includes('NOT_ALLOWED')).toBe(!may);
  });

  it.runIf(/jobId|runId|attachmentId|captureId|personId/.test(route))('of another firm', async () => {
    const answer = await stranger(methodOf(route), pathOf(route), body?.());
    expect(answer.statusCode).toBe(404);
  });
});
