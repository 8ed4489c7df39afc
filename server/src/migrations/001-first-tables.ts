import { DataTypes, type QueryInterface } from 'sequelize';
import type { NamedMigration } from './migration.ts';

const id = { type: DataTypes.INTEGER.UNSIGNED, primaryKey: true, autoIncrement: true } as const;
const required = { allowNull: false } as const;
const longText = { type: DataTypes.TEXT('long'), ...required } as const;
const moment = { type: DataTypes.DATE(3), ...required } as const;
const refers = (table: string) =>
  ({
    type: DataTypes.INTEGER.UNSIGNED,
    ...required,
    references: { model: table, key: 'id' },
    onDelete: 'CASCADE',
  }) as const;
const text = (length: number) => ({ type: DataTypes.STRING(length), ...required }) as const;
const whole = { type: DataTypes.INTEGER.UNSIGNED, ...required } as const;

async function people(context: QueryInterface): Promise<void> {
  await context.createTable('firms', { id, name: { ...text(120), unique: true } });
  await context.createTable('users', {
    id,
    firm_id: refers('firms'),
    name: text(120),
    email: { ...text(190), unique: true },
    role: text(20),
    password_hash: text(200),
    demo: { type: DataTypes.BOOLEAN, ...required },
  });
  await context.createTable('sessions', {
    token_hash: { type: DataTypes.STRING(64), primaryKey: true },
    user_id: refers('users'),
    expires_at: moment,
  });
}

async function jobs(context: QueryInterface): Promise<void> {
  await context.createTable('jobs', {
    id,
    firm_id: refers('firms'),
    name: text(120),
    revision: whole,
    document: longText,
    summary: longText,
    changed_at: moment,
    changed_by: text(120),
  });
  await context.createTable('revisions', {
    job_id: { ...refers('jobs'), primaryKey: true },
    number: { ...whole, primaryKey: true },
    author: text(120),
    at: moment,
    hash: text(64),
    document: { type: DataTypes.TEXT('long'), allowNull: true },
  });
  await context.createTable('edits', {
    id,
    job_id: refers('jobs'),
    edit_id: text(64),
    revision: whole,
    patches: longText,
  });
  await context.addIndex('edits', ['job_id', 'edit_id'], { unique: true, name: 'edits_once' });
  await context.addIndex('edits', ['job_id', 'revision'], { name: 'edits_by_revision' });
}

async function tests(context: QueryInterface): Promise<void> {
  await context.createTable('test_runs', {
    id,
    job_id: refers('jobs'),
    number: whole,
    revision: whole,
    state: text(20),
    reason: text(1000),
    started_by: text(120),
    started_at: moment,
    ended_at: { type: DataTypes.DATE(3), allowNull: true },
    procedure: longText,
  });
  await context.addIndex('test_runs', ['job_id', 'number'], { unique: true, name: 'runs_by_number' });
  await context.createTable('readings', {
    id,
    run_id: refers('test_runs'),
    step_id: text(120),
    reading_id: text(120),
    value: { type: DataTypes.DOUBLE, ...required },
    attempt: whole,
    corrects: { type: DataTypes.INTEGER.UNSIGNED, allowNull: true },
    note: text(1000),
    by: text(120),
    at: moment,
  });
}

export const firstTables: NamedMigration = {
  name: '001-first-tables',
  up: async ({ context }) => {
    await people(context);
    await jobs(context);
    await tests(context);
  },
};
