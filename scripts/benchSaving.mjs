// `node scripts/benchSaving.mjs`: saves a second on jobs of 600 and 6,000 circuits, beside a bare echo and an echo with one
// durable insert, in alternating windows of one run. Everything listens on loopback and is stopped at the end.
import { randomUUID } from 'node:crypto';
import { Agent, request } from 'node:http';
import { join } from 'node:path';
import { rmSync } from 'node:fs';
import { ensureBuilt } from './lib/build.mjs';
import { checkNode, ensurePackages } from './lib/packages.mjs';
import { anyFreePort } from './lib/ports.mjs';
import { root } from './lib/run.mjs';
import { runMain } from './lib/sentence.mjs';
import { designOf } from './lib/benchDesigns.mjs';

const CONNECTIONS = 8;
const WINDOW_MS = 2500;
const ROUNDS = 3;
const median = (values) => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)];
const p95 = (values) => [...values].sort((a, b) => a - b)[Math.floor(values.length * 0.95)] ?? 0;

function send(agent, address, method, path, body, headers = {}) {
  return new Promise((resolve, reject) => {
    const text = body === undefined ? '' : JSON.stringify(body);
    const asked = request(
      `${address}${path}`,
      {
        method,
        agent,
        headers: {
          ...headers,
          ...(text === ''
            ? {}
            : { 'content-type': 'application/json', 'content-length': Buffer.byteLength(text) }),
        },
      },
      (answer) => {
        let got = '';
        answer.on('data', (chunk) => (got += chunk));
        answer.on('end', () =>
          resolve({ status: answer.statusCode, body: got, cookies: answer.headers['set-cookie'] }),
        );
      },
    );
    asked.on('error', reject);
    asked.end(text);
  });
}

/** How many answers come in a window over some connections, and how long each took. */
async function window(connections, ask) {
  const until = performance.now() + WINDOW_MS;
  const times = [];
  const from = performance.now();
  await Promise.all(
    Array.from({ length: connections }, async (_, lane) => {
      while (performance.now() < until) {
        const began = performance.now();
        await ask(lane);
        times.push(performance.now() - began);
      }
    }),
  );
  return { perSecond: (times.length * 1000) / (performance.now() - from), times };
}

/** A server that answers what it is sent, and another path that writes it down durably first. */
async function startEcho(databaseUrl) {
  const { default: fastify } = await import('fastify');
  const { createPool } = await import('mariadb');
  const url = new URL(databaseUrl);
  const pool = createPool({
    host: url.hostname,
    port: Number(url.port),
    user: url.username,
    password: decodeURIComponent(url.password),
    database: url.pathname.slice(1),
    connectionLimit: CONNECTIONS,
  });
  await pool.query('CREATE TABLE IF NOT EXISTS bench_echo (id INT AUTO_INCREMENT PRIMARY KEY, body TEXT)');
  const app = fastify();
  app.post('/echo', (asked) => asked.body);
  app.post('/durable', async (asked) => {
    await pool.query('INSERT INTO bench_echo (body) VALUES (?)', [JSON.stringify(asked.body)]);
    return asked.body;
  });
  const address = await app.listen({ port: await anyFreePort(), host: '127.0.0.1' });
  return {
    address,
    stop: async () => {
      await app.close();
      await pool.query('DROP TABLE bench_echo');
      await pool.end();
    },
  };
}

/** About 1 kB: the note of one circuit. */
const noteOf = (lane, count) => `${lane}-${count} `.padEnd(900, 'x');

await runMain(async () => {
  checkNode();
  ensurePackages();
  ensureBuilt();
  const { startDatabase } = await import('./lib/database.mjs');
  const { startServer } = await import('./lib/server.mjs');
  const folder = join(root, '.test', 'bench-saving');
  rmSync(folder, { recursive: true, force: true });
  const database = await startDatabase(folder);
  const server = await startServer({ port: await anyFreePort(), databaseUrl: database.url });
  const echo = await startEcho(database.url);
  const agent = new Agent({ keepAlive: true, maxSockets: CONNECTIONS * 2 });
  try {
    const demo = JSON.parse((await send(agent, server.address, 'GET', '/api/session/demo')).body);
    const designer = demo.users.find(({ role }) => role === 'designer');
    const entered = await send(agent, server.address, 'POST', '/api/session/demo', { userId: designer.id });
    const cookie = { cookie: entered.cookies[0].split(';')[0] };
    const jobs = [];
    for (const circuits of [600, 6000]) {
      const made = await send(agent, server.address, 'POST', '/api/jobs/import', designOf(circuits), cookie);
      if (made.status !== 201) throw new Error(`The job was not made: ${made.body.slice(0, 300)}`);
      jobs.push({ circuits, id: JSON.parse(made.body).id, revisions: 1, notes: new Map() });
    }
    const save = async (job, lane) => {
      // Each lane edits circuits of its own, as people on different boards do.
      const circuit = `c${lane + CONNECTIONS * (job.revisions % 70)}`;
      const before = job.notes.get(circuit);
      const after = noteOf(lane, randomUUID());
      const patches = [
        {
          op: 'set',
          path: ['circuits', circuit, 'note'],
          ...(before === undefined ? {} : { before }),
          after,
        },
      ];
      const batch = { baseRevision: job.revisions, editId: randomUUID(), patches };
      const answer = await send(agent, server.address, 'POST', `/api/jobs/${job.id}/edits`, batch, cookie);
      if (answer.status !== 200)
        throw new Error(`A save was answered ${answer.status}: ${answer.body.slice(0, 300)}`);
      job.notes.set(circuit, after);
      job.revisions = Math.max(job.revisions, JSON.parse(answer.body).revision);
    };
    const body = { editId: randomUUID(), note: noteOf(0, 0) };
    const kinds = [
      ['echo', (lane) => send(agent, echo.address, 'POST', '/echo', { ...body, lane })],
      ['durable', (lane) => send(agent, echo.address, 'POST', '/durable', { ...body, lane })],
      ...jobs.map((job) => [`save ${job.circuits}`, (lane) => save(job, lane)]),
    ];
    const seen = new Map(kinds.map(([name]) => [name, []]));
    for (let round = 0; round < ROUNDS; round += 1)
      for (const [name, ask] of kinds) seen.get(name).push(await window(CONNECTIONS, ask));
    const rate = (name) => median(seen.get(name).map(({ perSecond }) => perSecond));
    for (const [name] of kinds) {
      const times = seen.get(name).flatMap(({ times: some }) => some);
      console.log(
        `${name.padEnd(10)} ${rate(name).toFixed(0).padStart(6)} a second, p95 ${p95(times).toFixed(1)} ms; ${(rate(name) / rate('echo')).toFixed(3)} × echo, ${(rate(name) / rate('durable')).toFixed(3)} × durable echo`,
      );
    }
    for (const job of jobs) {
      const alone = await window(1, () => save(job, 0));
      console.log(
        `alone on ${job.circuits}: median ${median(alone.times).toFixed(1)} ms, p95 ${p95(alone.times).toFixed(1)} ms`,
      );
    }
  } finally {
    agent.destroy();
    await echo.stop();
    await server.stop();
    await database.stop();
    rmSync(folder, { recursive: true, force: true });
  }
});
