import { randomBytes } from 'node:crypto';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { SAMPLE_TYPES, readDesign, type Design, wire } from '@bastion/core';
import type { FastifyInstance, LightMyRequestResponse } from 'fastify';
import { createConnection } from 'mariadb';
import { buildApp } from '../app.ts';
import type { LogSink } from '../log.ts';
import { type Database, openDatabase } from '../database.ts';
import { hashPassword } from '../services/passwords.ts';

/** A server of its own on a database of its own, on the real MariaDB that the test command starts. */
export interface Harness {
  readonly app: FastifyInstance;
  readonly database: Database;
  /** Signs in and returns what makes requests as that person. */
  readonly as: (email: string) => Promise<Caller>;
  readonly close: () => Promise<void>;
}

type Method = 'GET' | 'POST' | 'PUT' | 'DELETE';
export type Caller = (method: Method, url: string, body?: unknown) => Promise<LightMyRequestResponse>;

export const PASSWORD = 'correct horse';
const FIRMS = {
  north: ['administrator', 'designer', 'field', 'approver', 'viewer'],
  south: ['administrator', 'designer'],
} as const;

/** The moment at which all tests happen. */
export const NOW = new Date('2026-03-01T10:00:00Z');

interface HarnessOptions {
  readonly demo?: boolean;
  readonly now?: () => Date;
  readonly trustedProxies?: readonly string[];
  readonly photosIn?: 'folder' | 'database';
  readonly metricsToken?: string;
  readonly log?: LogSink;
  readonly site?: { readonly url: string; readonly token: string };
  readonly liveHosts?: readonly string[];
  /** A server on which nobody is yet. */
  readonly empty?: boolean;
}

export async function startHarness(options: HarnessOptions = {}): Promise<Harness> {
  const root = process.env.BASTION_TEST_DATABASE;
  if (root === undefined)
    throw new Error('BASTION_TEST_DATABASE is not set: run the server tests through `npm test`.');
  const url = new URL(root);
  const name = `bastion_test_${randomBytes(6).toString('hex')}`;
  const admin = await createConnection({
    host: url.hostname,
    port: Number(url.port),
    user: url.username,
    password: url.password,
  });
  await admin.query(`CREATE DATABASE ${name} CHARACTER SET utf8mb4`);
  url.pathname = `/${name}`;
  const database = await openDatabase(url.href);
  if (options.empty !== true) await addPeople(database, options.demo === true);
  const filesFolder = await mkdtemp(join(tmpdir(), 'bastion-files-'));
  const app = await buildApp({
    database,
    demo: options.demo ?? false,
    secureCookie: false,
    trustedProxies: options.trustedProxies ?? [],
    version: '0.0.0-test',
    pagesFolder: undefined,
    filesFolder,
    now: options.now ?? (() => NOW),
    photosIn: options.photosIn ?? 'folder',
    metricsToken: options.metricsToken,
    log: options.log,
    site: options.site,
    liveHosts: options.liveHosts ?? [],
  });
  return {
    app,
    database,
    as: async (email) => {
      const answer = await app.inject({
        method: 'POST',
        url: '/api/session',
        payload: { email, password: PASSWORD },
        // Each from an address of their own: the limit of tries from one is a test of its own.
        remoteAddress: `10.200.${randomBytes(2).join('.')}`,
      });
      const cookie = answer.cookies[0];
      if (cookie === undefined)
        throw new Error(`Signing in as ${email} was answered with ${answer.statusCode}`);
      return (method, path, body) =>
        app.inject({
          method,
          url: path,
          cookies: { [cookie.name]: cookie.value },
          ...(body === undefined ? {} : { payload: body as object }),
          ...(Buffer.isBuffer(body) ? { headers: { 'content-type': 'application/octet-stream' } } : {}),
        });
    },
    close: async () => {
      await app.close();
      await database.sequelize.close();
      await admin.query(`DROP DATABASE ${name}`);
      await admin.end();
      await rm(filesFolder, { recursive: true, force: true });
    },
  };
}

async function addPeople({ models }: Database, demo: boolean): Promise<void> {
  const passwordHash = await hashPassword(PASSWORD);
  for (const [firmName, roles] of Object.entries(FIRMS)) {
    const firm = await models.firms.create({ name: firmName });
    for (const role of roles) {
      await models.users.create({
        firmId: firm.id,
        name: `${firmName} ${role}`,
        email: `${role}@${firmName}.test`,
        role,
        passwordHash,
        demo: demo && role === 'viewer',
      });
    }
  }
}

/** The code of a refusal. */
export const codeOf = (answer: LightMyRequestResponse): string => wire.refusal.parse(answer.json()).code;

/** A design with one backed-up heater on one unit. */
export function smallDesign(): Design {
  const read = readDesign(
    {
      format: 4,
      name: 'Hut',
      site: { supply: 'single-phase', lineVoltageV: 230, frequencyHz: 50, equipmentHighestC: 30 },
      circuits: [
        {
          id: 'c1',
          name: 'Heater',
          lines: ['L1'],
          partitionId: 'b',
          items: [
            {
              id: 'i1',
              name: 'Heater',
              quantity: 1,
              runningW: 1500,
              powerFactor: 1,
              startClass: 'steady',
              demandFactor: 1,
            },
          ],
        },
      ],
      partitions: [{ id: 'b', name: 'Backup', kind: 'backup', stackId: 's' }],
      stacks: [
        {
          id: 's',
          name: 'Stack',
          inverterTypeId: 'hybrid-5k-1ph',
          arrangement: 'one-unit',
          units: [{ id: 'u1' }],
          bank: 'none',
        },
      ],
      generators: [],
      arrays: [],
      controllers: [],
      startCases: [],
      meters: [],
      delivery: [],
      defaults: [],
      accepted: [],
      types: [],
    },
    SAMPLE_TYPES,
  );
  if (!read.ok) throw new Error(read.problems[0]?.message);
  return read.value;
}
