import { join } from 'node:path';
import { root, startListening, stopChild } from './run.mjs';

/**
 * Starts the built server on loopback and waits until it listens.
 * @returns {Promise<{ address: string, child: import('node:child_process').ChildProcess, firstCode: string | undefined, stop: () => Promise<void> }>}
 */
export async function startServer({ port, databaseUrl, env = {} }) {
  const { child, said } = await startListening(
    join(root, 'server', 'dist', 'main.js'),
    { ...env, PORT: String(port), DATABASE_URL: databaseUrl },
    'The server',
  );
  // Only where nobody can come in yet: the code for the first administrator.
  const firstCode = /^first-administrator (\S+)$/m.exec(said)?.[1];
  return { address: `http://127.0.0.1:${port}`, child, firstCode, stop: () => stopChild(child) };
}
