// The servers that the journeys drive: one with the sample world, one that nobody has come into yet.
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

/** Starts both, and returns what the journeys read from their environment. */
export async function startJourneyServers(databaseUrl) {
  const site = await startSite({ port: await anyFreePort() });
  const sample = await startServer({ port: await anyFreePort(), databaseUrl, env: site.env });
  const firm = await startServer({
    port: await anyFreePort(),
    databaseUrl: await databaseBeside(databaseUrl, 'bastion_journeys_firm'),
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
