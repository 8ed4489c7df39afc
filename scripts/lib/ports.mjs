import { createServer } from 'node:net';
import { Sentence } from './sentence.mjs';

/** Whether a loopback port is free to listen on. */
export function isFree(port) {
  return new Promise((resolve) => {
    const probe = createServer();
    probe.once('error', () => resolve(false));
    probe.listen({ port, host: '127.0.0.1' }, () => probe.close(() => resolve(true)));
  });
}

/** A port that nobody listens on, chosen by the system. */
export function anyFreePort() {
  return new Promise((resolve, reject) => {
    const probe = createServer();
    probe.once('error', reject);
    probe.listen({ port: 0, host: '127.0.0.1' }, () => {
      const { port } = probe.address();
      probe.close(() => resolve(port));
    });
  });
}

/** The wanted port, or the next free one after it; says so when it is not the wanted one. */
export async function nextFreePort(wanted) {
  for (let port = wanted; port < wanted + 50; port += 1) {
    if (await isFree(port)) {
      if (port !== wanted) console.log(`Port ${wanted} is taken; using ${port}.`);
      return port;
    }
  }
  throw new Sentence(`No port from ${wanted} to ${wanted + 49} is free. Set PORT to one that is.`);
}
