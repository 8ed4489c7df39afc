import { partOf, type Procedure, SKIPPED, wire } from '@bastion/core';
import type { Transaction } from 'sequelize';
import type { Database } from '../database.ts';
import { RefusalError } from '../errors.ts';
import { PROCEDURE } from '../stored/kinds.ts';
import type { Pool } from '../work/pool.ts';
import type { ReadingRow } from '../models/readings.ts';
import type { RunRow } from '../models/runs.ts';
import { canTest, type Person } from './accounts.ts';
import type { Audit } from './audit.ts';
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
  source: row.source,
  captureId: row.captureId,
  by: row.by,
  at: row.at.toISOString(),
});

/** The test of a design. What cannot be worked out is never stored: JSON would make "not a number" of it nothing at all. */
function possible(procedure: Procedure): Procedure {
  const problems = procedure.steps.flatMap((step) =>
    step.readings.flatMap(({ label, nominal, expected, abort }) =>
      [nominal, expected?.low, expected?.high, abort?.low, abort?.high].every(
        (figure) => figure === undefined || Number.isFinite(figure),
      )
        ? []
        : [{ path: ['steps', step.id], message: `${step.title}: ${label} cannot be worked out` }],
    ),
  );
  if (problems.length > 0) throw new RefusalError('PROCEDURE_IMPOSSIBLE', { problems });
  return procedure;
}

export function runs(
  { sequelize, models }: Database,
  jobService: Jobs,
  now: () => Date,
  audit: Audit,
  pool: Pool,
) {
  const find = async (person: Person, runId: number): Promise<RunRow> => {
    const run = await models.runs.findByPk(runId);
    if (run === null) throw new RefusalError('NOT_FOUND');
    await jobService.latestRevision(person, run.jobId);
    return run;
  };
  /** The run, held until the transaction ends. */
  const held = async (runId: number, transaction: Transaction): Promise<RunRow> =>
    models.runs.findByPk(runId, { transaction, lock: transaction.LOCK.UPDATE, rejectOnEmpty: true });
  const whole = async (run: RunRow): Promise<wire.TestRun> => {
    const rows = await models.readings.findAll({ where: { runId: run.id }, order: ['id'] });
    return {
      ...summaryOf(run),
      procedure: PROCEDURE.mustRead(run.procedure),
      readings: rows.map(readingOf),
    };
  };

  /** The part of a test that is retested after an earlier run of the same job. */
  const someOf = async (
    procedure: Procedure,
    jobId: number,
    { run, steps }: NonNullable<wire.StartRun['retest']>,
  ): Promise<Procedure> => {
    const earlier = await models.runs.findOne({ where: { jobId, number: run } });
    if (earlier === null) throw new RefusalError('NOT_FOUND');
    const known = new Set(procedure.steps.map(({ id }) => id));
    if (!steps.every((id) => known.has(id))) throw new RefusalError('READING_UNKNOWN');
    return partOf(procedure, new Set(steps), { run, revision: earlier.revision });
  };

  return {
    list: async (person: Person, jobId: number): Promise<wire.RunSummary[]> => {
      await jobService.latestRevision(person, jobId);
      const rows = await models.runs.findAll({ where: { jobId }, order: [['number', 'DESC']] });
      return rows.map(summaryOf);
    },

    open: async (person: Person, runId: number): Promise<wire.TestRun> => whole(await find(person, runId)),

    /** Starts a run on the latest revision. Its procedure is kept with it, so that later edits do not move its limits. */
    start: async (person: Person, jobId: number, retest?: wire.StartRun['retest']): Promise<wire.TestRun> => {
      if (!canTest(person)) throw new RefusalError('NOT_ALLOWED');
      const { design, revision } = await jobService.design(person, jobId);
      const all = possible(await pool.procedure(JSON.stringify(design)));
      const procedure = retest === undefined ? all : await someOf(all, jobId, retest);
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
            procedure: PROCEDURE.write(procedure),
          },
          { transaction },
        );
      });
      return whole(run);
    },

    /**
     * Adds a reading. Earlier ones stay: a correction names the one it corrects, a retest has a higher attempt. The same key sent
     * again is answered with what was recorded. The run is held meanwhile, so that nothing is recorded after its end.
     */
    addReading: async (person: Person, runId: number, given: wire.NewReading): Promise<wire.Reading> => {
      if (!canTest(person)) throw new RefusalError('NOT_ALLOWED');
      await find(person, runId);
      return sequelize.transaction(async (transaction) => {
        const run = await held(runId, transaction);
        const { stepId, readingId, value, attempt, key } = given;
        if (key !== undefined) {
          const before = await models.readings.findOne({ where: { runId, deviceKey: key }, transaction });
          if (before !== null) {
            const isSame =
              before.stepId === stepId && before.readingId === readingId && before.value === value;
            if (!isSame) throw new RefusalError('READING_KEY_REUSED');
            return readingOf(before);
          }
        }
        if (run.state !== 'running') throw new RefusalError('RUN_CLOSED');
        const procedure = PROCEDURE.mustRead(run.procedure);
        const step = procedure.steps.find((one) => one.id === stepId);
        const isSkip = readingId === SKIPPED && step !== undefined && step.section !== 'gates';
        if (!isSkip && step?.readings.some((one) => one.id === readingId) !== true)
          throw new RefusalError('READING_UNKNOWN');
        if (isSkip && value === 1 && (given.note ?? '').trim() === '')
          throw new RefusalError('SKIP_REASON_NEEDED');
        if (given.corrects !== undefined) {
          const earlier = await models.readings.findOne({
            where: { id: given.corrects, runId, stepId, readingId },
            transaction,
          });
          if (earlier === null) throw new RefusalError('READING_UNKNOWN');
        }
        if (given.captureId !== undefined) {
          const kept = await models.captures.count({
            where: { id: given.captureId, jobId: run.jobId },
            transaction,
          });
          if (kept === 0) throw new RefusalError('READING_UNKNOWN');
        }
        const row = await models.readings.create(
          {
            runId,
            stepId,
            readingId,
            value,
            attempt,
            corrects: given.corrects ?? null,
            note: given.note ?? '',
            source: given.source ?? '',
            captureId: given.captureId ?? null,
            deviceKey: key ?? null,
            by: person.name,
            at: now(),
          },
          { transaction },
        );
        return readingOf(row);
      });
    },

    /** Ends a run once: finishing and aborting exclude each other. */
    end: async (
      person: Person,
      runId: number,
      how: { state: 'finished' | 'aborted'; reason: string },
    ): Promise<wire.TestRun> => {
      if (!canTest(person)) throw new RefusalError('NOT_ALLOWED');
      await find(person, runId);
      const ended = await sequelize.transaction(async (transaction) => {
        const run = await held(runId, transaction);
        if (run.state !== 'running') throw new RefusalError('RUN_CLOSED');
        if (how.state === 'aborted' && how.reason.trim() === '') throw new RefusalError('REASON_NEEDED');
        await audit.add(person, `${how.state} a test`, `run ${run.number} of job ${run.jobId}`, transaction);
        return run.update({ state: how.state, reason: how.reason.trim(), endedAt: now() }, { transaction });
      });
      return whole(ended);
    },
  };
}

export type Runs = ReturnType<typeof runs>;
