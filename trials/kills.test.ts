import { randomUUID } from 'node:crypto';
import { designSchema } from '@bastion/core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { z } from 'zod';
import { type Harness, smallDesign, startHarness } from '../server/src/testkit/harness.ts';
import { times } from './lib/form.ts';
import { ask, end, endAll, signIn, startServer } from './lib/servers.ts';

/** A running server is killed in the middle of saving, and two servers work on one database. */
const KILLS = times({ short: 6, long: 1000 });
const STEPS = times({ short: 15, long: 500 });
const LANES = 6;
/** A kill takes a few seconds: most of it is the next server's start. */
const PATIENCE_MS = 600_000 + KILLS * 12_000;

let harness: Harness;
beforeAll(async () => void (harness = await startHarness()));
afterAll(async () => {
  await endAll();
  await harness.close();
});

const opened = z.object({ revision: z.number(), document: designSchema });
const saved = z.object({ revision: z.number() });
const made = z.object({ id: z.number() });

/** The job as a server has it, asked for again while it has too much to do; what else it answered is told. */
async function openJob(address: string, cookie: string, id: number): Promise<z.infer<typeof opened>> {
  let answer = await ask(address, cookie, 'GET', `/jobs/${id}`);
  for (let tries = 0; answer.status === 503 && tries < 10; tries += 1) {
    await new Promise((resolve) => setTimeout(resolve, 1000));
    answer = await ask(address, cookie, 'GET', `/jobs/${id}`);
  }
  if (answer.status !== 200)
    throw new Error(`The job was answered ${answer.status}: ${JSON.stringify(answer.body)}`);
  return opened.parse(answer.body);
}

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
  it(
    `loses no edit that it has answered, over ${KILLS} kills, and applies none twice`,
    async () => {
      let server = await startServer(harness);
      let cookie = await signIn(server.address);
      const { id } = made.parse(
        (await ask(server.address, cookie, 'POST', '/jobs/import', laneDesign())).body,
      );
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
        server = await startServer(harness);
        cookie = await signIn(server.address);
        const found = await openJob(server.address, cookie, id);
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
      const last = await openJob(server.address, cookie, id);
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
    },
    PATIENCE_MS,
  );
});

describe('a machine that is busy with something else', () => {
  // The server stands still while it reads a document, for longer than any work may take: nobody's design is to blame for that.
  it('never tells a job that it takes too long', async () => {
    const server = await startServer(harness);
    const cookie = await signIn(server.address);
    const design = laneDesign();
    const [circuit] = design.circuits;
    const many = Array.from({ length: 3000 }, (_, at) => ({ ...circuit, id: `m${at}`, note: '0' }));
    const large = { ...design, circuits: many };
    const imported = async (one: unknown): Promise<number> =>
      made.parse((await ask(server.address, cookie, 'POST', '/jobs/import', one)).body).id;
    const id = await imported(large);
    const small = await imported(design);
    await end(server, 'SIGTERM');
    const next = await startServer(harness);
    const again = await signIn(next.address);
    // A small one first: its threads have started then.
    await openJob(next.address, again, small);
    const answering = ask(next.address, again, 'GET', `/jobs/${id}`);
    await new Promise((resolve) => setTimeout(resolve, 60));
    next.child.kill('SIGSTOP');
    await new Promise((resolve) => setTimeout(resolve, 6000));
    next.child.kill('SIGCONT');
    const { status, body } = await answering;
    expect([200, 503], JSON.stringify(body).slice(0, 200)).toContain(status);
    expect((await openJob(next.address, again, id)).document.circuits).toHaveLength(3000);
    await end(next, 'SIGTERM');
  }, 60_000);
});

describe('two servers on one database', () => {
  it('give each revision once, and both end with the same document', async () => {
    const servers = [await startServer(harness), await startServer(harness)];
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
        for (let step = 0; step < STEPS; step += 1) {
          const { address, cookie } = at(index + step);
          await lane.step(address, cookie);
        }
      }),
    );
    const documents = await Promise.all(
      servers.map(async ({ address }, index) => openJob(address, cookies[index] ?? '', id)),
    );
    expect(documents[0]).toEqual(documents[1]);
    expect(documents[0]?.revision).toBe(1 + LANES * STEPS);
    expect(documents[0]?.document.circuits.map(({ note }) => note)).toEqual(lanes.map(() => String(STEPS)));
    for (const server of servers) await end(server, 'SIGTERM');
  }, 3_600_000);
});
