import {
  type CreationOptional,
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from 'sequelize';

/** A capture that readings were taken from; its bytes lie under their hash. */
export class CaptureRow extends Model<InferAttributes<CaptureRow>, InferCreationAttributes<CaptureRow>> {
  declare id: CreationOptional<number>;
  declare jobId: number;
  declare name: string;
  declare bytes: number;
  declare hash: string;
  declare addedBy: string;
  declare addedAt: Date;
}

export function initCaptures(sequelize: Sequelize): void {
  CaptureRow.init(
    {
      id: { type: DataTypes.INTEGER.UNSIGNED, primaryKey: true, autoIncrement: true },
      jobId: { type: DataTypes.INTEGER.UNSIGNED, allowNull: false },
      name: { type: DataTypes.STRING(200), allowNull: false },
      bytes: { type: DataTypes.INTEGER.UNSIGNED, allowNull: false },
      hash: { type: DataTypes.STRING(64), allowNull: false },
      addedBy: { type: DataTypes.STRING(120), allowNull: false },
      addedAt: { type: DataTypes.DATE(3), allowNull: false },
    },
    { sequelize, tableName: 'captures', timestamps: false },
  );
}
