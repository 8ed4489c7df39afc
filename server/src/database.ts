import { QueryTypes, Sequelize } from 'sequelize';
import { SequelizeStorage, Umzug } from 'umzug';
import { MIGRATIONS } from './migrations/list.ts';
import { initModels, type Models } from './models/models.ts';

/** An open database with its models, migrated to what this code expects. */
export interface Database {
  readonly sequelize: Sequelize;
  readonly models: Models;
}

/** Connects and migrates. Migrations run forwards only; several processes may do this at once, one at a time. */
export async function openDatabase(url: string): Promise<Database> {
  const sequelize = new Sequelize(url, {
    dialect: 'mariadb',
    logging: false,
    pool: { max: 10, idle: 10_000 },
    define: { underscored: true, freezeTableName: true, charset: 'utf8mb4' },
  });
  await sequelize.authenticate();
  const umzug = new Umzug({
    migrations: [...MIGRATIONS],
    context: sequelize.getQueryInterface(),
    storage: new SequelizeStorage({ sequelize, tableName: 'migrations' }),
    logger: undefined,
  });
  await sequelize.transaction(async (transaction) => {
    await sequelize.query("SELECT GET_LOCK('bastion-migrate', 60)", { transaction, type: QueryTypes.SELECT });
    try {
      await umzug.up();
    } finally {
      await sequelize.query("SELECT RELEASE_LOCK('bastion-migrate')", {
        transaction,
        type: QueryTypes.SELECT,
      });
    }
  });
  return { sequelize, models: initModels(sequelize) };
}
