import type { wire } from '@bastion/core';
import type { Database } from '../database.ts';
import { RefusalError } from '../errors.ts';
import type { LibraryRow } from '../models/library.ts';
import { LIBRARY_ITEM } from '../stored/kinds.ts';
import { canEdit, type Person } from './accounts.ts';
import type { Audit } from './audit.ts';

const entryOf = ({ id, addedBy }: LibraryRow, item: wire.LibraryItem): wire.LibraryEntry => ({
  id,
  item,
  addedBy,
});

/** Items that a firm keeps for its surveys, beside the sample library that everybody has. */
export function library({ models }: Database, now: () => Date, audit: Audit) {
  return {
    /** What the firm keeps. An entry that cannot be read is told, and takes no other with it. */
    list: async (person: Person): Promise<wire.Library> => {
      const rows = await models.library.findAll({ where: { firmId: person.firmId }, order: ['name'] });
      const read = rows.map((row) => ({ row, item: LIBRARY_ITEM.read(row.item) }));
      return {
        entries: read.flatMap(({ row, item }) => (item.ok ? [entryOf(row, item.value)] : [])),
        unreadable: read.flatMap(({ row, item }) =>
          item.ok ? [] : [`${row.name}: ${item.problems[0]?.message ?? ''}`],
        ),
      };
    },

    /** Adds an item; one of the same name is replaced. */
    put: async (person: Person, item: wire.LibraryItem): Promise<wire.LibraryEntry> => {
      if (!canEdit(person)) throw new RefusalError('NOT_ALLOWED');
      const values = {
        firmId: person.firmId,
        name: item.name,
        item: LIBRARY_ITEM.write(item),
        addedBy: person.name,
        addedAt: now(),
      };
      await models.library.upsert(values);
      const row = await models.library.findOne({
        where: { firmId: person.firmId, name: item.name },
        rejectOnEmpty: true,
      });
      return entryOf(row, item);
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
