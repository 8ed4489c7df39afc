import { createHash, randomBytes } from 'node:crypto';
import { hash, verify } from '@node-rs/argon2';
import { wire } from '@bastion/core';
import type { Models } from '../models/models.ts';
import type { UserRow } from '../models/users.ts';
import { RefusalError } from '../errors.ts';

/** Who is asking: a user with a firm. */
export interface Person {
  readonly id: number;
  readonly firmId: number;
  readonly firm: string;
  readonly name: string;
  readonly email: string;
  readonly role: wire.Role;
}

/** A freshly opened session: the token goes into the cookie and nowhere else. */
export interface OpenSession {
  readonly token: string;
  readonly person: Person;
  readonly expiresAt: Date;
}

export interface Accounts {
  signIn: (email: string, password: string) => Promise<OpenSession>;
  signInDemo: (userId: number) => Promise<OpenSession>;
  demoUsers: () => Promise<{ id: number; name: string; role: wire.Role }[]>;
  whoHas: (token: string) => Promise<Person | undefined>;
  signOut: (token: string) => Promise<void>;
}

const SESSION_DAYS = 14;
const digest = (token: string): string => createHash('sha256').update(token).digest('hex');

/** A hash nobody has the password to: checked when an address is unknown, so that both answers take as long. */
const NOBODY = hash(randomBytes(16).toString('hex'));

export const hashPassword = (password: string): Promise<string> => hash(password);

export function accounts(models: Models, now: () => Date): Accounts {
  const personOf = async (user: UserRow): Promise<Person> => {
    const firm = await models.firms.findByPk(user.firmId, { rejectOnEmpty: true });
    return {
      id: user.id,
      firmId: user.firmId,
      firm: firm.name,
      name: user.name,
      email: user.email,
      role: wire.role.parse(user.role),
    };
  };
  const openSession = async (user: UserRow): Promise<OpenSession> => {
    const token = randomBytes(32).toString('base64url');
    const expiresAt = new Date(now().getTime() + SESSION_DAYS * 86_400_000);
    await models.sessions.create({ tokenHash: digest(token), userId: user.id, expiresAt });
    return { token, person: await personOf(user), expiresAt };
  };
  return {
    signIn: async (email: string, password: string) => {
      const user = await models.users.findOne({ where: { email } });
      const right = await verify(user?.passwordHash ?? (await NOBODY), password);
      if (user === null || !right) throw new RefusalError('SIGN_IN_WRONG');
      return openSession(user);
    },
    signInDemo: async (userId: number) => {
      const user = await models.users.findOne({ where: { id: userId, demo: true } });
      if (user === null) throw new RefusalError('NOT_FOUND');
      return openSession(user);
    },
    demoUsers: async () => {
      const users = await models.users.findAll({ where: { demo: true }, order: ['id'] });
      return users.map((user) => ({ id: user.id, name: user.name, role: wire.role.parse(user.role) }));
    },
    whoHas: async (token: string): Promise<Person | undefined> => {
      const session = await models.sessions.findByPk(digest(token));
      if (session === null || session.expiresAt <= now()) return undefined;
      const user = await models.users.findByPk(session.userId);
      return user === null ? undefined : personOf(user);
    },
    signOut: async (token: string): Promise<void> => {
      await models.sessions.destroy({ where: { tokenHash: digest(token) } });
    },
  };
}

/** What each role may change. Everyone of a firm may look. */
export const canEdit = (person: Person): boolean => person.role === 'designer';
export const canTest = (person: Person): boolean => person.role === 'designer' || person.role === 'field';
/** May tick the delivery list, take photos and log clamp readings. */
export const canNote = (person: Person): boolean => canTest(person);
/** May take responsibility for a finding by name: an approver's own power. */
export const canAccept = (person: Person): boolean => person.role === 'approver';
