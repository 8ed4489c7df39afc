// Who uses a data folder. A number alone says nothing: after a crash it may belong to somebody else by now.
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { Sentence } from './sentence.mjs';

const ownerFile = (folder) => join(folder, 'start.json');

/** When a process began, as the kernel counts it; undefined where it is gone. Together with its number it names one process for good. */
function beganAt(pid) {
  try {
    // The name in brackets may hold anything; what follows the last bracket is fixed.
    const stat = readFileSync(`/proc/${pid}/stat`, 'utf8');
    const fields = stat.slice(stat.lastIndexOf(')') + 2).split(' ');
    // One that has ended and that nobody has asked about still has its number.
    return fields[0] === 'Z' || fields[0] === 'X' ? undefined : fields[19];
  } catch {
    return undefined;
  }
}

const isSame = (one) => one?.pid !== undefined && one.began !== undefined && beganAt(one.pid) === one.began;

function readOwner(folder) {
  try {
    return JSON.parse(readFileSync(ownerFile(folder), 'utf8'));
  } catch {
    return undefined;
  }
}

async function endProcess(pid) {
  try {
    process.kill(pid, 'SIGTERM');
  } catch {
    return;
  }
  for (let wait = 0; wait < 120 && beganAt(pid) !== undefined; wait += 1)
    await new Promise((resolve) => setTimeout(resolve, 250));
}

/** The database of a folder that no start looks after any more: by its number and by the folder in its command line. */
function orphanedDatabase(folder) {
  const pidFile = join(folder, 'mariadb.pid');
  if (!existsSync(pidFile)) return undefined;
  const pid = Number(readFileSync(pidFile, 'utf8'));
  try {
    const words = readFileSync(`/proc/${pid}/cmdline`, 'utf8').split('\0');
    return words.includes(`--datadir=${join(folder, 'mariadb')}`) ? pid : undefined;
  } catch {
    return undefined;
  }
}

/** Takes a folder for this start. One in use is refused; what a killed start has left running on it is ended first. */
export async function takeFolder(folder) {
  mkdirSync(folder, { recursive: true });
  const owner = readOwner(folder);
  if (isSame(owner))
    throw new Sentence(
      `The data folder ${folder} is in use by another start. Stop that one, or set BASTION_DATA to another folder.`,
    );
  for (const child of [owner?.server, owner?.site]) if (isSame(child)) await endProcess(child.pid);
  const database = orphanedDatabase(folder);
  if (database !== undefined) {
    console.error('An earlier start was ended without its database. It is stopped in order first.');
    await endProcess(database);
  }
  rmSync(join(folder, 'mariadb.pid'), { force: true });
  writeFileSync(ownerFile(folder), JSON.stringify({ pid: process.pid, began: beganAt(process.pid) }));
}

/** Notes a child of this start, the server or the simulated site, so that the next start finds it if this one is killed. */
export function noteChild(folder, what, pid) {
  const owner = readOwner(folder) ?? {};
  writeFileSync(ownerFile(folder), JSON.stringify({ ...owner, [what]: { pid, began: beganAt(pid) } }));
}

export function releaseFolder(folder) {
  if (isOwn(folder)) rmSync(ownerFile(folder), { force: true });
}

const isOwn = (folder) => readOwner(folder)?.pid === process.pid;
