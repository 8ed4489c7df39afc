import { createHash } from 'node:crypto';
import { createReadStream, createWriteStream, existsSync } from 'node:fs';
import { mkdir, readdir, readFile, rename, rm, writeFile } from 'node:fs/promises';
import { dirname, join, relative, resolve, sep } from 'node:path';
import { createInterface } from 'node:readline';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { createGunzip, createGzip } from 'node:zlib';
import { type Connection, createConnection } from 'mariadb';
import { z } from 'zod';
import { MIGRATIONS } from './migrations/list.ts';

/** The tables in an order in which every row finds what it refers to. */
const TABLES = [
  'firms',
  'users',
  'sessions',
  'tickets',
  'audit',
  'audit_head',
  'jobs',
  'revisions',
  'edits',
  'captures',
  'test_runs',
  'readings',
  'library_items',
  'equipment_types',
  'attachments',
] as const;
const FORMAT = 1;

const header = z.strictObject({ format: z.literal(FORMAT), migrations: z.array(z.string()) });
const row = z.strictObject({ table: z.enum(TABLES), row: z.record(z.string(), z.unknown()) });
const file = z.strictObject({ file: z.string(), bytes: z.base64() });
const footer = z.strictObject({ lines: z.number(), sha256: z.string() });
const names = z.array(z.object({ name: z.string() }));
const record = z.record(z.string(), z.unknown());
const photo = z.object({ hash: z.string(), bytes: z.instanceof(Buffer) });
const counts = z.array(z.object({ count: z.coerce.number() }));

/** What cannot be done, as a sentence for whoever sits at the machine. */
export class BackupRefused extends Error {}

export interface Place {
  readonly databaseUrl: string;
  readonly filesFolder: string;
}

function connect(databaseUrl: string): Promise<Connection> {
  const url = new URL(databaseUrl);
  return createConnection({
    host: url.hostname,
    port: Number(url.port),
    user: decodeURIComponent(url.username),
    password: decodeURIComponent(url.password),
    database: url.pathname.slice(1),
    // Times go out and come in as they are written.
    dateStrings: true,
  });
}

async function* filesUnder(folder: string): AsyncGenerator<string> {
  if (!existsSync(folder)) return;
  for (const entry of await readdir(folder, { withFileTypes: true, recursive: true }))
    if (entry.isFile()) yield join(entry.parentPath, entry.name);
}

async function* linesOf(connection: Connection, filesFolder: string): AsyncGenerator<string> {
  const migrations = names.parse(await connection.query('SELECT name FROM migrations ORDER BY name'));
  yield JSON.stringify({ format: FORMAT, migrations: migrations.map(({ name }) => name) });
  for (const table of TABLES)
    // Row by row: documents are large, and nobody needs them all in memory.
    for await (const one of connection.queryStream(`SELECT * FROM ${table} ORDER BY 1, 2`))
      yield JSON.stringify({ table, row: record.parse(one) });
  // Photos of the database go the same way as those of the folder, where they are found as well.
  for await (const one of connection.queryStream('SELECT hash, bytes FROM photo_bytes ORDER BY hash')) {
    const { hash, bytes } = photo.parse(one);
    yield JSON.stringify({ file: `${hash.slice(0, 2)}/${hash}`, bytes: bytes.toString('base64') });
  }
  for await (const path of filesUnder(filesFolder))
    yield JSON.stringify({
      file: relative(filesFolder, path).split(sep).join('/'),
      bytes: (await readFile(path)).toString('base64'),
    });
}

/** Writes everything of a server to one file, as it is at one moment, while it runs. Returns how many lines it has. */
export async function backup({ databaseUrl, filesFolder }: Place, out: string): Promise<number> {
  const connection = await connect(databaseUrl);
  const hash = createHash('sha256');
  let count = 0;
  const partial = `${out}.partial`;
  try {
    await connection.query('SET TRANSACTION ISOLATION LEVEL REPEATABLE READ');
    await connection.query('START TRANSACTION WITH CONSISTENT SNAPSHOT, READ ONLY');
    const text = async function* (): AsyncGenerator<string> {
      for await (const line of linesOf(connection, filesFolder)) {
        hash.update(`${line}\n`);
        count += 1;
        yield `${line}\n`;
      }
      yield `${JSON.stringify({ lines: count, sha256: hash.digest('hex') })}\n`;
    };
    await pipeline(Readable.from(text()), createGzip(), createWriteStream(partial, { mode: 0o600 }));
    await rename(partial, out);
    return count;
  } finally {
    await rm(partial, { force: true });
    await connection.end();
  }
}

/** The lines of a backup; what is damaged throws. */
async function* read(path: string): AsyncGenerator<string> {
  const lines = createInterface({ input: createReadStream(path).pipe(createGunzip()) });
  try {
    for await (const line of lines) yield line;
  } catch (error) {
    throw new BackupRefused(
      `This file is damaged: ${error instanceof Error ? error.message : 'it cannot be read'}.`,
    );
  }
}

/** Reads a backup through before anything of it is used: whole, as it was written, and not newer than this program. */
async function check(path: string): Promise<number> {
  const hash = createHash('sha256');
  let count = 0;
  let last: string | undefined;
  for await (const line of read(path)) {
    if (last !== undefined) {
      if (count === 0) checkHeader(last);
      hash.update(`${last}\n`);
      count += 1;
    }
    last = line;
  }
  const end = footer.safeParse(parsed(last ?? ''));
  if (!end.success || end.data.lines !== count || end.data.sha256 !== hash.digest('hex'))
    throw new BackupRefused('This file is damaged or cut short: its last line does not fit the rest.');
  return count;
}

function parsed(line: string): unknown {
  try {
    return JSON.parse(line);
  } catch {
    return undefined;
  }
}

function checkHeader(line: string): void {
  const head = header.safeParse(parsed(line));
  if (!head.success) throw new BackupRefused('This file is no backup of this program, or is of a newer one.');
  const known = new Set(MIGRATIONS.map(({ name }) => name));
  const unknown = head.data.migrations.find((name) => !known.has(name));
  if (unknown !== undefined)
    throw new BackupRefused(`This backup is of a newer version (it knows “${unknown}”). Update first.`);
  if (head.data.migrations.length < known.size)
    throw new BackupRefused(
      'This backup is of an older version. Restore it with that version, then start this one on it.',
    );
}

/** Puts a backup into an empty place, or with consent in the place of what is there: all of it, or none. */
export async function restore(
  { databaseUrl, filesFolder }: Place,
  path: string,
  mayReplace: boolean,
): Promise<number> {
  const count = await check(path);
  const connection = await connect(databaseUrl);
  try {
    const [found] = counts.parse(await connection.query('SELECT COUNT(*) AS count FROM firms'));
    if ((found?.count ?? 0) > 0 && !mayReplace)
      throw new BackupRefused(
        'There is data in this place. Restore into an empty folder, or say --replace to put the backup in its place.',
      );
    await connection.beginTransaction();
    await connection.query('SET FOREIGN_KEY_CHECKS = 0');
    for (const table of TABLES) await connection.query(`DELETE FROM ${table}`);
    let at = 0;
    for await (const line of read(path)) {
      at += 1;
      if (at === 1 || at > count) continue;
      const value = parsed(line);
      const photo = file.safeParse(value);
      if (photo.success) await putFile(filesFolder, photo.data.file, photo.data.bytes);
      else {
        const { table, row: fields } = row.parse(value);
        const keys = Object.keys(fields);
        await connection.query(
          `INSERT INTO ${table} (${keys.map((key) => `\`${key.replaceAll('`', '')}\``).join(', ')}) VALUES (${keys.map(() => '?').join(', ')})`,
          Object.values(fields),
        );
      }
    }
    await connection.query('SET FOREIGN_KEY_CHECKS = 1');
    await connection.commit();
    return count;
  } catch (error) {
    await connection.rollback();
    throw error;
  } finally {
    await connection.end();
  }
}

async function putFile(folder: string, name: string, bytes: string): Promise<void> {
  const path = resolve(folder, name);
  if (!path.startsWith(resolve(folder) + sep))
    throw new BackupRefused(`This backup names a file outside of its folder: “${name}”.`);
  await mkdir(dirname(path), { recursive: true });
  await writeFile(path, Buffer.from(bytes, 'base64'));
}
