import { DataTypes } from 'sequelize';
import type { NamedMigration } from './migration.ts';

const id = { type: DataTypes.INTEGER.UNSIGNED, primaryKey: true, autoIncrement: true } as const;
const refers = (table: string, allowNull: boolean) =>
  ({
    type: DataTypes.INTEGER.UNSIGNED,
    allowNull,
    references: { model: table, key: 'id' },
    onDelete: 'CASCADE',
  }) as const;
const text = (length: number) => ({ type: DataTypes.STRING(length), allowNull: false }) as const;
const whole = { type: DataTypes.INTEGER.UNSIGNED, allowNull: false } as const;
const moment = { type: DataTypes.DATE(3), allowNull: false } as const;

export const variantsLibraryPhotos: NamedMigration = {
  name: '002-variants-library-photos',
  up: async ({ context }) => {
    await context.addColumn('jobs', 'variant_of', refers('jobs', true));
    await context.addColumn('jobs', 'variant_name', { ...text(60), defaultValue: '' });
    await context.createTable('library_items', {
      id,
      firm_id: refers('firms', false),
      name: text(120),
      item: { type: DataTypes.TEXT, allowNull: false },
      added_by: text(120),
      added_at: moment,
    });
    await context.addIndex('library_items', ['firm_id', 'name'], {
      unique: true,
      name: 'library_once_per_firm',
    });
    await context.createTable('attachments', {
      id,
      job_id: refers('jobs', false),
      name: text(120),
      media_type: text(40),
      width: whole,
      height: whole,
      bytes: whole,
      hash: text(64),
      thumbnail_hash: text(64),
      added_by: text(120),
      added_at: moment,
    });
  },
};
