import {
  type CreationOptional,
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from 'sequelize';

/** A signed-in browser. Only the hash of its token is kept. */
export class SessionRow extends Model<InferAttributes<SessionRow>, InferCreationAttributes<SessionRow>> {
  declare tokenHash: string;
  declare userId: number;
  declare expiresAt: Date;
  /** What the session is called where its owner sees it; it opens nothing. */
  declare publicId: CreationOptional<string | null>;
  declare agent: CreationOptional<string>;
  declare startedAt: CreationOptional<Date | null>;
  declare seenAt: CreationOptional<Date | null>;
}

export function initSessions(sequelize: Sequelize): void {
  SessionRow.init(
    {
      tokenHash: { type: DataTypes.STRING(64), primaryKey: true },
      userId: { type: DataTypes.INTEGER.UNSIGNED, allowNull: false },
      expiresAt: { type: DataTypes.DATE(3), allowNull: false },
      publicId: { type: DataTypes.STRING(24), allowNull: true },
      agent: { type: DataTypes.STRING(200), allowNull: false, defaultValue: '' },
      startedAt: { type: DataTypes.DATE(3), allowNull: true },
      seenAt: { type: DataTypes.DATE(3), allowNull: true },
    },
    { sequelize, tableName: 'sessions', timestamps: false },
  );
}
