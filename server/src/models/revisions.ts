import {
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from 'sequelize';

/** One saved state. The document is kept for some; the edits lead to the rest. */
export class RevisionRow extends Model<InferAttributes<RevisionRow>, InferCreationAttributes<RevisionRow>> {
  declare jobId: number;
  declare number: number;
  declare author: string;
  declare at: Date;
  declare hash: string;
  declare document: string | null;
}

export function initRevisions(sequelize: Sequelize): void {
  RevisionRow.init(
    {
      jobId: { type: DataTypes.INTEGER.UNSIGNED, primaryKey: true },
      number: { type: DataTypes.INTEGER.UNSIGNED, primaryKey: true },
      author: { type: DataTypes.STRING(120), allowNull: false },
      at: { type: DataTypes.DATE(3), allowNull: false },
      hash: { type: DataTypes.STRING(64), allowNull: false },
      document: { type: DataTypes.TEXT('long'), allowNull: true },
    },
    { sequelize, tableName: 'revisions', timestamps: false },
  );
}
