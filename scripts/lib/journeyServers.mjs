// The servers that the journeys drive, for each of those that run beside each other: one with the sample world, one that nobody has come
// into yet.
import { anyFreePort } from './ports.mjs';
import { startServer } from './server.mjs';
import { startSite } from './site.mjs';

/** Makes an empty database beside the one of a URL, and returns its URL. */
async function databaseBeside(databaseUrl, name) {
  const { createConnection } = await import('mariadb');
  const url = new URL(databaseUrl);
  const connection = await createConnection({
    host: url.hostname,
    port: Number(url.port),
    user: url.username,
    password: decodeURIComponent(url.password),
  });
  await connection.query(`CREATE DATABASE ${name} CHARACTER SET utf8mb4`);
  await connection.end();
  url.pathname = `/${name}`;
  return url.href;
}

/** Starts one pair on databases of its own, and says where it is. */
async function startPair(databaseUrl, number) {
  const site = await startSite({ port: await anyFreePort() });
  const sample = await startServer({
    port: await anyFreePort(),
    databaseUrl: await databaseBeside(databaseUrl, `bastion_journeys_${number}`),
    env: site.env,
  });
  const firm = await startServer({
    port: await anyFreePort(),
    databaseUrl: await databaseBeside(databaseUrl, `bastion_journeys_firm_${number}`),
    env: { BASTION_DEMO: 'off' },
  });
  return {
    env: {
      BASTION_ADDRESS: sample.address,
      BASTION_FIRM_ADDRESS: firm.address,
      BASTION_FIRM_CODE: firm.firstCode ?? '',
    },
    stop: async () => {
      await sample.stop();
      await firm.stop();
      await site.stop();
    },
  };
}

/** Starts as many pairs as journeys run beside each other, and returns what those read from their environment. */
export async function startJourneyServers(databaseUrl, pairs = 2) {
  const started = [];
  for (let number = 1; number <= pairs; number += 1) started.push(await startPair(databaseUrl, number));
  return {
    env: { BASTION_SERVERS: JSON.stringify(started.map(({ env }) => env)) },
    stop: async () => {
      for (const { stop } of started) await stop();
    },
  };
}
