import { type ChildProcess, spawn } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { createServer } from 'node:net';
import { fileURLToPath } from 'node:url';
import { designSchema } from '@bastion/core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { z } from 'zod';
import { type Harness, PASSWORD, smallDesign, startHarness } from './testkit/harness.ts';

/** Short forms of the trials on a running server: killed in the middle of saving, and two servers on one database. */
const PROGRAM = fileURLToPath(new URL('../dist/main.js', import.meta.url));
const KILLS = 6;
const LANES = 6;

let harness: Harness;
beforeAll(async () => void (harness = await startHarness()));
afterAll(() => harness.close());

const freePort = (): Promise<number> =>
  new Promise((resolve) => {
    const probe = createServer().listen(0, '127.0.0.1', () => {
      const address = probe.address();
      probe.close(() => resolve(typeof address === 'object' && address !== null ? address.port : 0));
    });
  });

interface Running {
  readonly address: string;
  readonly child: ChildProcess;
}

async function start(): Promise<Running> {
  const { database, host, port, username, password } = harness.database.sequelize.config;
  const own = await freePort();
  const child = spawn(process.execPath, [PROGRAM], {
    env: {
      ...process.env,
      DATABASE_URL: `mariadb://${username}:${String(password)}@${String(host)}:${String(port)}/${database}`,
      PORT: String(own),
      BASTION_DEMO: 'off',
    },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  await new Promise<void>((resolve, reject) => {
    child.stdout.on('data', (chunk) => String(chunk).includes('listening') && resolve());
    child.once('exit', (code) => reject(new Error(`The server ended before it listened (${String(code)}).`)));
  });
  return { address: `http://127.0.0.1:${own}`, child };
}

/** Ends a server, by its own process id, and waits until it is gone. */
async function end({ child }: Running, signal: 'SIGKILL' | 'SIGTERM'): Promise<void> {
  const gone = new Promise((resolve) => child.once('exit', resolve));
  child.kill(signal);
  await gone;
}

async function signIn(address: string): Promise<string> {
  const answer = await fetch(`${address}/api/session`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ email: 'designer@north.test', password: PASSWORD }),
  });
  return answer.headers.get('set-cookie')?.split(';')[0] ?? '';
}

async function ask(address: string, cookie: string, method: string, path: string, body?: unknown) {
  const answer = await fetch(`${address}/api${path}`, {
    method,
    headers: { cookie, ...(body === undefined ? {} : { 'content-type': 'application/json' }) },
    ...(body === undefined ? {} : { body: JSON.stringify(body) }),
  });
  return { status: answer.status, body: (await answer.json()) as unknown };
}

const opened = z.object({ revision: z.number(), document: designSchema });
const saved = z.object({ revision: z.number() });
const made = z.object({ id: z.number() });

/** A document with a circuit for each lane, so that lanes never clash. */
function laneDesign() {
  const design = smallDesign();
  const [circuit] = design.circuits;
  if (circuit === undefined) throw new Error('It has a circuit.');
  return {
    ...design,
    circuits: Array.from({ length: LANES }, (_, lane) => ({
      ...circuit,
      id: `c${lane}`,
      name: `Lane ${lane}`,
      note: '0',
    })),
  };
}

/** Counts a lane's note up, remembering what was answered; the same batch is sent again where no answer came. */
class Lane {
  acknowledged = 0;
  base = 0;
  private pending: { editId: string; value: number } | undefined;
  private readonly lane: number;
  private readonly jobId: number;

  constructor(lane: number, jobId: number) {
    this.lane = lane;
    this.jobId = jobId;
  }

  async step(address: string, cookie: string): Promise<void> {
    this.pending ??= { editId: randomUUID(), value: this.acknowledged + 1 };
    const { editId, value } = this.pending;
    const path = ['circuits', `c${this.lane}`, 'note'];
    const patches = [{ op: 'set', path, before: String(value - 1), after: String(value) }];
    const answer = await ask(address, cookie, 'POST', `/jobs/${this.jobId}/edits`, {
      baseRevision: this.base,
      editId,
      patches,
    });
    if (answer.status !== 200)
      throw new Error(`An edit was answered ${answer.status}: ${JSON.stringify(answer.body)}`);
    this.base = Math.max(this.base, saved.parse(answer.body).revision);
    this.acknowledged = value;
    this.pending = undefined;
  }
}

describe('a server that is killed while people save', () => {
  it(`loses no edit that it has answered, over ${KILLS} kills, and applies none twice`, async () => {
    let server = await start();
    let cookie = await signIn(server.address);
    const { id } = made.parse((await ask(server.address, cookie, 'POST', '/jobs/import', laneDesign())).body);
    const lanes = Array.from({ length: LANES }, (_, lane) => new Lane(lane, id));
    for (let kill = 0; kill < KILLS; kill += 1) {
      const current = server;
      const work = lanes.map(async (lane) => {
        for (;;) await lane.step(current.address, cookie);
      });
      const results = Promise.allSettled(work);
      await new Promise((resolve) => setTimeout(resolve, 150 + ((kill * 97) % 200)));
      await end(current, 'SIGKILL');
      await results;
      server = await start();
      cookie = await signIn(server.address);
      const found = opened.parse((await ask(server.address, cookie, 'GET', `/jobs/${id}`)).body);
      lanes.forEach((lane, index) => {
        const note = Number(found.document.circuits[index]?.note);
        // What was answered is there; what was under way may be as well.
        expect(note).toBeGreaterThanOrEqual(lane.acknowledged);
        expect(note).toBeLessThanOrEqual(lane.acknowledged + 1);
        lane.base = Math.min(lane.base, found.revision);
      });
    }
    // The batches without an answer are sent again: each counts once.
    for (const lane of lanes) await lane.step(server.address, cookie);
    const last = opened.parse((await ask(server.address, cookie, 'GET', `/jobs/${id}`)).body);
    expect(last.document.circuits.map(({ note }) => Number(note))).toEqual(
      lanes.map(({ acknowledged }) => acknowledged),
    );
    const total = lanes.reduce((sum, { acknowledged }) => sum + acknowledged, 0);
    expect(last.revision).toBe(1 + total);
    expect(total).toBeGreaterThan(LANES * KILLS);
    await end(server, 'SIGTERM');
    // Stopped in order, the whole document is as far as its edits.
    const row = await harness.database.models.jobs.findByPk(id, { rejectOnEmpty: true });
    expect(row.documentRevision).toBe(last.revision);
  }, 60_000);
});

describe('two servers on one database', () => {
  it('give each revision once, and both end with the same document', async () => {
    const servers = [await start(), await start()];
    const cookies = await Promise.all(servers.map(({ address }) => signIn(address)));
    const at = (index: number) => ({
      address: servers[index % 2]?.address ?? '',
      cookie: cookies[index % 2] ?? '',
    });
    const first = at(0);
    const { id } = made.parse(
      (await ask(first.address, first.cookie, 'POST', '/jobs/import', laneDesign())).body,
    );
    const lanes = Array.from({ length: LANES }, (_, lane) => new Lane(lane, id));
    await Promise.all(
      lanes.map(async (lane, index) => {
        for (let step = 0; step < 15; step += 1) {
          const { address, cookie } = at(index + step);
          await lane.step(address, cookie);
        }
      }),
    );
    const documents = await Promise.all(
      servers.map(async ({ address }, index) =>
        opened.parse((await ask(address, cookies[index] ?? '', 'GET', `/jobs/${id}`)).body),
      ),
    );
    expect(documents[0]).toEqual(documents[1]);
    expect(documents[0]?.revision).toBe(1 + LANES * 15);
    expect(documents[0]?.document.circuits.map(({ note }) => note)).toEqual(lanes.map(() => '15'));
    for (const server of servers) await end(server, 'SIGTERM');
  }, 60_000);
});
