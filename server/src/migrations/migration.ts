import type { QueryInterface } from 'sequelize';

/** One step of the database from one shape to the next. */
export interface NamedMigration {
  readonly name: string;
  readonly up: (parameters: { context: QueryInterface }) => Promise<void>;
}
