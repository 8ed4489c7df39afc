import { createHash, randomUUID } from 'node:crypto';
import { mkdir, readFile, rename, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { QueryTypes, type Sequelize } from 'sequelize';
import { z } from 'zod';

/** Where the bytes of photos lie, under their hash. */
export interface PhotoStore {
  /** Keeps bytes and returns their hash. */
  readonly keep: (bytes: Buffer) => Promise<string>;
  readonly fetch: (hash: string) => Promise<Buffer>;
}

const hashOf = (bytes: Buffer): string => createHash('sha256').update(bytes).digest('hex');
const found = z.array(z.object({ bytes: z.instanceof(Buffer) }));

/** Photos as files of the data folder. */
export function photosInFolder(folder: string): PhotoStore {
  const pathOf = (hash: string): string => join(folder, hash.slice(0, 2), hash);
  return {
    keep: async (bytes) => {
      const hash = hashOf(bytes);
      await mkdir(join(folder, hash.slice(0, 2)), { recursive: true });
      // Under its name a file is whole, or not there.
      const partial = `${pathOf(hash)}.${randomUUID()}.partial`;
      await writeFile(partial, bytes);
      await rename(partial, pathOf(hash));
      return hash;
    },
    fetch: (hash) => readFile(pathOf(hash)),
  };
}

/** Photos in the database. Those that were kept in the folder before are still found there. */
export function photosInDatabase(sequelize: Sequelize, earlier: PhotoStore): PhotoStore {
  return {
    keep: async (bytes) => {
      const hash = hashOf(bytes);
      await sequelize.query('INSERT IGNORE INTO photo_bytes (hash, bytes) VALUES (?, ?)', {
        replacements: [hash, bytes],
        type: QueryTypes.INSERT,
      });
      return hash;
    },
    fetch: async (hash) => {
      const rows = await sequelize.query('SELECT bytes FROM photo_bytes WHERE hash = ?', {
        replacements: [hash],
        type: QueryTypes.SELECT,
      });
      return found.parse(rows)[0]?.bytes ?? earlier.fetch(hash);
    },
  };
}
