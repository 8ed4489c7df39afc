import {
  type CreationOptional,
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from 'sequelize';

/** A job with its latest document and the summary that the job list shows. */
export class JobRow extends Model<InferAttributes<JobRow>, InferCreationAttributes<JobRow>> {
  declare id: CreationOptional<number>;
  declare firmId: number;
  declare name: string;
  declare revision: number;
  /** The whole document as it was at `documentRevision`; the edits after it lead to the latest. */
  declare document: string;
  declare documentRevision: number;
  declare summary: string;
  declare changedAt: Date;
  declare changedBy: string;
  /** The job whose variant this is; null for a main design. */
  declare variantOf: CreationOptional<number | null>;
  declare variantName: CreationOptional<string>;
  /** Ids of the equipment types it uses, as JSON; null until it is next saved or asked for. */
  declare usedTypes: CreationOptional<string | null>;
}

export function initJobs(sequelize: Sequelize): void {
  JobRow.init(
    {
      id: { type: DataTypes.INTEGER.UNSIGNED, primaryKey: true, autoIncrement: true },
      firmId: { type: DataTypes.INTEGER.UNSIGNED, allowNull: false },
      name: { type: DataTypes.STRING(120), allowNull: false },
      revision: { type: DataTypes.INTEGER.UNSIGNED, allowNull: false },
      document: { type: DataTypes.TEXT('long'), allowNull: false },
      documentRevision: { type: DataTypes.INTEGER.UNSIGNED, allowNull: false },
      summary: { type: DataTypes.TEXT('long'), allowNull: false },
      changedAt: { type: DataTypes.DATE(3), allowNull: false },
      changedBy: { type: DataTypes.STRING(120), allowNull: false },
      variantOf: { type: DataTypes.INTEGER.UNSIGNED, allowNull: true },
      variantName: { type: DataTypes.STRING(60), allowNull: false, defaultValue: '' },
      usedTypes: { type: DataTypes.TEXT, allowNull: true },
    },
    { sequelize, tableName: 'jobs', timestamps: false },
  );
}
