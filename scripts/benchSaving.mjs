// `node scripts/benchSaving.mjs`: saves a second on jobs of 600 and 6,000 circuits, beside a bare echo, an echo with one durable insert
// and an echo whose inserts wait for each other, in alternating windows of one run. The echo has a process of its own, as the server
// has, and the caller costs as little as can be: what it spends is taken from both. All listens on loopback and is stopped at the end.
import { randomUUID } from 'node:crypto';
import { Agent, request } from 'node:http';
import { connect } from 'node:net';
import { join } from 'node:path';
import { rmSync } from 'node:fs';
import { ensureBuilt } from './lib/build.mjs';
import { checkNode, ensurePackages } from './lib/packages.mjs';
import { anyFreePort } from './lib/ports.mjs';
import { root, startListening, stopChild } from './lib/run.mjs';
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

/** One kept connection that asks one thing at a time and reads no more of an answer than it must. */
class Lane {
  constructor(address) {
    const { hostname, port } = new URL(address);
    this.socket = connect(Number(port), hostname);
    this.socket.setNoDelay(true);
    this.socket.setEncoding('latin1');
    this.got = '';
    this.socket.on('data', (piece) => this.take(piece));
    this.socket.on('error', (error) => this.waiting?.failed(error));
    this.socket.on('close', () => this.waiting?.failed(new Error('The connection was closed.')));
  }

  take(piece) {
    this.got += piece;
    const end = this.got.indexOf('\r\n\r\n') + 4;
    const length = Number(/content-length: (\d+)/i.exec(this.got)?.[1]);
    if (end < 4 || this.got.length < end + length) return;
    const answer = { status: Number(this.got.slice(9, 12)), body: this.got.slice(end, end + length) };
    this.got = '';
    const { done } = this.waiting;
    this.waiting = undefined;
    done(answer);
  }

  post(path, body, headers = '') {
    const text = JSON.stringify(body);
    return new Promise((done, failed) => {
      this.waiting = { done, failed };
      this.socket.write(
        `POST ${path} HTTP/1.1\r\nhost: bench\r\n${headers}content-type: application/json\r\ncontent-length: ${text.length}\r\n\r\n${text}`,
      );
    });
  }

  end() {
    this.waiting = undefined;
    this.socket.destroy();
  }
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

/** About half a kB: the note of one circuit, which an edit says twice: what was there, and what comes. */
const noteOf = (lane, count) => `${lane}-${count} `.padEnd(450, 'x');

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
  const echoPort = await anyFreePort();
  const echo = await startListening(
    join(root, 'scripts', 'bench', 'echo.mjs'),
    { PORT: String(echoPort), DATABASE_URL: database.url },
    'The echo',
  );
  const lanesTo = (address) => Array.from({ length: CONNECTIONS }, () => new Lane(address));
  const toEcho = lanesTo(`http://127.0.0.1:${echoPort}`);
  const toServer = lanesTo(server.address);
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
    const session = `cookie: ${cookie.cookie}\r\n`;
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
      const answer = await toServer[lane].post(`/api/jobs/${job.id}/edits`, batch, session);
      if (answer.status !== 200)
        throw new Error(`A save was answered ${answer.status}: ${answer.body.slice(0, 300)}`);
      job.notes.set(circuit, after);
      job.revisions = Math.max(job.revisions, JSON.parse(answer.body).revision);
    };
    const body = { note: 'x'.repeat(900) };
    const kinds = [
      ...['echo', 'durable', 'together'].map((kind) => [
        kind,
        (lane) => toEcho[lane].post(`/${kind}`, { ...body, editId: randomUUID(), lane }),
      ]),
      ...jobs.map((job) => [`save ${job.circuits}`, (lane) => save(job, lane)]),
    ];
    const seen = new Map(kinds.map(([name]) => [name, []]));
    for (let round = 0; round < ROUNDS; round += 1)
      for (const [name, ask] of kinds) seen.get(name).push(await window(CONNECTIONS, ask));
    const rate = (name) => median(seen.get(name).map(({ perSecond }) => perSecond));
    for (const [name] of kinds) {
      const times = seen.get(name).flatMap(({ times: some }) => some);
      console.log(
        `${name.padEnd(10)} ${rate(name).toFixed(0).padStart(6)} a second, p95 ${p95(times).toFixed(1)} ms; ${(rate(name) / rate('echo')).toFixed(3)} × echo, ${(rate(name) / rate('together')).toFixed(3)} × echo that writes together`,
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
    for (const lane of [...toEcho, ...toServer]) lane.end();
    await stopChild(echo.child);
    await server.stop();
    await database.stop();
    rmSync(folder, { recursive: true, force: true });
  }
});
