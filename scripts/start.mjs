// `npm start`: sets up what is missing, starts the database and the server, prints the address. Ctrl-C stops all of it.
import { join, resolve } from 'node:path';
import { ensureBuilt } from './lib/build.mjs';
import { checkNode, ensurePackages } from './lib/packages.mjs';
import { noteChild, releaseFolder, takeFolder } from './lib/folder.mjs';
import { nextFreePort } from './lib/ports.mjs';
import { root } from './lib/run.mjs';
import { runMain, Sentence } from './lib/sentence.mjs';

/** Where simulated sites answer by Modbus TCP, or the next port that is free. */
const MODBUS_PORT = 4650;

function wantedPort() {
  const port = Number(process.env.PORT ?? 4600);
  if (!Number.isInteger(port) || port < 1 || port > 65485)
    throw new Sentence(`PORT is "${process.env.PORT}", which is not a port.`);
  return port;
}

await runMain(async () => {
  checkNode();
  const port = wantedPort();
  ensurePackages();
  ensureBuilt();
  const { startDatabase } = await import('./lib/database.mjs');
  const { startServer } = await import('./lib/server.mjs');
  const { startSite } = await import('./lib/site.mjs');

  const outside = process.env.DATABASE_URL;
  const dataFolder = resolve(root, process.env.BASTION_DATA ?? '.data');
  let database;
  let server;
  let site;
  let stopping = false;
  const stop = async (code) => {
    if (stopping) return;
    stopping = true;
    await server?.stop();
    await site?.stop();
    await database?.stop();
    releaseFolder(dataFolder);
    process.exit(code);
  };
  // From the first second: a start that is given up leaves nothing behind.
  process.on('SIGINT', () => void stop(0));
  process.on('SIGTERM', () => void stop(0));
  await takeFolder(dataFolder);
  const openDatabase = async (wantedPort) => {
    const opened = await startDatabase(dataFolder, wantedPort);
    opened.child.once('exit', () => {
      if (stopping) return;
      console.error('The database ended by itself. It is started again; what was saved is there.');
      openDatabase(opened.port).then(
        (again) => (database = again),
        (error) => {
          console.error(error.message);
          void stop(1);
        },
      );
    });
    return opened;
  };
  database = outside ? { url: outside, stop: async () => {} } : await openDatabase();
  const beginSite = async (wantedPort) => {
    const begun = await startSite({ port: await nextFreePort(wantedPort) });
    begun.child.once('exit', () => {
      if (!stopping)
        console.error('The simulated site ended by itself. It is there again after the next start.');
    });
    return begun;
  };
  try {
    site = await beginSite(MODBUS_PORT);
    noteChild(dataFolder, 'site', site.child.pid);
    server = await startServer({
      port: await nextFreePort(port),
      databaseUrl: database.url,
      env: {
        ...site.env,
        BASTION_FILES: process.env.BASTION_FILES ?? join(dataFolder, 'files'),
        BASTION_LOGS: process.env.BASTION_LOGS ?? join(dataFolder, 'logs'),
      },
    });
    noteChild(dataFolder, 'server', server.child.pid);
  } catch (error) {
    stopping = true;
    await site?.stop();
    await database.stop();
    releaseFolder(dataFolder);
    throw error;
  }
  server.child.once('exit', (code) => {
    if (stopping) return;
    console.error(`The server ended by itself (code ${code}).`);
    void stop(1);
  });
  console.log(`Zealous Bastion is at ${server.address}`);
  console.log(outside ? 'Data is in the database of DATABASE_URL.' : `Data is in ${dataFolder}`);
  if (server.firstCode !== undefined) {
    console.log('Nobody can come in yet. The first administrator signs up there with this code, once:');
    console.log(`  ${server.firstCode}`);
  }
  console.log(`Simulated sites answer by Modbus TCP at 127.0.0.1:${site.port}`);
  console.log('Ctrl-C stops it.');
});
