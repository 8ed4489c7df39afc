import { roleSchema } from '@bastion/core';
import { backup, BackupRefused, restore } from './backup.ts';
import { filesFolderOf, readConfig } from './config.ts';
import { openDatabase } from './database.ts';
import { RefusalError } from './errors.ts';
import type { UserRow } from './models/users.ts';
import { accounts } from './services/accounts.ts';
import { audit, THE_MACHINE } from './services/audit.ts';
import { people } from './services/people.ts';

const USAGE = `bastion user list
bastion user add EMAIL NAME ROLE [FIRM]     prints a one-time link
bastion user reset EMAIL                    prints a one-time link
bastion user role EMAIL ROLE
bastion user disable EMAIL
bastion user enable EMAIL
bastion backup --out FILE                   everything of this server, while it runs
bastion restore FILE [--replace]            into an empty place, or with consent in the place of what is there
bastion audit                               follows the audit trail; exit code 1 where it is not as it was written

ROLE is one of ${roleSchema.options.join(', ')}. FIRM is its name, where the server has several.
`;

class Sentence extends Error {}

/** What is asked for on the machine itself: for those who have lost every password. Answers with an exit code. */
export async function administer(
  args: readonly string[],
  env: Readonly<Record<string, string | undefined>>,
  out: (text: string) => void,
): Promise<number> {
  const config = readConfig(env);
  const database = await openDatabase(config.databaseUrl);
  try {
    const { models, sequelize } = database;
    const now = (): Date => new Date();
    const trail = audit(database, now);
    const accountService = accounts({ models, audit: trail, now, demo: config.demo });
    const { onTheMachine } = people({
      sequelize,
      models,
      accounts: accountService,
      audit: trail,
      now,
      demo: config.demo,
    });
    const userOf = async (email: string | undefined): Promise<UserRow> => {
      const found = await models.users.findOne({ where: { email: email ?? '' } });
      if (found === null) throw new Sentence(`There is nobody of the address "${email ?? ''}".`);
      return found;
    };
    const firmOf = async (name: string | undefined): Promise<number> => {
      const firms = await models.firms.findAll(name === undefined ? {} : { where: { name } });
      const [only, ...others] = firms;
      if (only === undefined)
        throw new Sentence(
          name === undefined
            ? 'There is no firm yet: start the server, and sign up with the code it prints.'
            : `There is no firm called "${name}".`,
        );
      if (others.length > 0)
        throw new Sentence(`Say which firm: ${firms.map((one) => one.name).join('; ')}.`);
      return only.id;
    };
    const roleOf = (text: string | undefined) => {
      const role = roleSchema.safeParse(text);
      if (!role.success) throw new Sentence(`"${text ?? ''}" is no role: ${roleSchema.options.join(', ')}.`);
      return role.data;
    };
    const [noun, verb, email, ...rest] = args;
    const place = { databaseUrl: config.databaseUrl, filesFolder: filesFolderOf(config) };
    if (noun === 'backup' && verb === '--out' && email !== undefined) {
      out(`${email}: ${await backup(place, email)} lines.\n`);
      return 0;
    }
    if (noun === 'restore' && verb !== undefined) {
      out(`${verb}: ${await restore(place, verb, email === '--replace')} lines put back.\n`);
      return 0;
    }
    if (noun === 'audit') {
      const checked = await trail.check();
      out(
        checked.intact
          ? `All ${checked.entries} entries are as they were written.\n`
          : `The audit trail is broken: ${checked.told}.\n`,
      );
      return checked.intact ? 0 : 1;
    }
    if (noun !== 'user') {
      out(USAGE);
      return 2;
    }
    switch (verb) {
      case 'list': {
        for (const user of await models.users.findAll({ order: ['firmId', 'name'] })) {
          const state =
            user.disabledAt !== null ? 'disabled' : user.passwordHash === null ? 'invited' : 'active';
          out(`${user.email}\t${user.name}\t${user.role}\t${state}\n`);
        }
        return 0;
      }
      case 'add': {
        const [name, role, firm] = rest;
        const firmId = await firmOf(firm);
        const given = { name: name ?? '', email: email ?? '', role: roleOf(role) };
        const { path, expiresAt } = await onTheMachine.invite({ ...THE_MACHINE, firmId }, firmId, given);
        out(`${path}\nworks once, until ${expiresAt}\n`);
        return 0;
      }
      case 'reset': {
        const user = await userOf(email);
        const actor = { ...THE_MACHINE, firmId: user.firmId };
        const { path, expiresAt } = await onTheMachine.reset(actor, user.firmId, user.id);
        out(`${path}\nworks once, until ${expiresAt}\n`);
        return 0;
      }
      case 'role':
      case 'disable':
      case 'enable': {
        const user = await userOf(email);
        const change = verb === 'role' ? { role: roleOf(rest[0]) } : { disabled: verb === 'disable' };
        await onTheMachine.change({ ...THE_MACHINE, firmId: user.firmId }, user.firmId, user.id, change);
        out(`${user.email}: ${verb === 'role' ? `is ${rest[0] ?? ''}` : `${verb}d`}.\n`);
        return 0;
      }
      default:
        out(USAGE);
        return 2;
    }
  } catch (error) {
    const isTold =
      error instanceof Sentence || error instanceof RefusalError || error instanceof BackupRefused;
    if (!isTold) throw error;
    out(`${error.message}\n`);
    return 2;
  } finally {
    await database.sequelize.close();
  }
}
