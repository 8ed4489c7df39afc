import { DataTypes } from 'sequelize';
import type { NamedMigration } from './migration.ts';

const ID = { type: DataTypes.INTEGER.UNSIGNED, primaryKey: true, autoIncrement: true } as const;
const EXACT = (length: number) => DataTypes.STRING(length, true);

/** People of a real firm: licences, being disabled, one-time links, sessions one can see, and the audit trail. */
export const accountsOfAFirm: NamedMigration = {
  name: '005-accounts',
  up: async ({ context }) => {
    await context.changeColumn('users', 'password_hash', { type: DataTypes.STRING(200), allowNull: true });
    await context.addColumn('users', 'disabled_at', { type: DataTypes.DATE(3), allowNull: true });
    await context.addColumn('users', 'licence', { type: DataTypes.STRING(60), allowNull: true });
    await context.addColumn('users', 'licence_body', { type: DataTypes.STRING(120), allowNull: true });
    await context.addColumn('sessions', 'public_id', { type: EXACT(24), allowNull: true });
    await context.addColumn('sessions', 'agent', {
      type: DataTypes.STRING(200),
      allowNull: false,
      defaultValue: '',
    });
    await context.addColumn('sessions', 'started_at', { type: DataTypes.DATE(3), allowNull: true });
    await context.addColumn('sessions', 'seen_at', { type: DataTypes.DATE(3), allowNull: true });
    // Sessions that are open already began two weeks before they end, and get a name of their own.
    await context.sequelize.query(
      "UPDATE sessions SET public_id = SUBSTRING(SHA2(CONCAT(token_hash, ' by name'), 256), 1, 24), started_at = DATE_SUB(expires_at, INTERVAL 14 DAY), seen_at = DATE_SUB(expires_at, INTERVAL 14 DAY)",
    );
    await context.createTable('tickets', {
      token_hash: { type: EXACT(64), primaryKey: true },
      kind: { type: DataTypes.STRING(20), allowNull: false },
      user_id: { type: DataTypes.INTEGER.UNSIGNED, allowNull: true },
      expires_at: { type: DataTypes.DATE(3), allowNull: false },
    });
    await context.createTable('audit', {
      id: ID,
      firm_id: { type: DataTypes.INTEGER.UNSIGNED, allowNull: true },
      at: { type: DataTypes.DATE(3), allowNull: false },
      actor: { type: DataTypes.STRING(320), allowNull: false },
      action: { type: DataTypes.STRING(60), allowNull: false },
      subject: { type: DataTypes.TEXT, allowNull: false },
      hash: { type: EXACT(64), allowNull: false },
    });
    await context.addIndex('audit', ['firm_id', 'id'], { name: 'audit_of_firm' });
    // One row, locked by whoever adds an entry: entries come one after the other, and cutting the last ones off is seen.
    await context.createTable('audit_head', {
      id: { type: DataTypes.INTEGER.UNSIGNED, primaryKey: true },
      count: { type: DataTypes.INTEGER.UNSIGNED, allowNull: false },
      hash: { type: EXACT(64), allowNull: false },
    });
    await context.bulkInsert('audit_head', [{ id: 1, count: 0, hash: '' }]);
  },
};
