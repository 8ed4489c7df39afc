import {
  conflictsBetween,
  type Edit,
  FORMAT,
  isResponsibility,
  isNoteStamp,
  sameJson,
  type wire,
} from '@bastion/core';
import { setImmediate as nextTurn } from 'node:timers/promises';
import { ForeignKeyConstraintError, QueryTypes, type Transaction } from 'sequelize';
import { z } from 'zod';
import type { Database } from '../database.ts';
import { RefusalError } from '../errors.ts';
import type { Pool } from '../work/pool.ts';
import { canEdit, type Person } from './accounts.ts';
import { EDITS } from '../stored/kinds.ts';
import { lay } from './lay.ts';
import type { OpenDocument, OpenDocuments } from './openDocuments.ts';
import { momentOf, runPrepared } from './prepared.ts';
import { isTaken } from './taken.ts';

/** Batches of one job that are written together at most. */
const MOST_TOGETHER = 64;
/** Turns of the loop in which a batch waits for others. */
const TURNS = 2;
/** Another server may be faster so many times in a row before a batch is given back. */
const MOST_TRIES = 20;

/** Patches as they are stored and compared. */
const patchesJson = z.json();

/** More edits than these are laid in a thread, not between other requests. */
const MOST_AT_ONCE = 200;

interface Pending {
  readonly person: Person;
  readonly batch: wire.EditBatch;
  readonly done: (saved: wire.Saved) => void;
  readonly failed: (error: unknown) => void;
}

/** What became of a batch: the revision it has, or why it was refused. */
type Outcome = wire.Saved | { readonly refusal: RefusalError };

/** A row that is to be written. */
interface NewEdit {
  readonly editId: string;
  readonly revision: number;
  readonly edits: readonly Edit[];
  readonly patches: string;
  readonly author: string;
  readonly at: Date;
}

interface Worked {
  readonly outcomes: readonly Outcome[];
  readonly rows: readonly NewEdit[];
  readonly next: OpenDocument;
}

/** The last batches of a job that this server has written, without a gap up to the document in memory. */
interface Recent {
  /** The revision before the first of them. */
  readonly after: number;
  readonly upTo: number;
  readonly rows: readonly NewEdit[];
}

/** How many batches of a job are remembered: as many as can be under way at once, and more. */
const MOST_RECENT = 256;
const MOST_JOBS = 64;

const savedAs = (revision: number, isStamped: boolean): wire.Saved =>
  isStamped ? { revision, isStamped } : { revision };

/** The answer to a batch that was saved before: under its id nothing else may come. What the server added to it does not count. */
function savedBefore(
  { revision, patches }: { readonly revision: number; readonly patches: string },
  batch: wire.EditBatch,
): wire.Saved {
  const stored = EDITS.mustRead(patches).edits;
  const added = stored.slice(batch.patches.length);
  const isSame = sameJson(
    patchesJson.parse(stored.slice(0, batch.patches.length)),
    patchesJson.parse(batch.patches),
  );
  if (!isSame || !added.every(isNoteStamp)) throw new RefusalError('EDIT_ID_REUSED');
  return savedAs(revision, added.length > 0);
}

export interface EditQueueOptions {
  readonly database: Database;
  readonly documents: OpenDocuments;
  readonly pool: Pool;
  readonly now: () => Date;
  /** Told inside of the transaction, for batches that hold an acceptance: what follows from them stands and falls with them. */
  readonly onAccepted: (
    person: Person,
    jobId: number,
    edits: readonly Edit[],
    t: Transaction,
  ) => Promise<void>;
  /** Told once a revision is written. */
  readonly onMoved: (jobId: number, revision: number) => void;
}

/**
 * Takes the batches of each job one after the other. Those that wait are written together, as one statement: each is judged on what the
 * one before it left, each has its own revision and its own answer, and all of them are durable when they are answered. The number of a
 * revision is unique for its job, so of two servers that write at once one is told, and judges again on what the other has written.
 */
export class EditQueue {
  private readonly options: EditQueueOptions;
  private readonly waiting = new Map<number, Pending[]>();
  private readonly recent = new Map<number, Recent>();
  private readonly working = new Set<number>();

  constructor(options: EditQueueOptions) {
    this.options = options;
  }

  add(person: Person, jobId: number, batch: wire.EditBatch): Promise<wire.Saved> {
    return new Promise((done, failed) => {
      const queue = this.waiting.get(jobId) ?? [];
      queue.push({ person, batch, done, failed });
      this.waiting.set(jobId, queue);
      if (!this.working.has(jobId)) void this.run(jobId);
    });
  }

  private async run(jobId: number): Promise<void> {
    this.working.add(jobId);
    for (;;) {
      // Requests that have already arrived are let in: one more statement costs more than the moment.
      for (let turn = 0; turn < TURNS; turn += 1) await nextTurn();
      const together = this.waiting.get(jobId)?.splice(0, MOST_TOGETHER) ?? [];
      if (together.length === 0) break;
      await this.answer(jobId, together);
    }
    this.working.delete(jobId);
    this.waiting.delete(jobId);
  }

  private async answer(jobId: number, together: readonly Pending[]): Promise<void> {
    const { documents, onMoved } = this.options;
    try {
      const { outcomes, rows, next } = await this.commit(jobId, together);
      this.remember(jobId, rows);
      documents.keep(jobId, next);
      if (rows.length > 0) onMoved(jobId, next.revision);
      together.forEach(({ done, failed }, index) => {
        const outcome = outcomes[index];
        if (outcome === undefined) failed(new RefusalError('INTERNAL'));
        else if ('refusal' in outcome) failed(outcome.refusal);
        else done(outcome);
      });
    } catch (error) {
      // What is in memory may not be what was written: the next reader starts from the store.
      documents.forget(jobId);
      this.recent.delete(jobId);
      for (const { failed } of together) failed(error);
    }
  }

  private remember(jobId: number, rows: readonly NewEdit[]): void {
    const [first] = rows;
    if (first === undefined) return;
    const before = this.recent.get(jobId);
    const joined = before?.upTo === first.revision - 1 ? [...before.rows, ...rows] : rows;
    const kept = joined.slice(-MOST_RECENT);
    this.recent.delete(jobId);
    this.recent.set(jobId, {
      after: (kept[0]?.revision ?? first.revision) - 1,
      upTo: rows.at(-1)?.revision ?? first.revision,
      rows: kept,
    });
    for (const oldest of this.recent.keys()) {
      if (this.recent.size <= MOST_JOBS) break;
      this.recent.delete(oldest);
    }
  }

  /** What is remembered of a job after a revision, where that is all there is. */
  private since(jobId: number, after: number, upTo: number): readonly NewEdit[] | undefined {
    const known = this.recent.get(jobId);
    if (known === undefined || known.upTo !== upTo || known.after > after) return undefined;
    // They lie without a gap.
    return known.rows.slice(after - known.after);
  }

  private async commit(jobId: number, together: readonly Pending[]): Promise<Worked> {
    const { documents } = this.options;
    let from = documents.inMemory(jobId);
    // What is in memory is believed first: where it is not the latest, writing the next revision fails.
    let isSure = false;
    for (let tries = 0; tries < MOST_TRIES; tries += 1) {
      from ??= await documents.latest(jobId);
      const known = from;
      if (together.some(({ person }) => person.firmId !== known.firmId)) throw new RefusalError('NOT_FOUND');
      const worked = await this.judge(jobId, from, together, isSure);
      // A refusal of what may be old is no refusal yet.
      const isRefused = worked.outcomes.some((outcome) => 'refusal' in outcome);
      if (!isRefused || isSure || (await documents.headOf(jobId)).revision === from.revision) {
        try {
          await this.write(jobId, worked, together);
          return worked;
        } catch (error) {
          if (error instanceof ForeignKeyConstraintError) throw new RefusalError('NOT_FOUND');
          if (!isTaken(error)) throw error;
        }
      }
      isSure = true;
      from = await documents.latest(jobId);
    }
    throw new RefusalError('INTERNAL');
  }

  /** Batches that were applied before, by their id. */
  private async applied(
    jobId: number,
    together: readonly Pending[],
  ): Promise<Map<string, { revision: number; patches: string }>> {
    const { models } = this.options.database;
    const before = await models.edits.findAll({
      where: { jobId, editId: together.map(({ batch }) => batch.editId) },
      attributes: ['editId', 'revision', 'patches'],
      raw: true,
    });
    return new Map(before.map(({ editId, revision, patches }) => [editId, { revision, patches }]));
  }

  /** `looksBack`: whether it is asked first which batches were applied before; else the unique id of each tells on writing. */
  private async judge(
    jobId: number,
    from: OpenDocument,
    together: readonly Pending[],
    looksBack: boolean,
  ): Promise<Worked> {
    // A batch whose base is not the latest may be one that is sent again: it then lies between that base and the latest.
    const oldest = Math.min(...together.map(({ batch }) => batch.baseRevision));
    const remembered = this.since(jobId, oldest, from.revision);
    const isOld = oldest !== from.revision && remembered === undefined;
    const applied: Map<string, { readonly revision: number; readonly patches: string }> =
      looksBack || isOld
        ? await this.applied(jobId, together)
        : new Map(remembered?.map((row) => [row.editId, row]));
    const rows: NewEdit[] = [];
    const outcomes: Outcome[] = [];
    let at = from;
    for (const { person, batch } of together) {
      const again = applied.get(batch.editId);
      try {
        if (again !== undefined) {
          outcomes.push(savedBefore(again, batch));
          continue;
        }
        const made = this.options.now();
        const { next, edits } = await this.laid(jobId, from, at, { person, batch, made }, rows);
        const row: NewEdit = {
          editId: batch.editId,
          revision: next.revision,
          edits,
          patches: EDITS.write({ design: FORMAT, edits: [...edits] }),
          author: person.name,
          at: made,
        };
        rows.push(row);
        applied.set(batch.editId, row);
        outcomes.push(savedAs(next.revision, edits.length > batch.patches.length));
        at = next;
      } catch (error) {
        if (!(error instanceof RefusalError)) throw error;
        outcomes.push({ refusal: error });
      }
    }
    return { outcomes, rows, next: at };
  }

  /** One batch laid over what is there; refused where it clashes, or makes no design. */
  private async laid(
    jobId: number,
    from: OpenDocument,
    at: OpenDocument,
    given: { readonly person: Person; readonly batch: wire.EditBatch; readonly made: Date },
    rows: readonly NewEdit[],
  ): Promise<{ readonly next: OpenDocument; readonly edits: readonly Edit[] }> {
    const { person, batch, made } = given;
    if (batch.baseRevision > at.revision)
      throw new RefusalError('REQUEST_INVALID', {
        problems: [
          { path: ['baseRevision'], message: `is ${batch.baseRevision}, but the latest is ${at.revision}` },
        ],
      });
    if (batch.baseRevision < at.revision) {
      const remembered = this.since(jobId, batch.baseRevision, from.revision);
      const since = [
        ...(remembered?.flatMap(({ edits }) => edits) ??
          (await this.options.documents.editsBetween(jobId, batch.baseRevision, from.revision)).flatMap(
            ({ edits }) => edits,
          )),
        ...rows.filter(({ revision }) => revision > batch.baseRevision).flatMap(({ edits }) => edits),
      ];
      const conflicts = conflictsBetween(since, batch.patches);
      if (conflicts.length > 0)
        throw new RefusalError('EDIT_CONFLICT', { conflicts, revision: at.revision, document: at.design });
    }
    const laying = { by: person.name, at: made.toISOString(), mayChangeNotes: canEdit(person) };
    const { design, edits } =
      batch.patches.length > MOST_AT_ONCE
        ? await this.options.pool.lay({ text: JSON.stringify(at.design), patches: batch.patches, laying })
        : lay(at.design, batch.patches, laying);
    return { next: { firmId: at.firmId, revision: at.revision + 1, design }, edits };
  }

  private async write(
    jobId: number,
    { rows, outcomes }: Worked,
    together: readonly Pending[],
  ): Promise<void> {
    if (rows.length === 0) return;
    const { database, onAccepted } = this.options;
    const accepted = together.filter(
      ({ batch }, index) => 'revision' in (outcomes[index] ?? {}) && batch.patches.some(isResponsibility),
    );
    if (accepted.length === 0) return this.insert(jobId, rows);
    await database.sequelize.transaction(async (transaction) => {
      await this.insert(jobId, rows, transaction);
      for (const { person, batch } of accepted) await onAccepted(person, jobId, batch.patches, transaction);
    });
  }

  private async insert(jobId: number, rows: readonly NewEdit[], transaction?: Transaction): Promise<void> {
    const { sequelize } = this.options.database;
    const sql = `INSERT INTO edits (job_id, edit_id, revision, patches, author, at) VALUES ${rows.map(() => '(?, ?, ?, ?, ?, ?)').join(', ')}`;
    const values = rows.flatMap(({ editId, revision, patches, author, at }) => [
      jobId,
      editId,
      revision,
      patches,
      author,
      momentOf(at),
    ]);
    if (transaction === undefined) await runPrepared(sequelize, sql, values);
    else await sequelize.query(sql, { type: QueryTypes.INSERT, replacements: values, transaction });
  }
}
