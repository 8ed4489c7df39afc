import { procedureFor, procedureSchema, SAMPLE_TYPES, wire } from '@bastion/core';
import type { Database } from '../database.ts';
import { RefusalError } from '../errors.ts';
import type { ReadingRow } from '../models/readings.ts';
import type { RunRow } from '../models/runs.ts';
import { canTest, type Person } from './accounts.ts';
import type { Jobs } from './jobs.ts';

const summaryOf = (run: RunRow): wire.RunSummary => ({
  id: run.id,
  jobId: run.jobId,
  number: run.number,
  revision: run.revision,
  state: wire.runState.parse(run.state),
  reason: run.reason,
  startedBy: run.startedBy,
  startedAt: run.startedAt.toISOString(),
  endedAt: run.endedAt === null ? null : run.endedAt.toISOString(),
});

const readingOf = (row: ReadingRow): wire.Reading => ({
  id: row.id,
  stepId: row.stepId,
  readingId: row.readingId,
  value: row.value,
  attempt: row.attempt,
  corrects: row.corrects,
  note: row.note,
  by: row.by,
  at: row.at.toISOString(),
});

export function runs({ sequelize, models }: Database, jobService: Jobs, now: () => Date) {
  const find = async (person: Person, runId: number): Promise<RunRow> => {
    const run = await models.runs.findByPk(runId);
    if (run === null) throw new RefusalError('NOT_FOUND');
    await jobService.latestRevision(person, run.jobId);
    return run;
  };
  const whole = async (run: RunRow): Promise<wire.TestRun> => {
    const rows = await models.readings.findAll({ where: { runId: run.id }, order: ['id'] });
    return {
      ...summaryOf(run),
      procedure: procedureSchema.parse(JSON.parse(run.procedure)),
      readings: rows.map(readingOf),
    };
  };

  return {
    list: async (person: Person, jobId: number): Promise<wire.RunSummary[]> => {
      await jobService.latestRevision(person, jobId);
      const rows = await models.runs.findAll({ where: { jobId }, order: [['number', 'DESC']] });
      return rows.map(summaryOf);
    },

    open: async (person: Person, runId: number): Promise<wire.TestRun> => whole(await find(person, runId)),

    /** Starts a run on the latest revision. Its procedure is kept with it, so that later edits do not move its limits. */
    start: async (person: Person, jobId: number): Promise<wire.TestRun> => {
      if (!canTest(person)) throw new RefusalError('NOT_ALLOWED');
      const { design, revision } = await jobService.design(person, jobId);
      const run = await sequelize.transaction(async (transaction) => {
        await models.jobs.findByPk(jobId, { transaction, lock: transaction.LOCK.UPDATE, attributes: ['id'] });
        const last = await models.runs.max<number | null, RunRow>('number', {
          where: { jobId },
          transaction,
        });
        await jobService.keepSnapshot(jobId, revision, design, transaction);
        return models.runs.create(
          {
            jobId,
            number: (last ?? 0) + 1,
            revision,
            state: 'running',
            reason: '',
            startedBy: person.name,
            startedAt: now(),
            endedAt: null,
            procedure: JSON.stringify(procedureFor(design, SAMPLE_TYPES)),
          },
          { transaction },
        );
      });
      return whole(run);
    },

    /** Adds a reading. Earlier ones stay: a correction names the one it corrects, a retest has a higher attempt. */
    addReading: async (person: Person, runId: number, given: wire.NewReading): Promise<wire.Reading> => {
      if (!canTest(person)) throw new RefusalError('NOT_ALLOWED');
      const run = await find(person, runId);
      if (run.state !== 'running') throw new RefusalError('RUN_CLOSED');
      const procedure = procedureSchema.parse(JSON.parse(run.procedure));
      const step = procedure.steps.find((one) => one.id === given.stepId);
      if (step?.readings.some((one) => one.id === given.readingId) !== true)
        throw new RefusalError('READING_UNKNOWN');
      if (given.corrects !== undefined) {
        const earlier = await models.readings.findOne({
          where: { id: given.corrects, runId, stepId: given.stepId, readingId: given.readingId },
        });
        if (earlier === null) throw new RefusalError('READING_UNKNOWN');
      }
      const row = await models.readings.create({
        runId,
        stepId: given.stepId,
        readingId: given.readingId,
        value: given.value,
        attempt: given.attempt,
        corrects: given.corrects ?? null,
        note: given.note ?? '',
        by: person.name,
        at: now(),
      });
      return readingOf(row);
    },

    end: async (
      person: Person,
      runId: number,
      how: { state: 'finished' | 'aborted'; reason: string },
    ): Promise<wire.TestRun> => {
      if (!canTest(person)) throw new RefusalError('NOT_ALLOWED');
      const run = await find(person, runId);
      if (run.state !== 'running') throw new RefusalError('RUN_CLOSED');
      if (how.state === 'aborted' && how.reason.trim() === '') throw new RefusalError('REASON_NEEDED');
      await run.update({ state: how.state, reason: how.reason.trim(), endedAt: now() });
      return whole(run);
    },
  };
}

export type Runs = ReturnType<typeof runs>;
