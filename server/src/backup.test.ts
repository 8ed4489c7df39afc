import { mkdir, mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { gunzipSync, gzipSync } from 'node:zlib';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { backup, restore } from './backup.ts';
import { type Harness, smallDesign, startHarness } from './testkit/harness.ts';

let folder: string;
let full: Harness;
beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'bastion-backup-'));
  full = await startHarness();
});
afterAll(async () => {
  await full.close();
  await rm(folder, { recursive: true, force: true });
});

const placeOf = ({ database }: Harness, filesFolder: string) => {
  const { database: name, host, port, username, password } = database.sequelize.config;
  const databaseUrl = `mariadb://${username}:${String(password)}@${String(host)}:${String(port)}/${name}`;
  return { databaseUrl, filesFolder };
};

/** Every row of a server, as its own backup has them. */
async function linesOf(path: string): Promise<string[]> {
  return gunzipSync(await readFile(path))
    .toString()
    .trim()
    .split('\n');
}

describe('a backup', () => {
  it('is refused where it is damaged, cut, newer or would overwrite; else everything comes back as it was', async () => {
    const files = join(folder, 'files');
    await rm(files, { recursive: true, force: true });
    const designer = await full.as('designer@north.test');
    const { id } = (await designer('POST', '/api/jobs/import', smallDesign())).json<{ id: number }>();
    const edit = {
      baseRevision: 1,
      editId: 'edit-of-backup',
      patches: [{ op: 'set', path: ['name'], before: 'Hut', after: 'Hütte "2"' }],
    };
    expect((await designer('POST', `/api/jobs/${id}/edits`, edit)).statusCode).toBe(200);
    const out = join(folder, 'all.gz');
    const count = await backup(placeOf(full, files), out);
    const lines = await linesOf(out);
    expect(lines).toHaveLength(count + 1);

    const spoilt = async (name: string, change: (lines: string[]) => string[]): Promise<string> => {
      const path = join(folder, name);
      await writeFile(path, gzipSync(`${change([...lines]).join('\n')}\n`));
      return path;
    };
    const place = placeOf(full, files);
    await expect(restore(place, out, false)).rejects.toThrow('There is data in this place');
    const cases: [string, (lines: string[]) => string[], string][] = [
      ['changed', (all) => all.map((line) => line.replace('Hütte', 'Hutte')), 'damaged'],
      ['cut', (all) => all.slice(0, -4), 'damaged'],
      [
        'newer',
        ([head = '', ...rest]) => [head.replace('001-first-tables', '999-later'), ...rest],
        'newer version',
      ],
    ];
    for (const [name, change, told] of cases)
      await expect(restore(place, await spoilt(name, change), true)).rejects.toThrow(told);
    await writeFile(join(folder, 'half.gz'), (await readFile(out)).subarray(0, 900));
    await expect(restore(place, join(folder, 'half.gz'), true)).rejects.toThrow('damaged');
    // Nothing of all that has touched what is there.
    expect((await designer('GET', `/api/jobs/${id}`)).json()).toMatchObject({
      document: { name: 'Hütte "2"' },
    });

    const again = join(folder, 'again.gz');
    await restore(place, out, true);
    await backup(place, again);
    expect(await linesOf(again)).toEqual(lines);
  }, 30_000);

  it('brings the photos back byte for byte, and nothing outside of their folder', async () => {
    const from = join(folder, 'photos');
    await rm(from, { recursive: true, force: true });
    const picture = Buffer.from([137, 80, 78, 71, 0, 255, 10]);
    await mkdir(join(from, 'ab'), { recursive: true });
    await writeFile(join(from, 'ab', 'abcd'), picture);
    const out = join(folder, 'photos.gz');
    await backup(placeOf(full, from), out);
    const to = join(folder, 'elsewhere');
    await restore(placeOf(full, to), out, true);
    expect(await readFile(join(to, 'ab', 'abcd'))).toEqual(picture);
  });
});
