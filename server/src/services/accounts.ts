import { createHash, randomBytes } from 'node:crypto';
import { type peopleWire, POWERS, type Powers, type Role, roleSchema } from '@bastion/core';
import { Op } from 'sequelize';
import type { Models } from '../models/models.ts';
import type { UserRow } from '../models/users.ts';
import { RefusalError } from '../errors.ts';
import type { Audit } from './audit.ts';
import { hashPassword, isPassword, passwordProblem } from './passwords.ts';

/** Who is asking: a user with a firm. */
export interface Person {
  readonly id: number;
  readonly firmId: number;
  readonly firm: string;
  readonly name: string;
  readonly email: string;
  readonly role: Role;
}

/** A freshly opened session: the token goes into the cookie and nowhere else. */
export interface OpenSession {
  readonly token: string;
  readonly person: Person;
  readonly expiresAt: Date;
}

const SESSION_DAYS = 14;
/** For so long a session that was looked up is believed without asking the database again; what this server changes counts at once. */
const BELIEVED_MS = 1000;
const MOST_BELIEVED = 2000;
/** How exactly it is kept when somebody was last seen. */
const SEEN_EVERY_MS = 60_000;

export const digest = (token: string): string => createHash('sha256').update(token).digest('hex');

/** A password that cannot be taken is refused with its reason. */
export function refuseWeak(password: string, about: readonly string[]): void {
  const problem = passwordProblem(password, about);
  if (problem !== undefined)
    throw new RefusalError('PASSWORD_WEAK', { problems: [{ path: ['password'], message: problem }] });
}

export interface AccountOptions {
  readonly models: Models;
  readonly audit: Audit;
  readonly now: () => Date;
  /** Whether the sample people may come in at all. */
  readonly demo: boolean;
}

export function accounts({ models, audit, now, demo }: AccountOptions) {
  const believed = new Map<string, { readonly person: Person; readonly at: number }>();

  const mayComeIn = (user: UserRow): boolean => user.disabledAt === null && (demo || !user.demo);

  const personOf = async (user: UserRow): Promise<Person> => {
    const firm = await models.firms.findByPk(user.firmId, { rejectOnEmpty: true });
    return {
      id: user.id,
      firmId: user.firmId,
      firm: firm.name,
      name: user.name,
      email: user.email,
      role: roleSchema.parse(user.role),
    };
  };

  const openSession = async (user: UserRow, agent: string): Promise<OpenSession> => {
    const token = randomBytes(32).toString('base64url');
    const at = now();
    const expiresAt = new Date(at.getTime() + SESSION_DAYS * 86_400_000);
    // What has run out goes when somebody comes in.
    await models.sessions.destroy({ where: { expiresAt: { [Op.lte]: at } } });
    await models.sessions.create({
      tokenHash: digest(token),
      userId: user.id,
      expiresAt,
      publicId: randomBytes(12).toString('hex'),
      agent: agent.slice(0, 200),
      startedAt: at,
      seenAt: at,
    });
    const person = await personOf(user);
    await audit.add(person, 'signed in', agent.slice(0, 200));
    return { token, person, expiresAt };
  };

  return {
    openSession,

    signIn: async (email: string, password: string, agent: string): Promise<OpenSession> => {
      const user = await models.users.findOne({ where: { email } });
      const right = await isPassword(user?.passwordHash, password);
      if (user === null || !right || !mayComeIn(user)) {
        if (user !== null)
          await audit.add({ firmId: user.firmId, name: 'somebody', email: '' }, 'sign-in refused', email);
        throw new RefusalError('SIGN_IN_WRONG');
      }
      return openSession(user, agent);
    },

    signInDemo: async (userId: number, agent: string): Promise<OpenSession> => {
      const user = await models.users.findOne({ where: { id: userId, demo: true } });
      if (user === null || !mayComeIn(user)) throw new RefusalError('NOT_FOUND');
      return openSession(user, agent);
    },

    demoUsers: async (): Promise<{ id: number; name: string; role: Role }[]> => {
      const users = await models.users.findAll({ where: { demo: true }, order: ['id'] });
      return users.map((user) => ({ id: user.id, name: user.name, role: roleSchema.parse(user.role) }));
    },

    /** Sessions or people were changed: the next request of everybody is looked up again. */
    lookAgain: (): void => believed.clear(),

    whoHas: async (token: string): Promise<Person | undefined> => {
      const at = now();
      const known = believed.get(token);
      if (known !== undefined && at.getTime() >= known.at && at.getTime() - known.at < BELIEVED_MS)
        return known.person;
      believed.delete(token);
      const session = await models.sessions.findByPk(digest(token));
      if (session === null || session.expiresAt <= at) return undefined;
      const user = await models.users.findByPk(session.userId);
      if (user === null || !mayComeIn(user)) return undefined;
      if (session.seenAt === null || at.getTime() - session.seenAt.getTime() > SEEN_EVERY_MS)
        await models.sessions.update({ seenAt: at }, { where: { tokenHash: session.tokenHash } });
      const person = await personOf(user);
      if (believed.size >= MOST_BELIEVED) believed.clear();
      believed.set(token, { person, at: at.getTime() });
      return person;
    },

    signOut: async (token: string): Promise<void> => {
      believed.delete(token);
      await models.sessions.destroy({ where: { tokenHash: digest(token) } });
    },

    /** Own sessions, the newest first. */
    sessions: async (person: Person, token: string): Promise<peopleWire.OwnSession[]> => {
      const rows = await models.sessions.findAll({
        where: { userId: person.id, expiresAt: { [Op.gt]: now() } },
        order: [['startedAt', 'DESC']],
      });
      return rows.map((row) => ({
        id: row.publicId ?? '',
        agent: row.agent,
        startedAt: (row.startedAt ?? row.expiresAt).toISOString(),
        seenAt: (row.seenAt ?? row.startedAt ?? row.expiresAt).toISOString(),
        isThis: row.tokenHash === digest(token),
      }));
    },

    endSession: async (person: Person, publicId: string): Promise<void> => {
      const gone = await models.sessions.destroy({ where: { userId: person.id, publicId } });
      if (gone === 0) throw new RefusalError('NOT_FOUND');
      believed.clear();
      await audit.add(person, 'ended a session', publicId);
    },

    /** A new password ends every other session: whoever had the old one is out. */
    changePassword: async (person: Person, token: string, old: string, next: string): Promise<void> => {
      const user = await models.users.findByPk(person.id, { rejectOnEmpty: true });
      if (!(await isPassword(user.passwordHash, old))) throw new RefusalError('PASSWORD_WRONG');
      refuseWeak(next, [person.name, person.email, person.firm]);
      await user.update({ passwordHash: await hashPassword(next) });
      await models.sessions.destroy({
        where: { userId: person.id, tokenHash: { [Op.ne]: digest(token) } },
      });
      believed.clear();
      await audit.add(person, 'changed the password', '');
    },
  };
}

export type Accounts = ReturnType<typeof accounts>;

const powersOf = (person: Person): Powers => POWERS[person.role];

export const canEdit = (person: Person): boolean => powersOf(person).design;
export const canTest = (person: Person): boolean => powersOf(person).test;
/** May tick the delivery list, take photos and log clamp readings. */
export const canNote = (person: Person): boolean => powersOf(person).note;
/** May take responsibility for a finding by name: an approver's own power. */
export const canAccept = (person: Person): boolean => powersOf(person).accept;
export const canManage = (person: Person): boolean => powersOf(person).manage;
