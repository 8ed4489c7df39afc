import { spawnSync } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import { type Role, roleSchema } from '@bastion/core';
import type { LightMyRequestResponse } from 'fastify';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { audit } from './services/audit.ts';
import { passwordProblem } from './services/passwords.ts';
import { people } from './services/people.ts';
import { accounts } from './services/accounts.ts';
import { codeOf, type Harness, NOW, smallDesign, startHarness } from './testkit/harness.ts';

const GOOD = 'plover over mudflats';

/** Services of a harness, as `main` makes them. */
function servicesOf({ database }: Harness) {
  const now = (): Date => NOW;
  const trail = audit(database, now);
  const own = accounts({ models: database.models, audit: trail, now, demo: false });
  return { trail, people: people({ ...database, accounts: own, audit: trail, now, demo: false }) };
}

const cookieOf = (answer: LightMyRequestResponse): Record<string, string> =>
  Object.fromEntries(answer.cookies.map(({ name, value }) => [name, value]));

describe('a server that nobody has come into', () => {
  let harness: Harness;
  beforeAll(async () => void (harness = await startHarness({ empty: true })));
  afterAll(() => harness.close());
  const first = (over: object) =>
    harness.app.inject({
      method: 'POST',
      url: '/api/session/first',
      remoteAddress: `10.1.0.${Math.floor(Math.random() * 250)}`,
      payload: { firm: 'Kestrel Electric', name: 'Ida', email: 'ida@kestrel.test', password: GOOD, ...over },
    });

  it('is opened once, by the code that the last start has printed, and with a password that holds', async () => {
    const { people: service, trail } = servicesOf(harness);
    const [old, code] = [await service.firstCode(), await service.firstCode()];
    expect(code).toMatch(/^([A-Z2-9]{4}-){3}[A-Z2-9]{4}$/);
    expect((await harness.app.inject('/api/session/first')).json()).toEqual({ needed: true });
    expect(codeOf(await first({ code: 'AAAA-BBBB-CCCC-DDDD' }))).toBe('CODE_WRONG');
    expect(codeOf(await first({ code: old }))).toBe('CODE_WRONG');
    expect(codeOf(await first({ code, password: 'kestrel' }))).toBe('PASSWORD_WEAK');
    // Two at once: one makes the firm.
    const both = await Promise.all([first({ code }), first({ code, email: 'other@kestrel.test' })]);
    expect(both.map(({ statusCode }) => statusCode).sort()).toEqual([200, 403]);
    expect((await harness.app.inject('/api/session/first')).json()).toEqual({ needed: false });
    expect(await service.firstCode()).toBeUndefined();
    expect(await harness.database.models.firms.count()).toBe(1);
    expect(await trail.check()).toEqual({ intact: true, entries: 2 });
  });
});

describe('the people of a firm', () => {
  let harness: Harness;
  beforeAll(async () => void (harness = await startHarness({ trustedProxies: ['10.7.7.7'] })));
  afterAll(() => harness.close());
  const take = (path: string, password: string, address = '10.2.0.1') =>
    harness.app.inject({
      method: 'POST',
      url: path.replace('/join/', '/api/session/link/'),
      payload: { password },
      remoteAddress: address,
    });
  const invitation = { name: 'Rui', email: 'rui@north.test', role: 'field' as Role };

  it('are invited by a link that works once, and come in with what they are', async () => {
    const admin = await harness.as('administrator@north.test');
    const made = (await admin('POST', '/api/people', invitation)).json<{ path: string }>();
    expect(codeOf(await admin('POST', '/api/people', invitation))).toBe('EMAIL_TAKEN');
    const again = (await admin('GET', '/api/people')).json<
      { email: string; id: number; invited: boolean }[]
    >();
    const rui = again.find(({ email }) => email === invitation.email);
    expect(rui?.invited).toBe(true);
    // A newer link takes the place of the first.
    const newer = (await admin('POST', `/api/people/${rui?.id ?? 0}/link`)).json<{ path: string }>();
    expect(codeOf(await take(made.path, GOOD))).toBe('LINK_SPENT');
    expect(codeOf(await take(newer.path, '1234567890'))).toBe('PASSWORD_WEAK');
    const entered = await take(newer.path, GOOD);
    expect(entered.json()).toMatchObject({ role: 'field', firm: 'north' });
    expect(codeOf(await take(newer.path, GOOD))).toBe('LINK_SPENT');
    // What is stored opens nothing.
    const tickets = await harness.database.models.tickets.findAll();
    expect(tickets.map(({ tokenHash }) => tokenHash)).not.toContain(newer.path.replace('/join/', ''));
  });

  it('lose their sessions when they are disabled, become something else, or get a new password', async () => {
    const admin = await harness.as('administrator@north.test');
    const rows = (await admin('GET', '/api/people')).json<{ email: string; id: number }[]>();
    const id = rows.find(({ email }) => email === 'field@north.test')?.id ?? 0;
    for (const change of [{ disabled: true }, { role: 'viewer' }]) {
      const field = await harness.as('field@north.test');
      expect((await field('GET', '/api/jobs')).statusCode).toBe(200);
      expect((await admin('PUT', `/api/people/${id}`, change)).statusCode).toBe(204);
      expect((await field('GET', '/api/jobs')).statusCode).toBe(401);
      await admin('PUT', `/api/people/${id}`, { disabled: false, role: 'field' });
    }
    const [one, other] = [await harness.as('field@north.test'), await harness.as('field@north.test')];
    expect(codeOf(await one('POST', '/api/me/password', { old: 'wrong', next: GOOD }))).toBe(
      'PASSWORD_WRONG',
    );
    const sessions = (await one('GET', '/api/me/sessions')).json<{ id: string; isThis: boolean }[]>();
    expect(sessions.filter(({ isThis }) => isThis)).toHaveLength(1);
    expect((await one('POST', '/api/me/password', { old: 'correct horse', next: GOOD })).statusCode).toBe(
      204,
    );
    expect([
      (await one('GET', '/api/jobs')).statusCode,
      (await other('GET', '/api/jobs')).statusCode,
    ]).toEqual([200, 401]);
  });

  it('always have an administrator, also when two shut each other out at once', async () => {
    const admin = await harness.as('administrator@south.test');
    const rows = (await admin('GET', '/api/people')).json<{ email: string; id: number }[]>();
    const idOf = (email: string): number => rows.find((row) => row.email === email)?.id ?? 0;
    const own = idOf('administrator@south.test');
    for (const change of [{ disabled: true }, { role: 'viewer' }])
      expect(codeOf(await admin('PUT', `/api/people/${own}`, change))).toBe('LAST_ADMINISTRATOR');
    await admin('PUT', `/api/people/${idOf('designer@south.test')}`, { role: 'administrator' });
    const second = await harness.as('designer@south.test');
    const both = await Promise.all([
      admin('PUT', `/api/people/${idOf('designer@south.test')}`, { disabled: true }),
      second('PUT', `/api/people/${own}`, { disabled: true }),
    ]);
    expect(both.map(({ statusCode }) => statusCode).filter((status) => status === 204)).toHaveLength(1);
    // Nobody reaches into another firm.
    const north = await harness.as('administrator@north.test');
    expect(codeOf(await north('PUT', `/api/people/${own}`, { role: 'viewer' }))).toBe('NOT_FOUND');
  });

  it('may do what the table of roles says, and nothing else', async () => {
    const designer = await harness.as('designer@north.test');
    const { id: job } = (await designer('POST', '/api/jobs/import', smallDesign())).json<{ id: number }>();
    const routes = {
      design: ['POST', '/api/jobs', { name: 'New' }],
      test: ['POST', `/api/jobs/${job}/runs`, undefined],
      manage: ['GET', '/api/people', undefined],
      trail: ['GET', '/api/audit', undefined],
      look: ['GET', `/api/jobs/${job}`, undefined],
    } as const;
    const found = new Map<Role, string>();
    for (const role of roleSchema.options.filter((one) => one !== 'field')) {
      const caller = await harness.as(`${role}@north.test`);
      const may: string[] = [];
      for (const [power, [method, url, body]] of Object.entries(routes))
        if ((await caller(method, url, body)).statusCode < 300) may.push(power);
      found.set(role, may.join(' '));
    }
    expect(Object.fromEntries(found)).toEqual({
      administrator: 'design test manage trail look',
      designer: 'design test look',
      approver: 'look',
      viewer: 'look',
    });
  });

  it('are slowed down by account wherever they come from, and by the address that the named proxy tells', async () => {
    const tryAs = (email: string, remoteAddress: string, forwarded?: string) =>
      harness.app.inject({
        method: 'POST',
        url: '/api/session',
        payload: { email, password: 'no' },
        remoteAddress,
        ...(forwarded === undefined ? {} : { headers: { 'x-forwarded-for': forwarded } }),
      });
    const byAccount = [];
    for (let n = 0; n < 22; n += 1)
      byAccount.push((await tryAs('somebody@north.test', `10.3.0.${n}`)).statusCode);
    expect(byAccount.slice(-2)).toEqual([429, 429]);
    expect(byAccount.slice(0, 20).every((status) => status === 401)).toBe(true);
    // Behind the proxy each caller has an address of their own; from elsewhere the header is not believed.
    const told = [];
    for (let n = 0; n < 12; n += 1)
      told.push((await tryAs(`x${n}@a.test`, '10.7.7.7', `10.4.0.${n}`)).statusCode);
    expect(told.every((status) => status === 401)).toBe(true);
    const forged = [];
    for (let n = 0; n < 12; n += 1)
      forged.push((await tryAs(`y${n}@a.test`, '10.8.8.8', `10.5.0.${n}`)).statusCode);
    expect(forged.at(-1)).toBe(429);
  });

  it('leave a trail that shows every entry that was changed, cut out or cut off', async () => {
    const { trail } = servicesOf(harness);
    const { models } = harness.database;
    const whole = await trail.check();
    expect(whole.intact).toBe(true);
    const actions = (await models.audit.findAll()).map(({ action }) => action);
    expect(actions).toEqual(
      expect.arrayContaining(['invited', 'took the invitation', 'changed a person', 'made a job']),
    );
    const row = await models.audit.findOne({ order: ['id'], offset: 3, rejectOnEmpty: true });
    const { subject } = row;
    await row.update({ subject: 'somebody else' });
    expect(await trail.check()).toMatchObject({ intact: false });
    await row.update({ subject });
    expect(await trail.check()).toEqual(whole);
    const last = await models.audit.findOne({ order: [['id', 'DESC']], rejectOnEmpty: true });
    const kept = { ...last.get() };
    await last.destroy();
    expect(await trail.check()).toMatchObject({ intact: false });
    await models.audit.create(kept);
    expect(await trail.check()).toEqual(whole);
  });

  it('are helped on the machine itself', async () => {
    const { sequelize } = harness.database;
    const { database, host, port, username, password } = sequelize.config;
    const DATABASE_URL = `mariadb://${username}:${String(password)}@${String(host)}:${String(port)}/${database}`;
    let said = '';
    const program = fileURLToPath(new URL('../dist/adminMain.js', import.meta.url));
    const bastion = (...args: string[]): number | null => {
      const env = { ...process.env, DATABASE_URL };
      const done = spawnSync(process.execPath, [program, ...args], { env, encoding: 'utf8' });
      said = done.stdout;
      return done.status;
    };
    expect(bastion('user', 'reset', 'administrator@north.test')).toBe(0);
    const path = /^\/join\/\S+/.exec(said)?.[0] ?? '';
    const entered = await take(path, GOOD, '10.2.0.9');
    expect(entered.json()).toMatchObject({ role: 'administrator' });
    expect(cookieOf(entered).bastion_session).toBeDefined();
    expect(bastion('user', 'role', 'viewer@north.test', 'king')).toBe(2);
    expect(said).toContain('"king" is no role');
    expect(bastion('user', 'disable', 'nobody@north.test')).toBe(2);
    expect(bastion('user', 'list')).toBe(0);
    expect(said).toContain('administrator@north.test\tnorth administrator\tadministrator\tactive');
    expect(bastion('audit')).toBe(0);
  });
});

describe('a folder that once had the demo', () => {
  it('lets no sample person in where the demo is off, by password or by an open session', async () => {
    let clock = NOW;
    const harness = await startHarness({ now: () => clock });
    const { users } = harness.database.models;
    const viewer = await harness.as('viewer@north.test');
    await users.update({ demo: true }, { where: { email: 'viewer@north.test' } });
    clock = new Date(NOW.getTime() + 2000);
    expect((await viewer('GET', '/api/jobs')).statusCode).toBe(401);
    await expect(harness.as('viewer@north.test')).rejects.toThrow('401');
    await harness.close();
  });
});

describe('what is taken as a password', () => {
  it.each([
    ['short1!', 'has 7 characters'],
    ['aaaaaaaaaaaa', 'repeats'],
    ['1234567890', 'tried first'],
    ['password123!', 'tried first'],
    ['northgatehill-26', 'little more than'],
    ['plover over mudflats', undefined],
    ['x9!kQ2#vLm', undefined],
  ])('%s: %s', (password, problem) => {
    const found = passwordProblem(password, ['Northgatehill Electric', 'ida@kestrel.test']);
    if (problem === undefined) expect(found).toBeUndefined();
    else expect(found).toContain(problem);
  });
});
