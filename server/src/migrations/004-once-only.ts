import { DataTypes } from 'sequelize';
import type { NamedMigration } from './migration.ts';

/**
 * What a device sends again is recorded once: a reading carries a key made on the device. Keys and ids of edits are compared exactly,
 * letter by letter, whatever the collation of the database.
 */
export const onceOnly: NamedMigration = {
  name: '004-once-only',
  up: async ({ context }) => {
    await context.addColumn('readings', 'device_key', { type: DataTypes.STRING(64, true), allowNull: true });
    await context.addIndex('readings', ['run_id', 'device_key'], {
      unique: true,
      name: 'reading_once_per_run',
    });
    await context.changeColumn('edits', 'edit_id', { type: DataTypes.STRING(64, true), allowNull: false });
  },
};
