import { DataTypes } from 'sequelize';
import type { NamedMigration } from './migration.ts';

/**
 * A photo carries a key made on the device, so that what is sent again is kept once; its bytes may lie in the database. And a row that is
 * written to see whether writing works.
 */
export const photosAndHealth: NamedMigration = {
  name: '007-photos-and-health',
  up: async ({ context }) => {
    await context.addColumn('attachments', 'device_key', {
      type: DataTypes.STRING(64, true),
      allowNull: true,
    });
    await context.addIndex('attachments', ['job_id', 'device_key'], {
      unique: true,
      name: 'attachment_once_per_job',
    });
    await context.createTable('photo_bytes', {
      hash: { type: DataTypes.STRING(64, true), primaryKey: true },
      bytes: { type: DataTypes.BLOB('long'), allowNull: false },
    });
    await context.createTable('health', {
      id: { type: DataTypes.INTEGER.UNSIGNED, primaryKey: true },
      at: { type: DataTypes.DATE(3), allowNull: false },
    });
  },
};
