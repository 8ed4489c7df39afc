import { createHash } from 'node:crypto';
import { Op, type Transaction } from 'sequelize';
import {
  acceptanceSchema,
  applyEdits,
  conflictsBetween,
  type Design,
  diff,
  type Edit,
  editSchema,
  isAcceptance,
  isDesignWork,
  isFieldNote,
  readDesign,
  sameJson,
  SAMPLE_TYPES,
  usedTypeIds,
  type wire,
} from '@bastion/core';
import { z } from 'zod';
import type { Database } from '../database.ts';
import { RefusalError } from '../errors.ts';
import type { JobRow } from '../models/jobs.ts';
import { canAccept, canEdit, canNote, canTest, type Person } from './accounts.ts';
import type { Audit } from './audit.ts';
import { readSummary, summarise } from './summary.ts';

/** A whole document is kept with every so many revisions; between them the edits lead on. */
const SNAPSHOT_EVERY = 25;

const editList = z.array(editSchema);

/** A stored document was valid when it was stored; one that is not any more is a fault of ours and is said so. */
export function storedDesign(job: JobRow): Design {
  const read = readDesign(JSON.parse(job.document), SAMPLE_TYPES);
  if (!read.ok)
    throw new Error(`The stored document of job ${job.id} is not valid: ${read.problems[0]?.message ?? ''}`);
  return read.value;
}

function validDesign(value: unknown): Design {
  const read = readDesign(value, SAMPLE_TYPES);
  if (!read.ok) throw new RefusalError('DOCUMENT_INVALID', { problems: read.problems.slice(0, 100) });
  return read.value;
}

export function jobs({ sequelize, models }: Database, now: () => Date, audit: Audit) {
  const find = async (person: Person, jobId: number, transaction?: Transaction): Promise<JobRow> => {
    const job = await models.jobs.findOne({
      where: { id: jobId, firmId: person.firmId },
      ...(transaction === undefined ? {} : { transaction, lock: transaction.LOCK.UPDATE }),
    });
    if (job === null) throw new RefusalError('NOT_FOUND');
    return job;
  };

  /** Writes a new revision. `whole` asks for a snapshot whatever its number is. */
  const write = async (
    job: JobRow,
    design: Design,
    author: string,
    transaction: Transaction,
    whole: boolean,
  ): Promise<number> => {
    const text = JSON.stringify(design);
    const number = job.revision + 1;
    const at = now();
    await job.update(
      {
        revision: number,
        document: text,
        name: design.name,
        summary: JSON.stringify(summarise(design)),
        usedTypes: JSON.stringify([...usedTypeIds(design)]),
        changedAt: at,
        changedBy: author,
      },
      { transaction },
    );
    await models.revisions.create(
      {
        jobId: job.id,
        number,
        author,
        at,
        hash: createHash('sha256').update(text).digest('hex'),
        document: whole || number % SNAPSHOT_EVERY === 0 ? text : null,
      },
      { transaction },
    );
    return number;
  };

  const editsSince = async (jobId: number, revision: number, transaction: Transaction): Promise<Edit[]> => {
    const rows = await models.edits.findAll({
      where: { jobId, revision: { [Op.gt]: revision } },
      order: ['revision'],
      transaction,
    });
    return rows.flatMap((row) => editList.parse(JSON.parse(row.patches)));
  };

  return {
    list: async (person: Person): Promise<wire.JobSummary[]> => {
      const rows = await models.jobs.findAll({
        where: { firmId: person.firmId, variantOf: null },
        attributes: ['id', 'name', 'revision', 'summary', 'changedAt', 'changedBy'],
        order: ['id'],
      });
      return rows.map((row) => ({
        id: row.id,
        name: row.name,
        revision: row.revision,
        changedAt: row.changedAt.toISOString(),
        changedBy: row.changedBy,
        ...readSummary(row.summary),
      }));
    },

    open: async (person: Person, jobId: number): Promise<wire.JobDocument> => {
      const job = await find(person, jobId);
      return {
        id: job.id,
        name: job.name,
        revision: job.revision,
        document: storedDesign(job),
        canEdit: canEdit(person),
        canNote: canNote(person),
        canTest: canTest(person),
        canAccept: canAccept(person),
      };
    },

    design: async (person: Person, jobId: number): Promise<{ design: Design; revision: number }> => {
      const job = await find(person, jobId);
      return { design: storedDesign(job), revision: job.revision };
    },

    latestRevision: async (person: Person, jobId: number): Promise<number> =>
      (await find(person, jobId)).revision,

    create: async (person: Person, value: unknown): Promise<number> => {
      if (!canEdit(person)) throw new RefusalError('NOT_ALLOWED');
      const design = { ...validDesign(value), accepted: [] };
      return sequelize.transaction(async (transaction) => {
        const id = await createJob(models, person, design, now(), transaction, write);
        await audit.add(person, 'made a job', `${design.name} (job ${id})`, transaction);
        return id;
      });
    },

    /** Replaces the whole document, as an import does. What was there stays as an earlier revision. */
    replace: async (person: Person, jobId: number, value: unknown, replaces?: number): Promise<number> => {
      if (!canEdit(person)) throw new RefusalError('NOT_ALLOWED');
      const given = validDesign(value);
      return sequelize.transaction(async (transaction) => {
        const job = await find(person, jobId, transaction);
        if (replaces !== undefined && replaces !== job.revision)
          throw new RefusalError('IMPORT_STALE', { revision: job.revision });
        const before = storedDesign(job);
        const design = withAcceptancesOf(given, before);
        const editId = createHash('sha256')
          .update(`${job.id}:${job.revision}:${now().getTime()}`)
          .digest('hex')
          .slice(0, 40);
        const number = await write(job, design, person.name, transaction, true);
        await models.edits.create(
          { jobId: job.id, editId, revision: number, patches: JSON.stringify(diff(before, design)) },
          { transaction },
        );
        const told = `${design.name} (job ${job.id}), revision ${number} in the place of ${number - 1}`;
        await audit.add(person, 'imported over a job', told, transaction);
        return number;
      });
    },

    /**
     * Applies a batch to the latest revision. The same batch sent again is answered without being applied again; a batch
     * that touches what others changed since its base is refused with both values.
     */
    edit: async (person: Person, jobId: number, batch: wire.EditBatch): Promise<number> => {
      if (!mayMake(person, batch.patches, now())) throw new RefusalError('NOT_ALLOWED');
      return sequelize.transaction(async (transaction) => {
        const job = await find(person, jobId, transaction);
        const applied = await models.edits.findOne({ where: { jobId, editId: batch.editId }, transaction });
        if (applied !== null) {
          if (!sameJson(storedPatches.parse(JSON.parse(applied.patches)), storedPatches.parse(batch.patches)))
            throw new RefusalError('EDIT_ID_REUSED');
          return applied.revision;
        }
        if (batch.baseRevision > job.revision) {
          throw new RefusalError('REQUEST_INVALID', {
            problems: [
              {
                path: ['baseRevision'],
                message: `is ${batch.baseRevision}, but the latest is ${job.revision}`,
              },
            ],
          });
        }
        const before = storedDesign(job);
        const conflicts = conflictsBetween(
          await editsSince(jobId, batch.baseRevision, transaction),
          batch.patches,
        );
        if (conflicts.length > 0) {
          throw new RefusalError('EDIT_CONFLICT', { conflicts, revision: job.revision, document: before });
        }
        const next = applyEdits(before, batch.patches);
        if (!next.ok) throw new RefusalError('DOCUMENT_INVALID', { problems: next.problems });
        const design = validDesign(next.value);
        const number = await write(job, design, person.name, transaction, false);
        await models.edits.create(
          { jobId, editId: batch.editId, revision: number, patches: JSON.stringify(batch.patches) },
          { transaction },
        );
        for (const told of acceptancesIn(batch.patches))
          await audit.add(person, told.action, `job ${jobId}: ${told.subject}`, transaction);
        return number;
      });
    },

    /** Keeps the whole document of a revision, because something now refers to it. */
    keepSnapshot: async (
      jobId: number,
      revision: number,
      design: Design,
      transaction: Transaction,
    ): Promise<void> => {
      await models.revisions.update(
        { document: JSON.stringify(design) },
        { where: { jobId, number: revision }, transaction },
      );
    },
  };
}

/** Patches as they are stored and compared. */
const storedPatches = z.json();

/** How far ahead of the server's clock a device may be. */
const CLOCK_SLACK_MS = 5 * 60_000;

/** An acceptance carries the name of whoever makes it, and no time to come. */
function isOwnAcceptance(person: Person, edit: Edit, now: Date): boolean {
  if (!isAcceptance(edit)) return false;
  if (edit.op === 'remove') return true;
  if (edit.op !== 'insert') return false;
  const read = acceptanceSchema.safeParse(edit.entity);
  return (
    read.success && read.data.by === person.name && Date.parse(read.data.at) <= now.getTime() + CLOCK_SLACK_MS
  );
}

/** What edits say about responsibility taken or given back, for the audit trail. */
function acceptancesIn(edits: readonly Edit[]): { action: string; subject: string }[] {
  return edits.filter(isAcceptance).flatMap((edit) => {
    if (edit.op !== 'insert' && edit.op !== 'remove') return [];
    const read = acceptanceSchema.safeParse(edit.entity);
    if (!read.success) return [];
    const { check, subject, reason } = read.data;
    const action = edit.op === 'insert' ? 'accepted a finding' : 'took an acceptance back';
    return [{ action, subject: `${check} of ${subject.kind} ${subject.id}: ${reason}` }];
  });
}

/** What each role may change of a design: the designer all but acceptances, the field notes, the approver acceptances of their own name. */
function mayMake(person: Person, edits: readonly Edit[], now: Date): boolean {
  if (canEdit(person)) return edits.every(isDesignWork);
  if (canAccept(person)) return edits.every((edit) => isOwnAcceptance(person, edit, now));
  return canNote(person) && edits.every(isFieldNote);
}

/** An import brings a design, not the responsibility of people: what stands accepted in the job stays, nothing else comes in. */
const withAcceptancesOf = (design: Design, before: Design): Design => ({
  ...design,
  accepted: before.accepted,
});

type Write = (
  job: JobRow,
  design: Design,
  author: string,
  transaction: Transaction,
  whole: boolean,
) => Promise<number>;

async function createJob(
  models: Database['models'],
  person: Pick<Person, 'firmId' | 'name'>,
  design: Design,
  at: Date,
  transaction: Transaction,
  write: Write,
): Promise<number> {
  const job = await models.jobs.create(
    {
      firmId: person.firmId,
      name: design.name,
      revision: 0,
      document: '',
      summary: '',
      changedAt: at,
      changedBy: person.name,
    },
    { transaction },
  );
  await write(job, design, person.name, transaction, true);
  return job.id;
}

export type Jobs = ReturnType<typeof jobs>;
