import { wire } from '@bastion/core';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { type Harness, smallDesign, startHarness } from '../testkit/harness.ts';
import { sourceOfReadings } from './008-source-of-readings.ts';

let harness: Harness;
beforeAll(async () => {
  harness = await startHarness();
});
afterAll(() => harness.close());

it('moves where a figure came from out of its note, and leaves the reasons of people where they stand', async () => {
  const designer = await harness.as('designer@north.test');
  const field = await harness.as('field@north.test');
  const jobId = (await designer('POST', '/api/jobs/import', smallDesign())).json<{ id: number }>().id;
  const run = wire.testRun.parse((await field('POST', `/api/jobs/${jobId}/runs`)).json());
  const notes = ['From the capture gap.csv', 'Read again: From the capture gap.csv', 'meter was off', ''];
  for (const [index, note] of notes.entries())
    await field('POST', `/api/runs/${run.id}/readings`, {
      stepId: 'island-s',
      readingId: 'voltage-L1',
      attempt: index + 1,
      value: 230,
      note,
    });
  // The table as it was before.
  const { sequelize } = harness.database;
  const context = sequelize.getQueryInterface();
  await sequelize.query('ALTER TABLE readings DROP COLUMN source');
  await sourceOfReadings.up({ context });
  const { readings } = wire.testRun.parse((await field('GET', `/api/runs/${run.id}`)).json());
  expect(readings.map(({ note, source }) => [note, source])).toEqual([
    ['', 'From the capture gap.csv'],
    ['Read again: From the capture gap.csv', ''],
    ['meter was off', ''],
    ['', ''],
  ]);
});
