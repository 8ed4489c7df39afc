import { randomBytes } from 'node:crypto';
import { join } from 'node:path';
import { anyFreePort } from './ports.mjs';
import { root, startListening, stopChild } from './run.mjs';

/**
 * Starts the process with the simulated sites, on loopback, and waits until it answers.
 * @returns {Promise<{ port: number, child: import('node:child_process').ChildProcess, env: Record<string, string>, stop: () => Promise<void> }>}
 */
export async function startSite({ port }) {
  const controlPort = await anyFreePort();
  const token = randomBytes(24).toString('hex');
  const { child } = await startListening(
    join(root, 'site-sim', 'dist', 'main.js'),
    {
      BASTION_SITE_PORT: String(port),
      BASTION_SITE_CONTROL_PORT: String(controlPort),
      BASTION_SITE_TOKEN: token,
    },
    'The simulated site',
  );
  return {
    port,
    child,
    // What the server needs to open sites there.
    env: { BASTION_SITE_URL: `http://127.0.0.1:${controlPort}`, BASTION_SITE_TOKEN: token },
    stop: () => stopChild(child),
  };
}
