import { randomBytes } from 'node:crypto';
import { join } from 'node:path';
import { anyFreePort } from './ports.mjs';
import { root, spawn, stopChild } from './run.mjs';
import { Sentence } from './sentence.mjs';

/**
 * Starts the process with the simulated sites, on loopback, and waits until it answers.
 * @returns {Promise<{ port: number, child: import('node:child_process').ChildProcess, env: Record<string, string>, stop: () => Promise<void> }>}
 */
export async function startSite({ port }) {
  const controlPort = await anyFreePort();
  const token = randomBytes(24).toString('hex');
  const child = spawn(process.execPath, [join(root, 'site-sim', 'dist', 'main.js')], {
    env: {
      ...process.env,
      BASTION_SITE_PORT: String(port),
      BASTION_SITE_CONTROL_PORT: String(controlPort),
      BASTION_SITE_TOKEN: token,
    },
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
      reject(new Sentence(`The simulated site ended before it was ready (code ${code}).`)),
    );
  });
  return {
    port,
    child,
    // What the server needs to open sites there.
    env: { BASTION_SITE_URL: `http://127.0.0.1:${controlPort}`, BASTION_SITE_TOKEN: token },
    stop: () => stopChild(child),
  };
}
