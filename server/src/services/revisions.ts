import { type Edit, pageOf, STAGES, type wire } from '@bastion/core';
import { Op } from 'sequelize';
import { RefusalError } from '../errors.ts';
import type { Models } from '../models/models.ts';
import { EDITS } from '../stored/kinds.ts';
import type { Person } from './accounts.ts';
import type { Audit } from './audit.ts';
import type { Jobs } from './jobs.ts';
import { advanced, type OpenDocuments } from './openDocuments.ts';

const A_PAGE = 50;

const STAGE_TITLES: ReadonlyMap<string, string> = new Map(STAGES.map(({ key, title }) => [key, title]));

/** The pages on which the places of edits are typed, in the order of the work. */
function pagesOf(edits: readonly Edit[]): string[] {
  const keys = new Set(edits.map(({ path }) => pageOf(path).split('/')[0] ?? ''));
  return [...STAGE_TITLES].flatMap(([key, title]) => (keys.has(key) ? [title] : []));
}

export interface RevisionOptions {
  readonly models: Models;
  readonly jobs: Jobs;
  readonly documents: OpenDocuments;
  readonly audit: Audit;
}

/** Every saved state of a job: listed, opened as it was, and brought back as a new one. */
export function revisions({ models, jobs, documents, audit }: RevisionOptions) {
  /** The design at a revision: the whole document that was kept before it, with the edits since. */
  const at = async (jobId: number, revision: number): Promise<wire.RevisionDocument> => {
    const kept = await models.revisions.findOne({
      where: { jobId, number: { [Op.lte]: revision }, document: { [Op.ne]: null } },
      order: [['number', 'DESC']],
    });
    if (kept?.document == null) throw new RefusalError('NOT_FOUND');
    const edits = await documents.editsBetween(jobId, kept.number, revision);
    const design = await documents.stored(
      jobId,
      JSON.stringify(advanced(jobId, JSON.parse(kept.document), edits)),
    );
    return { revision, name: design.name, document: design };
  };

  const known = async (person: Person, jobId: number, revision: number): Promise<void> => {
    if (revision > (await jobs.latestRevision(person, jobId))) throw new RefusalError('NOT_FOUND');
  };

  return {
    list: async (person: Person, jobId: number, before?: number): Promise<wire.RevisionList> => {
      const latest = await jobs.latestRevision(person, jobId);
      const upTo = Math.min(latest, (before ?? latest + 1) - 1);
      const rows = await models.edits.findAll({
        where: { jobId, revision: { [Op.lte]: upTo } },
        order: [['revision', 'DESC']],
        limit: A_PAGE,
      });
      const listed = rows.map((row): wire.RevisionRow => {
        const read = EDITS.read(row.patches);
        const edits = read.ok ? read.value.edits : [];
        return {
          revision: row.revision,
          by: row.author,
          at: row.at?.toISOString() ?? '',
          changes: edits.length,
          pages: pagesOf(edits),
        };
      });
      const last = listed.at(-1)?.revision ?? upTo + 1;
      if (listed.length === A_PAGE) return { rows: listed, before: last };
      // The first revision was made whole, by nobody's edit.
      const first = await models.revisions.findOne({ where: { jobId, number: 1 } });
      const made =
        first === null || last <= 1
          ? []
          : [{ revision: 1, by: first.author, at: first.at.toISOString(), changes: 0, pages: [] }];
      return { rows: [...listed, ...made], before: null };
    },

    open: async (person: Person, jobId: number, revision: number): Promise<wire.RevisionDocument> => {
      await known(person, jobId, revision);
      return at(jobId, revision);
    },

    /** Makes the design of a revision the latest one. What was there stays as a revision as well. */
    restore: async (person: Person, jobId: number, revision: number, replaces: number): Promise<number> => {
      await known(person, jobId, revision);
      const { document } = await at(jobId, revision);
      const made = await jobs.replace(person, jobId, JSON.stringify(document), replaces);
      await audit.add(person, 'restored a revision', `job ${jobId}: revision ${revision} as ${made}`);
      return made;
    },
  };
}

export type Revisions = ReturnType<typeof revisions>;
