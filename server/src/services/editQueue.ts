import {
  applyEdits,
  conflictsBetween,
  editSchema,
  rereadDesign,
  SAMPLE_TYPES,
  sameJson,
  type wire,
} from '@bastion/core';
import type { Transaction } from 'sequelize';
import { z } from 'zod';
import type { Database } from '../database.ts';
import { RefusalError } from '../errors.ts';
import type { Person } from './accounts.ts';
import type { OpenDocument, OpenDocuments } from './openDocuments.ts';

/** Batches of one job that go into one transaction at most. */
const MOST_TOGETHER = 64;

/** Patches as they are stored and compared. */
const patchesJson = z.json();
const editList = z.array(editSchema);

interface Pending {
  readonly person: Person;
  readonly batch: wire.EditBatch;
  readonly done: (revision: number) => void;
  readonly failed: (error: unknown) => void;
}

/** What became of a batch: the revision it has, or why it was refused. */
type Outcome = { readonly revision: number } | { readonly refusal: RefusalError };

/** A row that is to be written. */
interface NewEdit {
  readonly jobId: number;
  readonly editId: string;
  readonly revision: number;
  readonly patches: string;
  readonly author: string;
  readonly at: Date;
}

interface Worked {
  readonly outcomes: readonly Outcome[];
  readonly rows: readonly NewEdit[];
  readonly next: OpenDocument;
}

export interface EditQueueOptions {
  readonly database: Database;
  readonly documents: OpenDocuments;
  readonly now: () => Date;
  /** Told inside of the transaction, so that what follows from a batch stands and falls with it. */
  readonly onWrite: (person: Person, jobId: number, batch: wire.EditBatch, t: Transaction) => Promise<void>;
  /** Told after the transaction. */
  readonly onMoved: (jobId: number, revision: number) => void;
}

/**
 * Takes the batches of each job one after the other. Those that wait are written together: each is judged on what the one before it
 * left, each has its own revision and its own answer, and all of them are durable when they are answered.
 */
export class EditQueue {
  private readonly options: EditQueueOptions;
  private readonly waiting = new Map<number, Pending[]>();
  private readonly working = new Set<number>();

  constructor(options: EditQueueOptions) {
    this.options = options;
  }

  add(person: Person, jobId: number, batch: wire.EditBatch): Promise<number> {
    return new Promise((done, failed) => {
      const queue = this.waiting.get(jobId) ?? [];
      queue.push({ person, batch, done, failed });
      this.waiting.set(jobId, queue);
      if (!this.working.has(jobId)) void this.run(jobId);
    });
  }

  private async run(jobId: number): Promise<void> {
    this.working.add(jobId);
    try {
      for (let queue = this.waiting.get(jobId); queue !== undefined && queue.length > 0;) {
        const together = queue.splice(0, MOST_TOGETHER);
        await this.commit(jobId, together);
        queue = this.waiting.get(jobId);
      }
    } finally {
      this.working.delete(jobId);
      if (this.waiting.get(jobId)?.length === 0) this.waiting.delete(jobId);
    }
  }

  private async commit(jobId: number, together: readonly Pending[]): Promise<void> {
    const { database, documents, onWrite, onMoved } = this.options;
    try {
      // Judged before the row is held, on what is in memory; again only where another server was faster.
      const known = documents.inMemory(jobId);
      let worked = known === undefined ? undefined : await this.judge(jobId, known, together);
      const { outcomes, next } = await database.sequelize.transaction(async (transaction) => {
        const { revision, firmId } = await documents.headOf(jobId, transaction, true);
        if (together.some(({ person }) => person.firmId !== firmId)) throw new RefusalError('NOT_FOUND');
        if (worked === undefined || known?.revision !== revision)
          worked = await this.judge(
            jobId,
            await documents.at(jobId, revision, transaction),
            together,
            transaction,
          );
        await this.write(jobId, worked, transaction);
        for (const [index, { person, batch }] of together.entries())
          if ('revision' in (worked.outcomes[index] ?? {})) await onWrite(person, jobId, batch, transaction);
        return worked;
      });
      documents.keep(jobId, next);
      if (worked !== undefined && worked.rows.length > 0) onMoved(jobId, next.revision);
      together.forEach(({ done, failed }, index) => {
        const outcome = outcomes[index];
        if (outcome === undefined) failed(new RefusalError('INTERNAL'));
        else if ('refusal' in outcome) failed(outcome.refusal);
        else done(outcome.revision);
      });
    } catch (error) {
      // What is in memory may be ahead of what was written: the next reader starts from the store.
      documents.forget(jobId);
      for (const { failed } of together) failed(error);
    }
  }

  private async judge(
    jobId: number,
    from: OpenDocument,
    together: readonly Pending[],
    transaction?: Transaction,
  ): Promise<Worked> {
    const { database, now } = this.options;
    const before = await database.models.edits.findAll({
      where: { jobId, editId: together.map(({ batch }) => batch.editId) },
      attributes: ['editId', 'revision', 'patches'],
      raw: true,
      ...(transaction === undefined ? {} : { transaction }),
    });
    const applied = new Map(before.map(({ editId, revision, patches }) => [editId, { revision, patches }]));
    const rows: NewEdit[] = [];
    const outcomes: Outcome[] = [];
    let at = from;
    for (const { person, batch } of together) {
      const again = applied.get(batch.editId);
      try {
        if (again !== undefined) {
          if (!sameJson(patchesJson.parse(JSON.parse(again.patches)), patchesJson.parse(batch.patches)))
            throw new RefusalError('EDIT_ID_REUSED');
          outcomes.push({ revision: again.revision });
          continue;
        }
        const next = await this.applied(jobId, from, at, batch, rows, transaction);
        const patches = JSON.stringify(batch.patches);
        rows.push({
          jobId,
          editId: batch.editId,
          revision: next.revision,
          patches,
          author: person.name,
          at: now(),
        });
        applied.set(batch.editId, { revision: next.revision, patches });
        outcomes.push({ revision: next.revision });
        at = next;
      } catch (error) {
        if (!(error instanceof RefusalError)) throw error;
        outcomes.push({ refusal: error });
      }
    }
    return { outcomes, rows, next: at };
  }

  /** One batch laid over what is there; refused where it clashes, or makes no design. */
  private async applied(
    jobId: number,
    from: OpenDocument,
    at: OpenDocument,
    batch: wire.EditBatch,
    rows: readonly NewEdit[],
    transaction: Transaction | undefined,
  ): Promise<OpenDocument> {
    if (batch.baseRevision > at.revision)
      throw new RefusalError('REQUEST_INVALID', {
        problems: [
          { path: ['baseRevision'], message: `is ${batch.baseRevision}, but the latest is ${at.revision}` },
        ],
      });
    if (batch.baseRevision < at.revision) {
      const since = [
        ...(await this.options.documents.editsBetween(jobId, batch.baseRevision, from.revision, transaction)),
        ...rows
          .filter(({ revision }) => revision > batch.baseRevision)
          .flatMap(({ patches }) => editList.parse(JSON.parse(patches))),
      ];
      const conflicts = conflictsBetween(since, batch.patches);
      if (conflicts.length > 0)
        throw new RefusalError('EDIT_CONFLICT', { conflicts, revision: at.revision, document: at.design });
    }
    const laid = applyEdits(at.design, batch.patches);
    if (!laid.ok) throw new RefusalError('DOCUMENT_INVALID', { problems: laid.problems });
    const read = rereadDesign(at.design, laid.value as OpenDocument['design'], SAMPLE_TYPES);
    if (!read.ok) throw new RefusalError('DOCUMENT_INVALID', { problems: read.problems.slice(0, 100) });
    return { revision: at.revision + 1, design: read.value };
  }

  private async write(jobId: number, { rows, next }: Worked, transaction: Transaction): Promise<void> {
    const last = rows.at(-1);
    if (last === undefined) return;
    const { models } = this.options.database;
    await models.edits.bulkCreate([...rows], { transaction });
    await models.jobs.update(
      { revision: next.revision, changedAt: last.at, changedBy: last.author },
      { where: { id: jobId }, transaction },
    );
  }
}
