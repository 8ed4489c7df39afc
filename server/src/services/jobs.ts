import { randomUUID } from 'node:crypto';
import type { Transaction } from 'sequelize';
import {
  type Acceptance,
  acceptanceSchema,
  type Design,
  diff,
  type Edit,
  FORMAT,
  isResponsibility,
  isDesignWork,
  isFieldNote,
  type TableValue,
  tableValueSchema,
  type wire,
} from '@bastion/core';
import type { Database } from '../database.ts';
import { RefusalError } from '../errors.ts';
import { EDITS } from '../stored/kinds.ts';
import type { Pool } from '../work/pool.ts';
import { canAccept, canEdit, canNote, canTest, type Person } from './accounts.ts';
import type { Audit } from './audit.ts';
import { Checkpoints, keepRevision } from './checkpoints.ts';
import { EditQueue } from './editQueue.ts';
import { type OpenDocument, OpenDocuments } from './openDocuments.ts';
import { readSummary } from './summary.ts';
import { onceMore } from './taken.ts';
import { Watchers } from './watchers.ts';

export function jobs(database: Database, now: () => Date, audit: Audit, pool: Pool) {
  const { sequelize, models } = database;
  const documents = new OpenDocuments(sequelize, pool);
  const checkpoints = new Checkpoints(models, documents, pool);
  const watchers = new Watchers(async (jobId) => (await documents.headOf(jobId)).revision);
  const queue = new EditQueue({
    database,
    documents,
    pool,
    now,
    onAccepted: async (person, jobId, edits, transaction) => {
      for (const told of responsibilitiesIn(edits))
        await audit.add(person, told.action, `job ${jobId}: ${told.subject}`, transaction);
    },
    onMoved: (jobId, revision) => {
      checkpoints.later(jobId);
      watchers.tell(jobId, revision);
    },
  });

  /** The latest document of a job of the firm. */
  const latest = async (person: Person, jobId: number): Promise<OpenDocument> => {
    const document = await documents.latest(jobId);
    if (document.firmId !== person.firmId) throw new RefusalError('NOT_FOUND');
    return document;
  };

  const latestRevision = async (person: Person, jobId: number): Promise<number> => {
    const { revision, firmId } = await documents.headOf(jobId);
    if (firmId !== person.firmId) throw new RefusalError('NOT_FOUND');
    return revision;
  };

  /** Writes out what waits of a firm's jobs, so that their rows say what their latest revision is. */
  const settle = async (firmId: number): Promise<void> => {
    const ids = await models.jobs.findAll({ where: { firmId }, attributes: ['id'], raw: true });
    await checkpoints.settle(ids.map(({ id }) => id));
  };

  return {
    settle,
    documents,

    list: async (person: Person): Promise<wire.JobSummary[]> => {
      await settle(person.firmId);
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
      const { revision, design } = await latest(person, jobId);
      return {
        id: jobId,
        name: design.name,
        revision,
        document: design,
        canEdit: canEdit(person),
        canNote: canNote(person),
        canTest: canTest(person),
        canAccept: canAccept(person),
      };
    },

    design: latest,
    latestRevision,

    /** Tells of every new revision, whichever server made it. Returns what ends it. */
    watch: (jobId: number, known: number, tell: (revision: number) => void): (() => void) =>
      watchers.add(jobId, known, tell),

    /** Writes out what an earlier server left in the edits alone. Nothing waits for it: what is read is caught up anyway. */
    catchUp: (): Promise<void> => checkpoints.catchUp(),

    /** Documents that are still only in the edits are written out whole: before the server stops. */
    flush: async (): Promise<void> => {
      watchers.stop();
      await checkpoints.flush();
    },

    /** Makes a job of a document that is given as text, and judged first. */
    create: async (
      person: Person,
      given: string,
      variant: { readonly variantOf?: number; readonly variantName?: string } = {},
    ): Promise<number> => {
      if (!canEdit(person)) throw new RefusalError('NOT_ALLOWED');
      const { tableValues: _, ...read } = await pool.readWhole(given);
      const design: Design = { ...read, accepted: [] };
      const text = JSON.stringify(design);
      const summary = await pool.summary(text);
      return sequelize.transaction(async (transaction) => {
        const job = await models.jobs.create(
          {
            firmId: person.firmId,
            name: design.name,
            revision: 1,
            document: text,
            documentRevision: 1,
            ...summary,
            ...variant,
            changedAt: now(),
            changedBy: person.name,
          },
          { transaction },
        );
        const { id } = job;
        const made = { author: person.name, at: now() };
        await keepRevision(models, id, 1, text, { made, transaction });
        await audit.add(person, 'made a job', `${design.name} (job ${id})`, transaction);
        return id;
      });
    },

    /** Replaces the whole document, as an import does. What was there stays as an earlier revision. */
    replace: async (person: Person, jobId: number, text: string, replaces?: number): Promise<number> => {
      if (!canEdit(person)) throw new RefusalError('NOT_ALLOWED');
      const given = await pool.readWhole(text);
      const moved = await onceMore(async () => {
        const before = await documents.latest(jobId);
        const { revision, firmId } = before;
        if (firmId !== person.firmId) throw new RefusalError('NOT_FOUND');
        if (replaces !== undefined && replaces !== revision)
          throw new RefusalError('IMPORT_STALE', { revision });
        const design = withResponsibilitiesOf(given, before.design);
        const number = revision + 1;
        const at = now();
        const written = JSON.stringify(design);
        // All that takes time is done before anything is held.
        const shown = await pool.summary(written);
        const edit = {
          jobId,
          editId: randomUUID(),
          revision: number,
          patches: EDITS.write({ design: FORMAT, edits: diff(before.design, design) }),
          author: person.name,
          at,
        };
        await sequelize.transaction(async (transaction) => {
          await models.edits.create(edit, { transaction });
          await models.jobs.update(
            {
              revision: number,
              document: written,
              documentRevision: number,
              name: design.name,
              ...shown,
              changedAt: at,
              changedBy: person.name,
            },
            { where: { id: jobId }, transaction },
          );
          // What was there, and what came: both can be opened again as they were.
          await keepRevision(models, jobId, revision, JSON.stringify(before.design), { transaction });
          await keepRevision(models, jobId, number, written, { transaction });
          const told = `${design.name} (job ${jobId}), revision ${number} in the place of ${revision}`;
          await audit.add(person, 'imported over a job', told, transaction);
        });
        return { firmId, revision: number, design };
      });
      documents.keep(jobId, moved);
      watchers.tell(jobId, moved.revision);
      return moved.revision;
    },

    /**
     * Applies a batch to the latest revision. The same batch sent again is answered without being applied again; a batch
     * that touches what others changed since its base is refused with both values.
     */
    edit: async (person: Person, jobId: number, batch: wire.EditBatch): Promise<wire.Saved> => {
      if (!mayMake(person, batch.patches, now())) throw new RefusalError('NOT_ALLOWED');
      return queue.add(person, jobId, batch);
    },

    /** Keeps the whole document of a revision, because something now refers to it. */
    keepSnapshot: async (
      jobId: number,
      revision: number,
      design: Design,
      transaction: Transaction,
    ): Promise<void> => keepRevision(models, jobId, revision, JSON.stringify(design), { transaction }),
  };
}

/** How far ahead of the server's clock a device may be. */
const CLOCK_SLACK_MS = 5 * 60_000;

/** What an edit at a list of responsibilities puts there; undefined where it puts nothing that the list could hold. */
function responsibilityOf(list: string | undefined, entity: unknown): Acceptance | TableValue | undefined {
  const read = (list === 'tableValues' ? tableValueSchema : acceptanceSchema).safeParse(entity);
  return read.success ? read.data : undefined;
}

/** A responsibility carries the name of whoever takes it, and no time to come. It may be given back by each who may take it. */
function isOwnResponsibility(person: Person, edit: Edit, now: Date): boolean {
  const [list, ...within] = edit.path;
  if (!isResponsibility(edit) || edit.op === 'order') return false;
  const isOwn = (entity: unknown): boolean => {
    const taken = responsibilityOf(list, entity);
    return taken?.by === person.name && Date.parse(taken.at) <= now.getTime() + CLOCK_SLACK_MS;
  };
  if (edit.op === 'remove') return true;
  if (edit.op === 'insert') return isOwn(edit.entity);
  // The first of a list that was not there before, and that taken back.
  if (within.length > 0 || list !== 'tableValues') return false;
  if (edit.after === undefined) return true;
  return edit.before === undefined && Array.isArray(edit.after) && edit.after.every(isOwn);
}

const subjectWords = (taken: Acceptance | TableValue): string =>
  'table' in taken
    ? `table value ${taken.value} (${taken.table}): ${taken.reason}`
    : `${taken.check} of ${taken.subject.kind} ${taken.subject.id}: ${taken.reason}`;

/** What edits say about responsibility taken or given back, for the audit trail. */
function responsibilitiesIn(edits: readonly Edit[]): { action: string; subject: string }[] {
  return edits.filter(isResponsibility).flatMap((edit) => {
    if (edit.op === 'order') return [];
    const [list] = edit.path;
    const what = list === 'tableValues' ? 'a table value' : 'a finding';
    const told = (entities: unknown, isTaken: boolean) =>
      (Array.isArray(entities) ? entities : [entities]).flatMap((entity) => {
        const taken = responsibilityOf(list, entity);
        const verb = list === 'tableValues' ? 'put in' : 'accepted';
        const action = isTaken
          ? `${verb} ${what}`
          : list === 'tableValues'
            ? `took back ${what}`
            : 'took an acceptance back';
        return taken === undefined ? [] : [{ action, subject: subjectWords(taken) }];
      });
    if (edit.op === 'set') return [...told(edit.before, false), ...told(edit.after, true)];
    return told(edit.entity, edit.op === 'insert');
  });
}

/** What each role may change of a design: the designer all but responsibilities, the field notes, the approver responsibilities of their own name. */
function mayMake(person: Person, edits: readonly Edit[], now: Date): boolean {
  if (canEdit(person)) return edits.every(isDesignWork);
  if (canAccept(person)) return edits.every((edit) => isOwnResponsibility(person, edit, now));
  return canNote(person) && edits.every(isFieldNote);
}

/** An import brings a design, not the responsibility of people: what stands accepted in the job stays, nothing else comes in. */
function withResponsibilitiesOf({ tableValues: _, ...design }: Design, before: Design): Design {
  const { accepted, tableValues } = before;
  return { ...design, accepted, ...(tableValues === undefined ? {} : { tableValues }) };
}

export type Jobs = ReturnType<typeof jobs>;
