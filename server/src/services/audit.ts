import { createHash } from 'node:crypto';
import { type Sequelize, Op, type Transaction } from 'sequelize';
import type { peopleWire } from '@bastion/core';
import type { Models } from '../models/models.ts';

/** Who does something: a person of a firm, the machine itself, or somebody who is not known. */
export interface Actor {
  readonly firmId: number | null;
  readonly name: string;
  readonly email: string;
}

export const THE_MACHINE: Actor = { firmId: null, name: 'the command line of the server', email: '' };

interface Entry {
  readonly firmId: number | null;
  readonly at: Date;
  readonly actor: string;
  readonly action: string;
  readonly subject: string;
}

/** h_n = SHA-256(h_{n-1} ‖ entry): an entry that is changed, left out or put in breaks every hash after it. */
function hashOf(before: string, { firmId, at, actor, action, subject }: Entry): string {
  const written = JSON.stringify([firmId, at.toISOString(), actor, action, subject]);
  return createHash('sha256').update(`${before}\n${written}`).digest('hex');
}

/** How many entries are read at a time. */
const PAGE = 1000;
const SHOWN = 300;

export type Checked =
  | { readonly intact: true; readonly entries: number }
  | { readonly intact: false; readonly entries: number; readonly told: string };

export function audit({ sequelize, models }: { sequelize: Sequelize; models: Models }, now: () => Date) {
  const append = async (entry: Entry, transaction: Transaction): Promise<void> => {
    const head = await models.auditHead.findByPk(1, {
      transaction,
      lock: transaction.LOCK.UPDATE,
      rejectOnEmpty: true,
    });
    const hash = hashOf(head.hash, entry);
    await models.audit.create({ ...entry, hash }, { transaction });
    await head.update({ count: head.count + 1, hash }, { transaction });
  };

  return {
    /** Adds an entry; with a transaction, it stands and falls with what it tells. */
    add: async (actor: Actor, action: string, subject: string, transaction?: Transaction): Promise<void> => {
      const entry: Entry = {
        firmId: actor.firmId,
        // The database keeps milliseconds; the hash is over what can be read back.
        at: new Date(now().getTime()),
        actor: actor.email === '' ? actor.name : `${actor.name} <${actor.email}>`,
        action,
        subject: subject.slice(0, 2000),
      };
      if (transaction !== undefined) await append(entry, transaction);
      else await sequelize.transaction((own) => append(entry, own));
    },

    /** Follows the whole chain. */
    check: async (): Promise<Checked> => {
      let before = '';
      let count = 0;
      let lastId = 0;
      for (;;) {
        const rows = await models.audit.findAll({
          where: { id: { [Op.gt]: lastId } },
          order: ['id'],
          limit: PAGE,
        });
        for (const row of rows) {
          const hash = hashOf(before, row);
          count += 1;
          if (hash !== row.hash)
            return { intact: false, entries: count, told: `entry ${row.id} is not what was written` };
          before = hash;
          lastId = row.id;
        }
        if (rows.length < PAGE) break;
      }
      const head = await models.auditHead.findByPk(1, { rejectOnEmpty: true });
      if (head.count !== count || head.hash !== before)
        return {
          intact: false,
          entries: count,
          told: `${head.count} entries were written, ${count} are left`,
        };
      return { intact: true, entries: count };
    },

    latest: async (firmId: number): Promise<peopleWire.AuditEntry[]> => {
      const rows = await models.audit.findAll({ where: { firmId }, order: [['id', 'DESC']], limit: SHOWN });
      return rows.map(({ id, at, actor, action, subject }) => ({
        id,
        at: at.toISOString(),
        actor,
        action,
        subject,
      }));
    },
  };
}

export type Audit = ReturnType<typeof audit>;
