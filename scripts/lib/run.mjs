import { spawn, spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { Sentence } from './sentence.mjs';

export const root = fileURLToPath(new URL('../..', import.meta.url)).replace(/\/$/, '');

/** Runs a command to its end and returns its exit code; its output goes to our error stream, so that what we print stays clean, or to nowhere when quiet. */
export function runToEnd(command, args, { quiet = false, env = process.env, cwd = root } = {}) {
  const result = spawnSync(command, args, {
    cwd,
    env,
    stdio: quiet ? 'ignore' : ['ignore', 2, 'inherit'],
  });
  return result.status ?? 1;
}

/** The first of these files that exists. */
export const firstExisting = (paths) => paths.find((path) => existsSync(path));

/** Asks a child to stop, by its own process id, and waits until it has. */
export async function stopChild(child, signal = 'SIGTERM', patienceMs = 15000) {
  if (child === undefined || child.exitCode !== null || child.signalCode !== null) return;
  const ended = new Promise((resolve) => child.once('exit', resolve));
  child.kill(signal);
  const timer = setTimeout(() => child.kill('SIGKILL'), patienceMs);
  await ended;
  clearTimeout(timer);
}

/**
 * Starts a program of ours by itself and waits until it says that it listens.
 * @returns {Promise<{ child: import('node:child_process').ChildProcess, said: string }>}
 */
export async function startListening(program, env, what) {
  const child = spawn(process.execPath, [program], {
    env: { ...process.env, ...env },
    stdio: ['ignore', 'pipe', 'inherit'],
    detached: true,
  });
  let said = '';
  await new Promise((resolve, reject) => {
    child.stdout.on('data', (chunk) => {
      said += String(chunk);
      if (said.includes('listening')) resolve();
    });
    child.once('exit', (code) => reject(new Sentence(`${what} ended before it was ready (code ${code}).`)));
  });
  return { child, said };
}

export { spawn };
