import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { codeOf, type Harness, NOW, PASSWORD, startHarness } from './testkit/harness.ts';

let harness: Harness;
let clock = NOW;
beforeAll(async () => void (harness = await startHarness({ demo: true, now: () => clock })));
afterAll(() => harness.close());

const signIn = (email: string, password: string) =>
  harness.app.inject({
    method: 'POST',
    url: '/api/session',
    payload: { email, password },
    remoteAddress: `10.0.0.${Math.floor(Math.random() * 200)}`,
  });

describe('who may come in', () => {
  it('answers for its health to anybody', async () => {
    const answer = await harness.app.inject('/api/health');
    expect(answer.json()).toMatchObject({ status: 'ok', version: '0.0.0-test' });
  });

  it.each([
    '/api/jobs',
    '/api/jobs/1',
    '/api/jobs/1/runs',
    '/api/runs/1',
    '/api/docs/json',
    '/api/jobs/1/limits.pdf',
    '/api/jobs/1/events',
    '/api/nowhere',
  ])('lets nobody see %s without a session', async (url) => {
    const answer = await harness.app.inject(url);
    expect(url === '/api/nowhere' ? 404 : 401).toBe(answer.statusCode);
  });

  it('gives a session cookie that scripts cannot read and other sites cannot send', async () => {
    const answer = await signIn('designer@north.test', PASSWORD);
    expect(answer.statusCode).toBe(200);
    expect(answer.cookies[0]).toMatchObject({ httpOnly: true, sameSite: 'Strict', path: '/' });
    expect(answer.json()).toMatchObject({ role: 'designer', firm: 'north' });
    expect(answer.headers['content-security-policy']).toContain("default-src 'self'");
    expect(answer.headers['x-content-type-options']).toBe('nosniff');
    expect(answer.headers['cache-control']).toBe('no-store');
  });

  it('says the same for a wrong password and for nobody', async () => {
    const [wrong, nobody] = [
      await signIn('designer@north.test', 'x'),
      await signIn('nobody@north.test', 'x'),
    ];
    expect([wrong.statusCode, codeOf(wrong)]).toEqual([401, 'SIGN_IN_WRONG']);
    expect(nobody.body).toBe(wrong.body);
  });

  it('keeps neither passwords nor tokens as they are', async () => {
    const user = await harness.database.models.users.findOne({ rejectOnEmpty: true });
    expect(user.passwordHash).toMatch(/^\$argon2id\$/);
    const session = await harness.database.models.sessions.findOne({ rejectOnEmpty: true });
    expect(session.tokenHash).toMatch(/^[0-9a-f]{64}$/);
  });

  it('ends a session at sign-out and after its time', async () => {
    const caller = await harness.as('viewer@north.test');
    expect((await caller('GET', '/api/jobs')).statusCode).toBe(200);
    clock = new Date(NOW.getTime() + 15 * 86_400_000);
    expect((await caller('GET', '/api/jobs')).statusCode).toBe(401);
    clock = NOW;
    expect((await caller('DELETE', '/api/session')).statusCode).toBe(204);
    expect((await caller('GET', '/api/jobs')).statusCode).toBe(401);
  });

  it('refuses changes that another site sends', async () => {
    const answer = await harness.app.inject({
      method: 'POST',
      url: '/api/session/demo',
      payload: { userId: 1 },
      headers: { origin: 'https://elsewhere.test' },
    });
    expect(codeOf(answer)).toBe('FOREIGN_ORIGIN');
  });

  it('offers only demo users for one-click entry', async () => {
    const offered = await harness.app.inject('/api/session/demo');
    expect(offered.json()).toMatchObject({ enabled: true, users: [{ role: 'viewer' }] });
    const answer = await harness.app.inject({
      method: 'POST',
      url: '/api/session/demo',
      payload: { userId: 1 },
    });
    expect(codeOf(answer)).toBe('NOT_FOUND');
  });

  it('slows down guessing', async () => {
    const tries = [];
    for (let n = 0; n < 12; n += 1) {
      tries.push(
        await harness.app.inject({
          method: 'POST',
          url: '/api/session',
          payload: { email: 'a@b.test', password: 'x' },
          remoteAddress: '10.9.9.9',
        }),
      );
    }
    expect(tries.slice(0, 10).every((answer) => answer.statusCode === 401)).toBe(true);
    const last = tries.at(-1);
    expect(last === undefined ? '' : codeOf(last)).toBe('TOO_MANY_TRIES');
  });

  it('describes every route to those inside', async () => {
    const caller = await harness.as('viewer@north.test');
    const { paths } = (await caller('GET', '/api/docs/json')).json<{ paths: Record<string, unknown> }>();
    expect(Object.keys(paths)).toEqual(
      expect.arrayContaining([
        '/api/health',
        '/api/session',
        '/api/jobs/{jobId}/edits',
        '/api/runs/{runId}/readings',
      ]),
    );
  });
});
