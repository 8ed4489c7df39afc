import { ForeignKeyConstraintError, type Sequelize, UniqueConstraintError } from 'sequelize';
import { z } from 'zod';

/** What the driver's connection can do besides what Sequelize asks of it. */
interface Preparing {
  readonly execute: (sql: string, values: readonly (string | number)[]) => Promise<unknown>;
}

const canPrepare = (connection: object): connection is Preparing =>
  'execute' in connection && typeof connection.execute === 'function';

const DUPLICATE = 1062;
const DEADLOCK = 1213;
const NO_SUCH_ROW = 1452;

const told = z.object({ errno: z.number() });

/** The error of the driver as Sequelize would have told it, so that whoever asks need not know which way a statement went. */
function asSequelizeTells(error: unknown): unknown {
  const { data } = told.safeParse(error);
  if (!(error instanceof Error) || data === undefined) return error;
  if (data.errno === DUPLICATE)
    return new UniqueConstraintError({ message: error.message, parent: Object.assign(error, { sql: '' }) });
  if (data.errno === NO_SUCH_ROW)
    return new ForeignKeyConstraintError({
      message: error.message,
      parent: Object.assign(error, { sql: '' }),
    });
  if (data.errno === DEADLOCK) return Object.assign(error, { original: { code: 'ER_LOCK_DEADLOCK' } });
  return error;
}

/** A moment as a column of type DATETIME(3) takes it, in UTC as all of them are. */
export const momentOf = (at: Date): string => at.toISOString().replace('T', ' ').replace('Z', '');

/**
 * Runs a statement that the database keeps prepared, on a connection of Sequelize's pool. Values go as they are, not quoted into the
 * text: for the one statement that is asked thousands of times a second, since Sequelize 6 knows no prepared statements.
 */
export async function runPrepared(
  { connectionManager }: Sequelize,
  sql: string,
  values: readonly (string | number)[],
): Promise<void> {
  const connection = await connectionManager.getConnection({ type: 'write' });
  try {
    if (!canPrepare(connection)) throw new Error('The driver of the database prepares no statements.');
    await connection.execute(sql, values);
  } catch (error) {
    throw asSequelizeTells(error);
  } finally {
    connectionManager.releaseConnection(connection);
  }
}
