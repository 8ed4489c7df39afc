import {
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from 'sequelize';

/** A link or code that works once. Only the hash of its token is kept. */
export class TicketRow extends Model<InferAttributes<TicketRow>, InferCreationAttributes<TicketRow>> {
  declare tokenHash: string;
  declare kind: string;
  declare userId: number | null;
  declare expiresAt: Date;
}

export function initTickets(sequelize: Sequelize): void {
  TicketRow.init(
    {
      tokenHash: { type: DataTypes.STRING(64), primaryKey: true },
      kind: { type: DataTypes.STRING(20), allowNull: false },
      userId: { type: DataTypes.INTEGER.UNSIGNED, allowNull: true },
      expiresAt: { type: DataTypes.DATE(3), allowNull: false },
    },
    { sequelize, tableName: 'tickets', timestamps: false },
  );
}
