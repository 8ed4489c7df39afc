import { DataTypes } from 'sequelize';
import type { NamedMigration } from './migration.ts';

const text = (length: number) => ({ type: DataTypes.STRING(length), allowNull: false }) as const;
const whole = { type: DataTypes.INTEGER.UNSIGNED, allowNull: false } as const;

export const equipmentTypes: NamedMigration = {
  name: '003-equipment-types',
  up: async ({ context }) => {
    await context.createTable('equipment_types', {
      id: { type: DataTypes.INTEGER.UNSIGNED, primaryKey: true, autoIncrement: true },
      firm_id: { ...whole, references: { model: 'firms', key: 'id' }, onDelete: 'CASCADE' },
      type_id: text(40),
      version: { ...whole },
      body: { type: DataTypes.TEXT('medium'), allowNull: false },
      added_by: text(120),
      added_at: { type: DataTypes.DATE(3), allowNull: false },
    });
    await context.addIndex('equipment_types', ['firm_id', 'type_id', 'version'], {
      unique: true,
      name: 'type_version_once_per_firm',
    });
    await context.addColumn('jobs', 'used_types', { type: DataTypes.TEXT, allowNull: true });
  },
};
