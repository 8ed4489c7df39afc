import { randomBytes } from 'node:crypto';
import { type peopleWire, roleSchema } from '@bastion/core';
import { Op, type Sequelize, type Transaction, UniqueConstraintError } from 'sequelize';
import { RefusalError } from '../errors.ts';
import type { Models } from '../models/models.ts';
import type { UserRow } from '../models/users.ts';
import { type Accounts, canManage, digest, type OpenSession, type Person, refuseWeak } from './accounts.ts';
import type { Actor, Audit } from './audit.ts';
import { hashPassword } from './passwords.ts';

const HOUR_MS = 3_600_000;
/** How long each link works. */
const LASTS_MS = { invite: 7 * 24 * HOUR_MS, reset: 24 * HOUR_MS, first: 365 * 24 * HOUR_MS } as const;
type TicketKind = keyof typeof LASTS_MS;

/** Characters that nobody mistakes for each other when reading a code off a terminal. */
const CODE_LETTERS = 'ABCDEFGHJKMNPQRSTUVWXYZ23456789';

function newCode(): string {
  const letters = Array.from(randomBytes(16), (byte) => CODE_LETTERS[byte % CODE_LETTERS.length]).join('');
  return letters.replace(/(.{4})(?=.)/g, '$1-');
}

const plainCode = (code: string): string => code.trim().toUpperCase();

export interface PeopleOptions {
  readonly sequelize: Sequelize;
  readonly models: Models;
  readonly accounts: Accounts;
  readonly audit: Audit;
  readonly now: () => Date;
  readonly demo: boolean;
}

/** Who belongs to a firm and how they come in: the first administrator, invitations, roles, resets. */
export function people({ sequelize, models, accounts, audit, now, demo }: PeopleOptions) {
  const firstIsNeeded = async (): Promise<boolean> =>
    !demo && (await models.users.count({ where: { demo: false } })) === 0;

  /** A new link replaces the ones before it, so that only the last one told to somebody works. */
  const ticket = async (
    kind: TicketKind,
    userId: number | null,
    token: string,
    transaction?: Transaction,
  ): Promise<Date> => {
    const expiresAt = new Date(now().getTime() + LASTS_MS[kind]);
    const options = transaction === undefined ? {} : { transaction };
    await models.tickets.destroy({ where: userId === null ? { kind } : { userId }, ...options });
    await models.tickets.create({ tokenHash: digest(token), kind, userId, expiresAt }, options);
    return expiresAt;
  };

  const link = async (
    kind: 'invite' | 'reset',
    user: UserRow,
    transaction?: Transaction,
  ): Promise<peopleWire.OneTimeLink> => {
    const token = randomBytes(24).toString('base64url');
    const expiresAt = await ticket(kind, user.id, token, transaction);
    return { path: `/join/${token}`, expiresAt: expiresAt.toISOString() };
  };

  const ofFirm = async (firmId: number, id: number, transaction?: Transaction): Promise<UserRow> => {
    const user = await models.users.findOne({
      where: { id, firmId },
      ...(transaction === undefined ? {} : { transaction, lock: transaction.LOCK.UPDATE }),
    });
    if (user === null) throw new RefusalError('NOT_FOUND');
    return user;
  };

  const change = async (
    actor: Actor,
    firmId: number,
    id: number,
    { role, disabled, licence, licenceBody }: peopleWire.PersonChange,
  ): Promise<void> => {
    await sequelize.transaction(async (transaction) => {
      // All administrators are held, in order: two who shut each other out at once do not both succeed.
      await models.users.findAll({
        where: { firmId, role: 'administrator' },
        order: ['id'],
        transaction,
        lock: transaction.LOCK.UPDATE,
      });
      const user = await ofFirm(firmId, id, transaction);
      const told: string[] = [];
      if (role !== undefined && role !== user.role) told.push(`role ${user.role} to ${role}`);
      if (disabled === true && user.disabledAt === null) told.push('disabled');
      if (disabled === false && user.disabledAt !== null) told.push('enabled');
      if (licence !== undefined || licenceBody !== undefined) told.push('licence');
      await user.update(
        {
          ...(role === undefined ? {} : { role }),
          ...(disabled === undefined ? {} : { disabledAt: disabled ? (user.disabledAt ?? now()) : null }),
          ...(licence === undefined ? {} : { licence }),
          ...(licenceBody === undefined ? {} : { licenceBody }),
        },
        { transaction },
      );
      const left = await models.users.count({
        where: { firmId, role: 'administrator', disabledAt: null, passwordHash: { [Op.ne]: null } },
        transaction,
      });
      if (left === 0 && (role !== undefined || disabled === true))
        throw new RefusalError('LAST_ADMINISTRATOR');
      // Who is out, or is something else now, comes in anew.
      if (disabled === true || told.some((one) => one.startsWith('role')))
        await models.sessions.destroy({ where: { userId: id }, transaction });
      if (told.length > 0)
        await audit.add(actor, 'changed a person', `${user.email}: ${told.join(', ')}`, transaction);
    });
    accounts.lookAgain();
  };

  const invite = async (
    actor: Actor,
    firmId: number,
    { name, email, role, licence, licenceBody }: peopleWire.Invitation,
  ): Promise<peopleWire.OneTimeLink> => {
    try {
      return await sequelize.transaction(async (transaction) => {
        const known = await models.users.findOne({ where: { email }, transaction });
        if (known !== null) throw new RefusalError('EMAIL_TAKEN');
        const user = await models.users.create(
          {
            firmId,
            name,
            email,
            role,
            passwordHash: null,
            demo: false,
            licence: licence ?? null,
            licenceBody: licenceBody ?? null,
          },
          { transaction },
        );
        await audit.add(actor, 'invited', `${email} as ${role}`, transaction);
        return link('invite', user, transaction);
      });
    } catch (error) {
      if (error instanceof UniqueConstraintError) throw new RefusalError('EMAIL_TAKEN');
      throw error;
    }
  };

  const reset = async (actor: Actor, firmId: number, id: number): Promise<peopleWire.OneTimeLink> => {
    const user = await ofFirm(firmId, id);
    const made = await link(user.passwordHash === null ? 'invite' : 'reset', user);
    await audit.add(actor, 'made a one-time link', user.email);
    return made;
  };

  const openTicket = async (token: string) => {
    const found = await models.tickets.findByPk(digest(token));
    if (found === null || found.userId === null || found.expiresAt <= now())
      throw new RefusalError('LINK_SPENT');
    const user = await models.users.findByPk(found.userId);
    if (user === null || user.disabledAt !== null || (user.demo && !demo))
      throw new RefusalError('LINK_SPENT');
    return { found, user };
  };

  return {
    firstIsNeeded,

    /** A code for the first administrator, in the place of every earlier one; undefined where there is one already. */
    firstCode: async (): Promise<string | undefined> => {
      if (!(await firstIsNeeded())) return undefined;
      const code = newCode();
      await ticket('first', null, code);
      return code;
    },

    makeFirst: async (
      { code, firm, name, email, password }: peopleWire.FirstAdministrator,
      agent: string,
    ): Promise<OpenSession> => {
      const found = await models.tickets.findByPk(digest(plainCode(code)));
      if (found?.kind !== 'first' || found.expiresAt <= now() || !(await firstIsNeeded()))
        throw new RefusalError('CODE_WRONG');
      refuseWeak(password, [firm, name, email]);
      const passwordHash = await hashPassword(password);
      const user = await sequelize.transaction(async (transaction) => {
        // Whoever spends the code first makes the firm; the other finds it gone.
        const spent = await models.tickets.destroy({ where: { tokenHash: found.tokenHash }, transaction });
        if (spent === 0) throw new RefusalError('CODE_WRONG');
        const made = await models.firms.create({ name: firm }, { transaction });
        const row = { firmId: made.id, name, email, role: 'administrator', passwordHash, demo: false };
        const created = await models.users.create(row, { transaction });
        await audit.add({ firmId: made.id, name, email }, 'founded the firm', firm, transaction);
        return created.id;
      });
      return accounts.openSession(await models.users.findByPk(user, { rejectOnEmpty: true }), agent);
    },

    list: async (person: Person): Promise<peopleWire.PersonRow[]> => {
      if (!canManage(person)) throw new RefusalError('NOT_ALLOWED');
      const users = await models.users.findAll({ where: { firmId: person.firmId }, order: ['name'] });
      const seen = await models.sessions.findAll({ where: { userId: users.map(({ id }) => id) } });
      return users.map((user) => {
        const times = seen.flatMap((row) => (row.userId === user.id ? (row.seenAt?.getTime() ?? []) : []));
        return {
          id: user.id,
          name: user.name,
          email: user.email,
          role: roleSchema.parse(user.role),
          licence: user.licence,
          licenceBody: user.licenceBody,
          disabled: user.disabledAt !== null,
          invited: user.passwordHash === null,
          lastSeenAt: times.length === 0 ? null : new Date(Math.max(...times)).toISOString(),
        };
      });
    },

    invite: async (person: Person, given: peopleWire.Invitation): Promise<peopleWire.OneTimeLink> => {
      if (!canManage(person)) throw new RefusalError('NOT_ALLOWED');
      return invite(person, person.firmId, given);
    },

    change: async (person: Person, id: number, given: peopleWire.PersonChange): Promise<void> => {
      if (!canManage(person)) throw new RefusalError('NOT_ALLOWED');
      await change(person, person.firmId, id, given);
    },

    reset: async (person: Person, id: number): Promise<peopleWire.OneTimeLink> => {
      if (!canManage(person)) throw new RefusalError('NOT_ALLOWED');
      return reset(person, person.firmId, id);
    },

    /** The same without a person, for the command line of the machine itself. */
    onTheMachine: { change, invite, reset },

    ticket: async (token: string): Promise<peopleWire.TicketInfo> => {
      const { found, user } = await openTicket(token);
      const firm = await models.firms.findByPk(user.firmId, { rejectOnEmpty: true });
      return {
        kind: found.kind === 'reset' ? 'reset' : 'invite',
        name: user.name,
        email: user.email,
        firm: firm.name,
      };
    },

    /** Spends a link: sets the password, ends what sessions there were, and comes in. */
    takeTicket: async (token: string, password: string, agent: string): Promise<OpenSession> => {
      const { found, user } = await openTicket(token);
      const firm = await models.firms.findByPk(user.firmId, { rejectOnEmpty: true });
      refuseWeak(password, [user.name, user.email, firm.name]);
      const passwordHash = await hashPassword(password);
      await sequelize.transaction(async (transaction) => {
        const spent = await models.tickets.destroy({ where: { tokenHash: found.tokenHash }, transaction });
        if (spent === 0) throw new RefusalError('LINK_SPENT');
        await user.update({ passwordHash }, { transaction });
        await models.sessions.destroy({ where: { userId: user.id }, transaction });
        const { firmId, name, email } = user;
        const action = found.kind === 'reset' ? 'reset the password' : 'took the invitation';
        await audit.add({ firmId, name, email }, action, '', transaction);
      });
      accounts.lookAgain();
      return accounts.openSession(user, agent);
    },

    trail: async (person: Person): Promise<peopleWire.AuditPage> => {
      if (!canManage(person)) throw new RefusalError('NOT_ALLOWED');
      const [entries, checked] = await Promise.all([audit.latest(person.firmId), audit.check()]);
      return {
        entries,
        intact: checked.intact,
        told: checked.intact ? `All ${checked.entries} entries are as they were written.` : checked.told,
      };
    },
  };
}

export type People = ReturnType<typeof people>;
