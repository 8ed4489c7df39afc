import { wire } from '@bastion/core';
import type { Database } from '../database.ts';
import { RefusalError } from '../errors.ts';
import type { LibraryRow } from '../models/library.ts';
import { canEdit, type Person } from './accounts.ts';
import type { Audit } from './audit.ts';

const entryOf = (row: LibraryRow): wire.LibraryEntry => ({
  id: row.id,
  item: wire.libraryItem.parse(JSON.parse(row.item)),
  addedBy: row.addedBy,
});

/** Items that a firm keeps for its surveys, beside the sample library that everybody has. */
export function library({ models }: Database, now: () => Date, audit: Audit) {
  return {
    list: async (person: Person): Promise<wire.LibraryEntry[]> =>
      (await models.library.findAll({ where: { firmId: person.firmId }, order: ['name'] })).map(entryOf),

    /** Adds an item; one of the same name is replaced. */
    put: async (person: Person, item: wire.LibraryItem): Promise<wire.LibraryEntry> => {
      if (!canEdit(person)) throw new RefusalError('NOT_ALLOWED');
      const values = {
        firmId: person.firmId,
        name: item.name,
        item: JSON.stringify(item),
        addedBy: person.name,
        addedAt: now(),
      };
      await models.library.upsert(values);
      const row = await models.library.findOne({
        where: { firmId: person.firmId, name: item.name },
        rejectOnEmpty: true,
      });
      return entryOf(row);
    },

    remove: async (person: Person, id: number): Promise<void> => {
      if (!canEdit(person)) throw new RefusalError('NOT_ALLOWED');
      const gone = await models.library.destroy({ where: { id, firmId: person.firmId } });
      if (gone === 0) throw new RefusalError('NOT_FOUND');
      await audit.add(person, 'deleted a library entry', String(id));
    },
  };
}

export type Library = ReturnType<typeof library>;
