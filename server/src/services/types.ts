import { type EquipmentType, readDesign, SAMPLE_TYPES, usedTypeIds, type wire } from '@bastion/core';
import type { Transaction } from 'sequelize';
import type { Database } from '../database.ts';
import { RefusalError } from '../errors.ts';
import type { TypeRow } from '../models/types.ts';
import { TYPE, USED_TYPES } from '../stored/kinds.ts';
import { canEdit, type Person } from './accounts.ts';
import type { Audit } from './audit.ts';
import type { Jobs } from './jobs.ts';
import { onceMore } from './taken.ts';

/** Equipment types that a firm keeps beside the samples. A version that is kept is never changed: a new one is added. */
export function types({ sequelize, models }: Database, jobService: Jobs, now: () => Date, audit: Audit) {
  /** How many jobs use each type. What a job uses is noted when it is saved; older rows are read once. */
  const usage = async (firmId: number): Promise<Map<string, number>> => {
    await jobService.settle(firmId);
    const rows = await models.jobs.findAll({
      where: { firmId },
      attributes: ['id', 'variantOf', 'usedTypes'],
    });
    const jobsOf = new Map<string, Set<number>>();
    for (const row of rows) {
      const noted = row.usedTypes === null ? undefined : USED_TYPES.read(row.usedTypes);
      const used = noted?.ok === true ? noted.value : await noteUsed(row.id);
      for (const id of used) jobsOf.set(id, (jobsOf.get(id) ?? new Set()).add(row.variantOf ?? row.id));
    }
    return new Map([...jobsOf].map(([id, jobs]) => [id, jobs.size]));
  };

  const noteUsed = async (jobId: number): Promise<string[]> => {
    const job = await models.jobs.findByPk(jobId, { rejectOnEmpty: true });
    // A document that is a few edits behind names what it used then; the next checkpoint notes the rest.
    const read = readDesign(JSON.parse(job.document), SAMPLE_TYPES);
    const used = read.ok ? [...usedTypeIds(read.value)] : [];
    await job.update({ usedTypes: USED_TYPES.write(used) });
    return used;
  };

  const list = async (person: Person): Promise<wire.Catalogue> => {
    const rows = await models.types.findAll({
      where: { firmId: person.firmId },
      order: [
        ['typeId', 'ASC'],
        ['version', 'DESC'],
      ],
    });
    const latest = new Map<string, TypeRow>();
    for (const row of rows) if (!latest.has(row.typeId)) latest.set(row.typeId, row);
    const read = [...latest.values()].map((row) => ({ row, type: TYPE.read(row.body) }));
    return {
      own: read.flatMap(({ row, type }) =>
        type.ok ? [{ type: type.value, addedBy: row.addedBy, addedAt: row.addedAt.toISOString() }] : [],
      ),
      unreadable: read.flatMap(({ row, type }) =>
        type.ok ? [] : [`${row.typeId}: ${type.problems[0]?.message ?? ''}`],
      ),
      usage: Object.fromEntries(await usage(person.firmId)),
    };
  };

  return {
    list,

    /** Keeps types: each new, or the next version of one that is kept. All of them, or none. */
    keep: async (person: Person, kept: readonly EquipmentType[]): Promise<wire.Catalogue> => {
      if (!canEdit(person)) throw new RefusalError('NOT_ALLOWED');
      const samples = new Set(SAMPLE_TYPES.map((type) => type.id));
      // In one order, whoever sends them in which: two that keep the same types seldom lock each other out, and then once more.
      const inOrder = [...kept.entries()].sort(([, a], [, b]) => (a.id < b.id ? -1 : 1));
      const keepAll = async (transaction: Transaction): Promise<void> => {
        for (const [index, type] of inOrder) {
          const path = ['types', index];
          if (samples.has(type.id))
            throw new RefusalError('TYPE_IS_SAMPLE', {
              problems: [{ path, message: `“${type.id}” is a sample` }],
            });
          const latest = await models.types.findOne({
            where: { firmId: person.firmId, typeId: type.id },
            order: [['version', 'DESC']],
            transaction,
            lock: transaction.LOCK.UPDATE,
          });
          const before = latest === null ? undefined : TYPE.mustRead(latest.body);
          if (type.version !== (before?.version ?? 0) + 1)
            throw new RefusalError('TYPE_CHANGED', {
              problems: [
                {
                  path,
                  message: `${type.name} is at version ${before?.version ?? 0}, not ${type.version - 1}`,
                },
              ],
            });
          if (before !== undefined && before.kind !== type.kind)
            throw new RefusalError('TYPE_CHANGED', {
              problems: [{ path, message: `${before.name} is a ${before.kind}, not a ${type.kind}` }],
            });
          await models.types.create(
            {
              firmId: person.firmId,
              typeId: type.id,
              version: type.version,
              body: TYPE.write(type),
              addedBy: person.name,
              addedAt: now(),
            },
            { transaction },
          );
        }
      };
      await onceMore(() => sequelize.transaction(keepAll));
      return list(person);
    },

    /** Takes a type out of the catalogue with all its versions. Jobs keep their copies, so only unused ones go. */
    remove: async (person: Person, typeId: string): Promise<void> => {
      if (!canEdit(person)) throw new RefusalError('NOT_ALLOWED');
      if (((await usage(person.firmId)).get(typeId) ?? 0) > 0) throw new RefusalError('TYPE_IN_USE');
      const gone = await models.types.destroy({ where: { firmId: person.firmId, typeId } });
      if (gone === 0) throw new RefusalError('NOT_FOUND');
      await audit.add(person, 'deleted a type', typeId);
    },
  };
}

export type Types = ReturnType<typeof types>;
