import { join } from 'node:path';
import { root, spawn, stopChild } from './run.mjs';
import { Sentence } from './sentence.mjs';

/**
 * Starts the built server on loopback and waits until it listens.
 * @returns {Promise<{ address: string, child: import('node:child_process').ChildProcess, firstCode: string | undefined, stop: () => Promise<void> }>}
 */
export async function startServer({ port, databaseUrl, env = {} }) {
  const child = spawn(process.execPath, [join(root, 'server', 'dist', 'main.js')], {
    env: { ...process.env, ...env, PORT: String(port), DATABASE_URL: databaseUrl },
    stdio: ['ignore', 'pipe', 'inherit'],
    detached: true,
  });
  let said = '';
  await new Promise((resolve, reject) => {
    child.stdout.on('data', (chunk) => {
      said += String(chunk);
      if (said.includes('listening')) resolve();
    });
    child.once('exit', (code) =>
      reject(new Sentence(`The server ended before it was ready (code ${code}).`)),
    );
  });
  // Only where nobody can come in yet: the code for the first administrator.
  const firstCode = /^first-administrator (\S+)$/m.exec(said)?.[1];
  return { address: `http://127.0.0.1:${port}`, child, firstCode, stop: () => stopChild(child) };
}
