import { ForeignKeyConstraintError, QueryTypes, UniqueConstraintError } from 'sequelize';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { isTaken } from './services/taken.ts';
import { momentOf, runPrepared } from './services/prepared.ts';
import { type Harness, smallDesign, startHarness } from './testkit/harness.ts';

let harness: Harness;
let jobId = 0;
beforeAll(async () => {
  harness = await startHarness();
  const designer = await harness.as('designer@north.test');
  jobId = (await designer('POST', '/api/jobs/import', smallDesign())).json<{ id: number }>().id;
});
afterAll(() => harness.close());

const AT = new Date('2026-10-25T01:30:00.125Z');
const write = (job: number, editId: string, revision: number, patches = '[]'): Promise<void> =>
  runPrepared(
    harness.database.sequelize,
    'INSERT INTO edits (job_id, edit_id, revision, patches, author, at) VALUES (?, ?, ?, ?, ?, ?)',
    [job, editId, revision, patches, 'Ada "the" Ärztin', momentOf(AT)],
  );

it('a prepared statement keeps text and moment as they were given, as Sequelize reads them', async () => {
  const patches = JSON.stringify([{ note: "it's 50 % \\ \u0000 of 230 V – 🔌 \n'); DROP TABLE edits;" }]);
  await write(jobId, 'prepared-1', 900, patches);
  const row = await harness.database.models.edits.findOne({
    where: { jobId, revision: 900 },
    rejectOnEmpty: true,
  });
  expect([row.patches, row.author, row.at?.toISOString()]).toEqual([
    patches,
    'Ada "the" Ärztin',
    AT.toISOString(),
  ]);
});

it('what the database refuses is told as Sequelize tells it, and the connection serves on', async () => {
  await write(jobId, 'prepared-2', 901);
  const told = (work: Promise<void>): Promise<unknown> =>
    work.then(
      () => 'nothing',
      (error: unknown) => error,
    );
  // The same revision, the same id of an edit, and a job that is not there.
  for (const taken of [
    await told(write(jobId, 'prepared-3', 901)),
    await told(write(jobId, 'prepared-2', 902)),
  ])
    expect([taken instanceof UniqueConstraintError, isTaken(taken)]).toEqual([true, true]);
  const orphan = await told(write(999_999, 'prepared-4', 1));
  expect([orphan instanceof ForeignKeyConstraintError, isTaken(orphan)]).toEqual([true, false]);
  const [count] = await harness.database.sequelize.query<{ n: number }>(
    "SELECT COUNT(*) AS n FROM edits WHERE edit_id LIKE 'prepared-%'",
    { type: QueryTypes.SELECT },
  );
  expect(Number(count?.n)).toBe(2);
});
