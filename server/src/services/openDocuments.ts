import { type Design, replay, rereadDesign, SAMPLE_TYPES, type StoredEdits } from '@bastion/core';
import { QueryTypes, type Sequelize, type Transaction } from 'sequelize';
import { z } from 'zod';
import { RefusalError } from '../errors.ts';
import { EDITS } from '../stored/kinds.ts';
import type { Pool } from '../work/pool.ts';

/** A document as it stands at a revision. */
export interface OpenDocument {
  readonly firmId: number;
  readonly revision: number;
  readonly design: Design;
}

/** How many documents stay in memory: those that people work on. */
const MOST_OPEN = 64;

const head = z.object({ revision: z.coerce.number(), firmId: z.number() });
const whole = z.object({ documentRevision: z.number(), document: z.string() });
const step = z.object({ revision: z.number(), patches: z.string() });

/** A stored document, or one in memory, with stored edits laid over it. */
export function advanced(jobId: number, document: unknown, batches: readonly StoredEdits[]): unknown {
  const laid = replay(document, batches);
  if (!laid.ok)
    throw new Error(`A stored edit of job ${jobId} does not apply: ${laid.problems[0]?.message ?? ''}`);
  return laid.value;
}

/**
 * The documents that are worked on, kept in memory by revision. The edits say which revision is the latest, whichever server made
 * it; what is behind catches up by the edits in between.
 */
export class OpenDocuments {
  private readonly sequelize: Sequelize;
  private readonly pool: Pool;
  private readonly open = new Map<number, OpenDocument>();

  constructor(sequelize: Sequelize, pool: Pool) {
    this.sequelize = sequelize;
    this.pool = pool;
  }

  private async select<T>(
    schema: z.ZodType<T>,
    sql: string,
    values: readonly unknown[],
    transaction: Transaction | undefined,
  ): Promise<T[]> {
    const rows = await this.sequelize.query(sql, {
      type: QueryTypes.SELECT,
      replacements: [...values],
      ...(transaction === undefined ? {} : { transaction }),
    });
    return z.array(schema).parse(rows);
  }

  /** The latest revision and whose it is. The edits say which it is: the row of the job follows with the whole document. */
  async headOf(jobId: number, transaction?: Transaction): Promise<{ revision: number; firmId: number }> {
    const sql =
      'SELECT j.firm_id AS firmId, GREATEST(j.document_revision, COALESCE((SELECT MAX(e.revision) FROM edits e WHERE e.job_id = j.id), 0)) AS revision FROM jobs j WHERE j.id = ?';
    const [found] = await this.select(head, sql, [jobId], transaction);
    if (found === undefined) throw new RefusalError('NOT_FOUND');
    return found;
  }

  /** Jobs whose whole document is behind their edits. */
  async behind(): Promise<number[]> {
    const sql =
      'SELECT j.id AS id FROM jobs j WHERE j.document_revision < (SELECT MAX(e.revision) FROM edits e WHERE e.job_id = j.id)';
    return (await this.select(z.object({ id: z.number() }), sql, [], undefined)).map(({ id }) => id);
  }

  get count(): number {
    return this.open.size;
  }

  /** What is in memory, whether or not it is the latest. */
  inMemory(jobId: number): OpenDocument | undefined {
    return this.open.get(jobId);
  }

  keep(jobId: number, document: OpenDocument): void {
    this.open.delete(jobId);
    this.open.set(jobId, document);
    for (const oldest of this.open.keys()) {
      if (this.open.size <= MOST_OPEN) break;
      this.open.delete(oldest);
    }
  }

  forget(jobId: number): void {
    this.open.delete(jobId);
  }

  /** The edits after a revision, up to another, in order. */
  async editsBetween(
    jobId: number,
    after: number,
    upTo: number,
    transaction?: Transaction,
  ): Promise<StoredEdits[]> {
    if (after >= upTo) return [];
    const rows = await this.select(
      step,
      'SELECT revision, patches FROM edits WHERE job_id = ? AND revision > ? AND revision <= ? ORDER BY revision',
      [jobId, after, upTo],
      transaction,
    );
    return rows.map(({ patches }) => EDITS.mustRead(patches));
  }

  /** The latest document. */
  async latest(jobId: number, transaction?: Transaction): Promise<OpenDocument> {
    const { revision, firmId } = await this.headOf(jobId, transaction);
    const known = this.open.get(jobId);
    if (known?.revision === revision) {
      this.keep(jobId, known);
      return known;
    }
    const document =
      known !== undefined && known.revision < revision
        ? await this.caughtUp(jobId, known, revision, transaction)
        : await this.fromStore(jobId, firmId, revision, transaction);
    // Another request may have come further meanwhile: what is newer stays.
    if ((this.open.get(jobId)?.revision ?? -1) < revision) this.keep(jobId, document);
    return document;
  }

  private async caughtUp(
    jobId: number,
    from: OpenDocument,
    revision: number,
    transaction: Transaction | undefined,
  ): Promise<OpenDocument> {
    const edits = await this.editsBetween(jobId, from.revision, revision, transaction);
    const next = advanced(jobId, from.design, edits) as Design;
    const read = rereadDesign(from.design, next, SAMPLE_TYPES);
    return read.ok
      ? { firmId: from.firmId, revision, design: read.value }
      : this.fromStore(jobId, from.firmId, revision, transaction);
  }

  private async fromStore(
    jobId: number,
    firmId: number,
    revision: number,
    transaction: Transaction | undefined,
  ): Promise<OpenDocument> {
    const [row] = await this.select(
      whole,
      'SELECT document_revision AS documentRevision, document FROM jobs WHERE id = ?',
      [jobId],
      transaction,
    );
    if (row === undefined) throw new RefusalError('NOT_FOUND');
    if (row.documentRevision > revision)
      return { firmId, revision: row.documentRevision, design: await this.stored(jobId, row.document) };
    const edits = await this.editsBetween(jobId, row.documentRevision, revision, transaction);
    const caught =
      edits.length === 0 ? row.document : JSON.stringify(advanced(jobId, JSON.parse(row.document), edits));
    return { firmId, revision, design: await this.stored(jobId, caught) };
  }

  /** A stored document was valid when it was stored; one that is not any more is a fault of ours and is said so. */
  async stored(jobId: number, text: string): Promise<Design> {
    try {
      return await this.pool.readWhole(text);
    } catch (error) {
      if (!(error instanceof RefusalError) || error.code !== 'DOCUMENT_INVALID') throw error;
      const why = error.detail.problems?.[0]?.message ?? '';
      throw new Error(`The stored document of job ${jobId} is not valid: ${why}`);
    }
  }
}
