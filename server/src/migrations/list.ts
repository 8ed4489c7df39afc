import type { QueryInterface } from 'sequelize';
import { firstTables } from './001-first-tables.ts';

export interface NamedMigration {
  readonly name: string;
  readonly up: (parameters: { context: QueryInterface }) => Promise<void>;
}

/** Every migration, in order. A migration that has shipped is never changed. */
export const MIGRATIONS: readonly NamedMigration[] = [firstTables];
