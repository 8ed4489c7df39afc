import {
  type CreationOptional,
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from 'sequelize';

/** An entry of the audit trail, hashed over the one before it. */
export class AuditRow extends Model<InferAttributes<AuditRow>, InferCreationAttributes<AuditRow>> {
  declare id: CreationOptional<number>;
  /** Null for what belongs to no firm. */
  declare firmId: number | null;
  declare at: Date;
  declare actor: string;
  declare action: string;
  declare subject: string;
  declare hash: string;
}

/** How many entries there are, and the hash of the last. */
export class AuditHeadRow extends Model<
  InferAttributes<AuditHeadRow>,
  InferCreationAttributes<AuditHeadRow>
> {
  declare id: number;
  declare count: number;
  declare hash: string;
}

export function initAudit(sequelize: Sequelize): void {
  AuditRow.init(
    {
      id: { type: DataTypes.INTEGER.UNSIGNED, primaryKey: true, autoIncrement: true },
      firmId: { type: DataTypes.INTEGER.UNSIGNED, allowNull: true },
      at: { type: DataTypes.DATE(3), allowNull: false },
      actor: { type: DataTypes.STRING(320), allowNull: false },
      action: { type: DataTypes.STRING(60), allowNull: false },
      subject: { type: DataTypes.TEXT, allowNull: false },
      hash: { type: DataTypes.STRING(64), allowNull: false },
    },
    { sequelize, tableName: 'audit', timestamps: false },
  );
  AuditHeadRow.init(
    {
      id: { type: DataTypes.INTEGER.UNSIGNED, primaryKey: true },
      count: { type: DataTypes.INTEGER.UNSIGNED, allowNull: false },
      hash: { type: DataTypes.STRING(64), allowNull: false },
    },
    { sequelize, tableName: 'audit_head', timestamps: false },
  );
}
