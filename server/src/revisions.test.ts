import { wire } from '@bastion/core';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { type Caller, codeOf, type Harness, smallDesign, startHarness } from './testkit/harness.ts';

let harness: Harness;
let designer: Caller;
let field: Caller;
let south: Caller;
let jobId = 0;
beforeAll(async () => {
  harness = await startHarness();
  designer = await harness.as('designer@north.test');
  field = await harness.as('field@north.test');
  south = await harness.as('designer@south.test');
  jobId = (await designer('POST', '/api/jobs/import', smallDesign())).json<{ id: number }>().id;
  for (let altitudeM = 1; altitudeM <= 60; altitudeM += 1)
    await designer('POST', `/api/jobs/${jobId}/edits`, {
      baseRevision: altitudeM,
      editId: `altitude-${altitudeM}`,
      patches: [{ op: 'set', path: ['site', 'altitudeM'], after: altitudeM }],
    });
});
afterAll(() => harness.close());

const at = (path: string) => `/api/jobs/${jobId}/revisions${path}`;
interface Altitude {
  readonly document: { readonly site: { readonly altitudeM?: number } };
}
const altitudeAt = async (revision: number) =>
  (await designer('GET', at(`/${revision}`))).json<Altitude>().document.site.altitudeM;

it('every revision is in the list, the latest first, with who made it and what was changed', async () => {
  const first = wire.revisionList.parse((await field('GET', at(''))).json());
  expect(first.rows.map(({ revision }) => revision)).toEqual(Array.from({ length: 50 }, (_, n) => 61 - n));
  expect(first.rows[0]).toMatchObject({ by: 'north designer', changes: 1, pages: ['Site'] });
  const rest = wire.revisionList.parse((await field('GET', at(`?before=${first.before ?? 0}`))).json());
  expect(rest.rows.map(({ revision }) => revision)).toEqual([11, 10, 9, 8, 7, 6, 5, 4, 3, 2, 1]);
  expect(rest.rows.at(-1)).toMatchObject({ by: 'north designer', changes: 0 });
  expect(rest.before).toBeNull();
});

it('each opens as it was, for the firm alone', async () => {
  expect(await altitudeAt(1)).toBeUndefined();
  expect(await altitudeAt(2)).toBe(1);
  expect(await altitudeAt(38)).toBe(37);
  expect(await altitudeAt(61)).toBe(60);
  expect((await designer('GET', at('/62'))).statusCode).toBe(404);
  expect((await south('GET', at('/2'))).statusCode).toBe(404);
  expect((await south('GET', at(''))).statusCode).toBe(404);
});

it('one that is brought back becomes the latest; what was there stays, and so do later ones', async () => {
  expect(codeOf(await field('POST', at('/3/restore'), { replaces: 61 }))).toBe('NOT_ALLOWED');
  expect(codeOf(await designer('POST', at('/3/restore'), { replaces: 60 }))).toBe('IMPORT_STALE');
  expect((await designer('POST', at('/3/restore'), { replaces: 61 })).json()).toEqual({ revision: 62 });
  expect(await altitudeAt(62)).toBe(2);
  expect(await altitudeAt(61)).toBe(60);
  const admin = await harness.as('administrator@north.test');
  expect((await admin('GET', '/api/audit')).body).toContain('revision 3 as 62');
});

it('a row of the firm that cannot be read is told, and takes no list with it', async () => {
  const { models } = harness.database;
  await designer('PUT', '/api/library', { name: 'Lamp', quantity: 1, runningW: 9 });
  await designer('PUT', '/api/library', { name: 'Pump', quantity: 1, runningW: 900 });
  await models.library.update({ item: '{"format":99,"value":{}}' }, { where: { name: 'Pump' } });
  const kept = wire.library.parse((await field('GET', '/api/library')).json());
  expect(kept.entries.map(({ item }) => item.name)).toEqual(['Lamp']);
  expect(kept.unreadable).toEqual([expect.stringMatching(/^Pump: .*format 99/)]);

  const run = (await designer('POST', `/api/jobs/${jobId}/runs`)).json<{ id: number }>();
  await models.runs.update({ procedure: 'half {' }, { where: { id: run.id } });
  expect((await designer('GET', `/api/jobs/${jobId}/runs`)).statusCode).toBe(200);
  expect(codeOf(await designer('GET', `/api/runs/${run.id}`))).toBe('STORED_UNREADABLE');
});
