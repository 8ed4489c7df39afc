import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { Role } from '@bastion/core';
import type { Models } from '../models/models.ts';
import type { Person } from './accounts.ts';
import { hashPassword } from './passwords.ts';
import type { Jobs } from './jobs.ts';

const FIRM = 'Lantern Hill Electrical (sample)';

const PEOPLE: readonly { readonly name: string; readonly email: string; readonly role: Role }[] = [
  { name: 'Dana Wells', email: 'designer@demo.invalid', role: 'designer' },
  { name: 'Femi Okafor', email: 'field@demo.invalid', role: 'field' },
  { name: 'Ana Prieto', email: 'approver@demo.invalid', role: 'approver' },
  { name: 'Vic Moreau', email: 'viewer@demo.invalid', role: 'viewer' },
  { name: 'Noor Haddad', email: 'administrator@demo.invalid', role: 'administrator' },
];

const SAMPLE_JOBS = ['fernhollow.json', 'tern-rock.json', 'quillback.json'];

/** The password of every demo user; they exist only where the sample world was loaded. */
export const DEMO_PASSWORD = 'sample-password';

/** Loads the sample firm, its people and its jobs into an empty database, and does nothing in any other. */
export async function loadSampleWorld(models: Models, jobs: Jobs, examplesFolder: string): Promise<boolean> {
  if ((await models.firms.count()) > 0) {
    await addMissingPeople(models);
    return false;
  }
  const firm = await models.firms.create({ name: FIRM });
  const passwordHash = await hashPassword(DEMO_PASSWORD);
  await models.users.bulkCreate(
    PEOPLE.map((person) => ({ ...person, firmId: firm.id, passwordHash, demo: true })),
  );
  const designer = await models.users.findOne({ where: { role: 'designer' }, rejectOnEmpty: true });
  const author: Person = {
    id: designer.id,
    firmId: firm.id,
    firm: FIRM,
    name: designer.name,
    email: designer.email,
    role: 'designer',
  };
  for (const file of SAMPLE_JOBS) {
    await jobs.create(author, await readFile(join(examplesFolder, file), 'utf8'));
  }
  return true;
}

/** A sample world of an earlier version gets the people that have come since. */
async function addMissingPeople(models: Models): Promise<void> {
  const firm = await models.firms.findOne({ where: { name: FIRM } });
  if (firm === null) return;
  const known = await models.users.findAll({ where: { firmId: firm.id }, attributes: ['email'] });
  const missing = PEOPLE.filter(({ email }) => !known.some((one) => one.email === email));
  if (missing.length === 0) return;
  const passwordHash = await hashPassword(DEMO_PASSWORD);
  await models.users.bulkCreate(
    missing.map((person) => ({ ...person, firmId: firm.id, passwordHash, demo: true })),
  );
}
