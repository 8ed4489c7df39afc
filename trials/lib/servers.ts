import { type ChildProcess, spawn } from 'node:child_process';
import { createServer } from 'node:net';
import { fileURLToPath } from 'node:url';
import { type Harness, PASSWORD } from '../../server/src/testkit/harness.ts';

const PROGRAM = fileURLToPath(new URL('../../server/dist/main.js', import.meta.url));

export const freePort = (): Promise<number> =>
  new Promise((resolve) => {
    const probe = createServer().listen(0, '127.0.0.1', () => {
      const address = probe.address();
      probe.close(() => resolve(typeof address === 'object' && address !== null ? address.port : 0));
    });
  });

export interface Running {
  readonly address: string;
  readonly child: ChildProcess;
}

/** What has been started and has not ended. */
const running = new Set<Running>();

/** Starts the built server on the database of a harness. */
export async function startServer(harness: Harness): Promise<Running> {
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
  const started = { address: `http://127.0.0.1:${own}`, child };
  running.add(started);
  child.once('exit', () => running.delete(started));
  return started;
}

/** Ends what a trial that failed has left behind. */
export const endAll = async (): Promise<void> => {
  await Promise.all([...running].map((one) => end(one, 'SIGKILL')));
};

/** Ends a server, by its own process id, and waits until it is gone. */
export async function end({ child }: Running, signal: 'SIGKILL' | 'SIGTERM'): Promise<void> {
  const gone = new Promise((resolve) => child.once('exit', resolve));
  child.kill(signal);
  await gone;
}

export async function signIn(address: string): Promise<string> {
  const answer = await fetch(`${address}/api/session`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ email: 'designer@north.test', password: PASSWORD }),
  });
  const cookie = answer.headers.get('set-cookie')?.split(';')[0];
  if (cookie === undefined)
    throw new Error(`The sign-in was answered ${answer.status}: ${await answer.text()}`);
  return cookie;
}

export async function ask(address: string, cookie: string, method: string, path: string, body?: unknown) {
  const answer = await fetch(`${address}/api${path}`, {
    method,
    headers: { cookie, ...(body === undefined ? {} : { 'content-type': 'application/json' }) },
    ...(body === undefined ? {} : { body: JSON.stringify(body) }),
  });
  return { status: answer.status, body: (await answer.json()) as unknown };
}
