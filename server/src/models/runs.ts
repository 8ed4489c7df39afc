import {
  type CreationOptional,
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from 'sequelize';

/** A run of the islanding test, with the procedure as it stood when the run began. */
export class RunRow extends Model<InferAttributes<RunRow>, InferCreationAttributes<RunRow>> {
  declare id: CreationOptional<number>;
  declare jobId: number;
  declare number: number;
  declare revision: number;
  declare state: string;
  declare reason: string;
  declare startedBy: string;
  declare startedAt: Date;
  declare endedAt: Date | null;
  declare procedure: string;
}

export function initRuns(sequelize: Sequelize): void {
  RunRow.init(
    {
      id: { type: DataTypes.INTEGER.UNSIGNED, primaryKey: true, autoIncrement: true },
      jobId: { type: DataTypes.INTEGER.UNSIGNED, allowNull: false },
      number: { type: DataTypes.INTEGER.UNSIGNED, allowNull: false },
      revision: { type: DataTypes.INTEGER.UNSIGNED, allowNull: false },
      state: { type: DataTypes.STRING(20), allowNull: false },
      reason: { type: DataTypes.STRING(1000), allowNull: false },
      startedBy: { type: DataTypes.STRING(120), allowNull: false },
      startedAt: { type: DataTypes.DATE(3), allowNull: false },
      endedAt: { type: DataTypes.DATE(3), allowNull: true },
      procedure: { type: DataTypes.TEXT('long'), allowNull: false },
    },
    { sequelize, tableName: 'test_runs', timestamps: false },
  );
}
