import {
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
}

export function initSessions(sequelize: Sequelize): void {
  SessionRow.init(
    {
      tokenHash: { type: DataTypes.STRING(64), primaryKey: true },
      userId: { type: DataTypes.INTEGER.UNSIGNED, allowNull: false },
      expiresAt: { type: DataTypes.DATE(3), allowNull: false },
    },
    { sequelize, tableName: 'sessions', timestamps: false },
  );
}
