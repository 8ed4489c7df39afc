import {
  type CreationOptional,
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from 'sequelize';

/** A firm: the wall between one set of jobs and another. */
export class FirmRow extends Model<InferAttributes<FirmRow>, InferCreationAttributes<FirmRow>> {
  declare id: CreationOptional<number>;
  declare name: string;
}

export function initFirms(sequelize: Sequelize): void {
  FirmRow.init(
    {
      id: { type: DataTypes.INTEGER.UNSIGNED, primaryKey: true, autoIncrement: true },
      name: { type: DataTypes.STRING(120), allowNull: false },
    },
    { sequelize, tableName: 'firms', timestamps: false },
  );
}
