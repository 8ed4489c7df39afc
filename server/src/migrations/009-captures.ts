import { DataTypes } from 'sequelize';
import type { NamedMigration } from './migration.ts';

/** Captures that readings were taken from: the bytes lie under their hash like those of photos, and each is kept once in a job. */
export const captures: NamedMigration = {
  name: '009-captures',
  up: async ({ context }) => {
    const whole = { type: DataTypes.INTEGER.UNSIGNED, allowNull: false };
    await context.createTable('captures', {
      id: { type: DataTypes.INTEGER.UNSIGNED, primaryKey: true, autoIncrement: true },
      job_id: { ...whole, references: { model: 'jobs', key: 'id' }, onDelete: 'CASCADE' },
      name: { type: DataTypes.STRING(200), allowNull: false },
      bytes: whole,
      hash: { type: DataTypes.STRING(64), allowNull: false },
      added_by: { type: DataTypes.STRING(120), allowNull: false },
      added_at: { type: DataTypes.DATE(3), allowNull: false },
    });
    await context.addIndex('captures', ['job_id', 'hash'], { unique: true, name: 'capture_once_per_job' });
    await context.addColumn('readings', 'capture_id', {
      type: DataTypes.INTEGER.UNSIGNED,
      allowNull: true,
      references: { model: 'captures', key: 'id' },
      onDelete: 'SET NULL',
    });
  },
};
