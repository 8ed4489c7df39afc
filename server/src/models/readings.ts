import {
  type CreationOptional,
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from 'sequelize';

/** One reading. Rows are only ever added; a correction names the row it corrects. */
export class ReadingRow extends Model<InferAttributes<ReadingRow>, InferCreationAttributes<ReadingRow>> {
  declare id: CreationOptional<number>;
  declare runId: number;
  declare stepId: string;
  declare readingId: string;
  declare value: number;
  declare attempt: number;
  declare corrects: number | null;
  /** A reason to go on, or a remark. */
  declare note: string;
  /** Where the figure came from, where no hand typed it. */
  declare source: CreationOptional<string>;
  /** The capture it was taken from, where that is kept. */
  declare captureId: CreationOptional<number | null>;
  /** Made on the device, so that what is sent again is recorded once. */
  declare deviceKey: CreationOptional<string | null>;
  declare by: string;
  declare at: Date;
}

export function initReadings(sequelize: Sequelize): void {
  ReadingRow.init(
    {
      id: { type: DataTypes.INTEGER.UNSIGNED, primaryKey: true, autoIncrement: true },
      runId: { type: DataTypes.INTEGER.UNSIGNED, allowNull: false },
      stepId: { type: DataTypes.STRING(120), allowNull: false },
      readingId: { type: DataTypes.STRING(120), allowNull: false },
      value: { type: DataTypes.DOUBLE, allowNull: false },
      attempt: { type: DataTypes.INTEGER.UNSIGNED, allowNull: false },
      corrects: { type: DataTypes.INTEGER.UNSIGNED, allowNull: true },
      note: { type: DataTypes.STRING(1000), allowNull: false },
      source: { type: DataTypes.STRING(200), allowNull: false, defaultValue: '' },
      captureId: { type: DataTypes.INTEGER.UNSIGNED, allowNull: true },
      deviceKey: { type: DataTypes.STRING(64, true), allowNull: true },
      by: { type: DataTypes.STRING(120), allowNull: false },
      at: { type: DataTypes.DATE(3), allowNull: false },
    },
    { sequelize, tableName: 'readings', timestamps: false },
  );
}
