import {
  type CreationOptional,
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from 'sequelize';

/** What is known of a photo; its bytes lie on disk under their hash. */
export class AttachmentRow extends Model<
  InferAttributes<AttachmentRow>,
  InferCreationAttributes<AttachmentRow>
> {
  declare id: CreationOptional<number>;
  declare jobId: number;
  declare name: string;
  declare mediaType: string;
  declare width: number;
  declare height: number;
  declare bytes: number;
  declare hash: string;
  declare thumbnailHash: string;
  declare addedBy: string;
  declare addedAt: Date;
  declare deviceKey: CreationOptional<string | null>;
}

export function initAttachments(sequelize: Sequelize): void {
  // One object each: the library writes the column's name into it.
  const whole = () => ({ type: DataTypes.INTEGER.UNSIGNED, allowNull: false });
  AttachmentRow.init(
    {
      id: { type: DataTypes.INTEGER.UNSIGNED, primaryKey: true, autoIncrement: true },
      jobId: whole(),
      name: { type: DataTypes.STRING(120), allowNull: false },
      mediaType: { type: DataTypes.STRING(40), allowNull: false },
      width: whole(),
      height: whole(),
      bytes: whole(),
      hash: { type: DataTypes.STRING(64), allowNull: false },
      thumbnailHash: { type: DataTypes.STRING(64), allowNull: false },
      addedBy: { type: DataTypes.STRING(120), allowNull: false },
      addedAt: { type: DataTypes.DATE(3), allowNull: false },
      deviceKey: { type: DataTypes.STRING(64, true), allowNull: true },
    },
    { sequelize, tableName: 'attachments', timestamps: false },
  );
}
