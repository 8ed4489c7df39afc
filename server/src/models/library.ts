import {
  type CreationOptional,
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from 'sequelize';

/** An item that a firm keeps for its surveys. */
export class LibraryRow extends Model<InferAttributes<LibraryRow>, InferCreationAttributes<LibraryRow>> {
  declare id: CreationOptional<number>;
  declare firmId: number;
  declare name: string;
  declare item: string;
  declare addedBy: string;
  declare addedAt: Date;
}

export function initLibrary(sequelize: Sequelize): void {
  LibraryRow.init(
    {
      id: { type: DataTypes.INTEGER.UNSIGNED, primaryKey: true, autoIncrement: true },
      firmId: { type: DataTypes.INTEGER.UNSIGNED, allowNull: false },
      name: { type: DataTypes.STRING(120), allowNull: false },
      item: { type: DataTypes.TEXT, allowNull: false },
      addedBy: { type: DataTypes.STRING(120), allowNull: false },
      addedAt: { type: DataTypes.DATE(3), allowNull: false },
    },
    { sequelize, tableName: 'library_items', timestamps: false },
  );
}
