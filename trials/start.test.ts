import { type ChildProcess, spawn } from 'node:child_process';
import { mkdtemp, readFile, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { z } from 'zod';
import { times } from './lib/form.ts';
import { ask, freePort } from './lib/servers.ts';

/** Accidents of the start itself: its database dies, it is killed, it is started twice. */
const PROGRAM = fileURLToPath(new URL('../scripts/start.mjs', import.meta.url));
const ACCIDENTS = times({ short: 1, long: 25 });

let folder = '';
const started: ChildProcess[] = [];
beforeAll(async () => void (folder = await mkdtemp(join(tmpdir(), 'bastion-start-'))));
afterAll(async () => {
  for (const child of started) child.kill('SIGTERM');
  await Promise.all(started.map(ended));
  await rm(folder, { recursive: true, force: true });
});

const ended = (child: ChildProcess): Promise<unknown> =>
  child.exitCode !== null || child.signalCode !== null
    ? Promise.resolve()
    : new Promise((resolve) => child.once('exit', resolve));

interface Started {
  readonly child: ChildProcess;
  readonly address: string;
  readonly said: () => string;
}

/** Starts the whole on the folder; resolves once it listens, or has ended. */
async function start(): Promise<Started> {
  const child = spawn(process.execPath, [PROGRAM], {
    env: { ...process.env, BASTION_DATA: folder, PORT: String(await freePort()), DATABASE_URL: '' },
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  started.push(child);
  let said = '';
  await new Promise<void>((resolve) => {
    const hear = (chunk: Buffer): void => {
      said += chunk.toString();
      if (said.includes('Ctrl-C stops it')) resolve();
    };
    child.stdout.on('data', hear);
    child.stderr.on('data', hear);
    child.once('exit', () => resolve());
  });
  return { child, address: /http:\/\/127\.0\.0\.1:\d+/.exec(said)?.[0] ?? '', said: () => said };
}

const demo = z.object({ users: z.array(z.object({ id: z.number(), role: z.string() })) });

async function comeIn(address: string): Promise<string> {
  const { users } = demo.parse((await ask(address, '', 'GET', '/session/demo')).body);
  const answer = await fetch(`${address}/api/session/demo`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ userId: users.find(({ role }) => role === 'designer')?.id }),
  });
  return answer.headers.get('set-cookie')?.split(';')[0] ?? '';
}

const opened = z.object({
  revision: z.number(),
  document: z.object({ site: z.object({ altitudeM: z.number() }) }),
});

/** Saves an altitude, sending it again until it is answered, as the pages do. */
async function save(
  address: string,
  cookie: string,
  altitudeM: number,
  baseRevision: number,
): Promise<number> {
  const batch = {
    baseRevision,
    editId: `altitude-${altitudeM}-${process.pid}`,
    patches: [{ op: 'set', path: ['site', 'altitudeM'], after: altitudeM }],
  };
  for (;;) {
    const answer = await ask(address, cookie, 'POST', '/jobs/1/edits', batch).catch(() => undefined);
    if (answer?.status === 200) return z.object({ revision: z.number() }).parse(answer.body).revision;
    expect([undefined, 500, 503]).toContain(answer?.status);
    await new Promise((resolve) => setTimeout(resolve, 200));
  }
}

it('what was saved is there after the database has died, after the start was killed, and a second start is refused', async () => {
  let running = await start();
  let cookie = await comeIn(running.address);
  let base = 1;
  let altitude = 100;
  for (let accident = 0; accident < ACCIDENTS; accident += 1) {
    base = await save(running.address, cookie, (altitude += 1), base);
    const database = Number(await readFile(join(folder, 'mariadb.pid'), 'utf8'));
    process.kill(database, 'SIGKILL');
    base = await save(running.address, cookie, (altitude += 1), base);
    expect(running.said()).toContain('The database ended by itself');

    const second = await start();
    await ended(second.child);
    expect(second.child.exitCode).not.toBe(0);
    expect(second.said()).toContain('in use by another start');
    expect(second.said()).not.toMatch(/at .*\.mjs:\d+/);

    running.child.kill('SIGKILL');
    await ended(running.child);
    running = await start();
    cookie = await comeIn(running.address);
    const found = opened.parse((await ask(running.address, cookie, 'GET', '/jobs/1')).body);
    expect([found.document.site.altitudeM, found.revision]).toEqual([altitude, base]);
  }
  running.child.kill('SIGTERM');
  await ended(running.child);
  expect(running.child.exitCode).toBe(0);
}, 3_600_000);
