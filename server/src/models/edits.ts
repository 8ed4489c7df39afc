import {
  type CreationOptional,
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from 'sequelize';

/** A batch of edits as it was sent, and the revision it made. */
export class EditRow extends Model<InferAttributes<EditRow>, InferCreationAttributes<EditRow>> {
  declare id: CreationOptional<number>;
  declare jobId: number;
  declare editId: string;
  declare revision: number;
  declare patches: string;
  declare author: CreationOptional<string>;
  declare at: CreationOptional<Date | null>;
}

export function initEdits(sequelize: Sequelize): void {
  EditRow.init(
    {
      id: { type: DataTypes.INTEGER.UNSIGNED, primaryKey: true, autoIncrement: true },
      jobId: { type: DataTypes.INTEGER.UNSIGNED, allowNull: false },
      editId: { type: DataTypes.STRING(64, true), allowNull: false },
      revision: { type: DataTypes.INTEGER.UNSIGNED, allowNull: false },
      patches: { type: DataTypes.TEXT('long'), allowNull: false },
      author: { type: DataTypes.STRING(120), allowNull: false, defaultValue: '' },
      at: { type: DataTypes.DATE(3), allowNull: true },
    },
    { sequelize, tableName: 'edits', timestamps: false },
  );
}
