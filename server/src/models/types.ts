import {
  type CreationOptional,
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from 'sequelize';

/** One version of an equipment type that a firm keeps for itself. Versions are added, never changed. */
export class TypeRow extends Model<InferAttributes<TypeRow>, InferCreationAttributes<TypeRow>> {
  declare id: CreationOptional<number>;
  declare firmId: number;
  declare typeId: string;
  declare version: number;
  declare body: string;
  declare addedBy: string;
  declare addedAt: Date;
}

export function initTypes(sequelize: Sequelize): void {
  TypeRow.init(
    {
      id: { type: DataTypes.INTEGER.UNSIGNED, primaryKey: true, autoIncrement: true },
      firmId: { type: DataTypes.INTEGER.UNSIGNED, allowNull: false },
      typeId: { type: DataTypes.STRING(40), allowNull: false },
      version: { type: DataTypes.INTEGER.UNSIGNED, allowNull: false },
      body: { type: DataTypes.TEXT('medium'), allowNull: false },
      addedBy: { type: DataTypes.STRING(120), allowNull: false },
      addedAt: { type: DataTypes.DATE(3), allowNull: false },
    },
    { sequelize, tableName: 'equipment_types', timestamps: false },
  );
}
