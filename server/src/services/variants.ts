import type { wire } from '@bastion/core';
import { Op } from 'sequelize';
import type { Database } from '../database.ts';
import { RefusalError } from '../errors.ts';
import { canEdit, type Person } from './accounts.ts';
import type { Audit } from './audit.ts';
import type { Jobs } from './jobs.ts';

/** More variants than anybody can compare. */
const MOST_VARIANTS = 8;
const MAIN_NAME = 'Main';

/** Variants of a job: each a design of its own with its own revisions, kept together by the job they were taken from. */
export function variants({ models }: Database, jobService: Jobs, audit: Audit) {
  const mainOf = async (person: Person, jobId: number): Promise<number> => {
    await jobService.latestRevision(person, jobId);
    const job = await models.jobs.findByPk(jobId, { attributes: ['id', 'variantOf'], rejectOnEmpty: true });
    return job.variantOf ?? job.id;
  };

  return {
    list: async (person: Person, jobId: number): Promise<wire.Variant[]> => {
      const mainId = await mainOf(person, jobId);
      const rows = await models.jobs.findAll({
        where: { firmId: person.firmId, [Op.or]: [{ id: mainId }, { variantOf: mainId }] },
        attributes: ['id', 'variantOf', 'variantName', 'revision'],
        order: ['id'],
      });
      return rows.map((row) => ({
        jobId: row.id,
        name: row.variantName === '' ? MAIN_NAME : row.variantName,
        isMain: row.variantOf === null,
        revision: row.revision,
      }));
    },

    /** Takes a variant from a design as it stands now. */
    create: async (person: Person, jobId: number, name: string): Promise<number> => {
      if (!canEdit(person)) throw new RefusalError('NOT_ALLOWED');
      const mainId = await mainOf(person, jobId);
      const others = await models.jobs.findAll({ where: { variantOf: mainId }, attributes: ['variantName'] });
      if (others.length + 1 >= MOST_VARIANTS) throw new RefusalError('TOO_MANY_VARIANTS');
      if (
        [MAIN_NAME, ...others.map((one) => one.variantName)].some(
          (one) => one.toLowerCase() === name.toLowerCase(),
        )
      )
        throw new RefusalError('VARIANT_NAME_TAKEN');
      const { design } = await jobService.design(person, jobId);
      return jobService.create(person, JSON.stringify(design), { variantOf: mainId, variantName: name });
    },

    /** Takes a variant away with all its revisions. The main design of a job stays; so does one that was tested. */
    remove: async (person: Person, jobId: number): Promise<void> => {
      if (!canEdit(person)) throw new RefusalError('NOT_ALLOWED');
      const mainId = await mainOf(person, jobId);
      const tested = await models.runs.count({ where: { jobId } });
      if (mainId === jobId || tested > 0) throw new RefusalError('VARIANT_STAYS');
      await models.jobs.destroy({ where: { id: jobId } });
      await audit.add(person, 'deleted a variant', `job ${jobId}`);
    },
  };
}

export type Variants = ReturnType<typeof variants>;
