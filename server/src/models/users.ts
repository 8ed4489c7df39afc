import {
  type CreationOptional,
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from 'sequelize';

/** A person who signs in. */
export class UserRow extends Model<InferAttributes<UserRow>, InferCreationAttributes<UserRow>> {
  declare id: CreationOptional<number>;
  declare firmId: number;
  declare name: string;
  declare email: string;
  declare role: string;
  /** Null until the person has come in by the link of the invitation. */
  declare passwordHash: string | null;
  declare demo: boolean;
  declare disabledAt: CreationOptional<Date | null>;
  declare licence: CreationOptional<string | null>;
  declare licenceBody: CreationOptional<string | null>;
}

export function initUsers(sequelize: Sequelize): void {
  UserRow.init(
    {
      id: { type: DataTypes.INTEGER.UNSIGNED, primaryKey: true, autoIncrement: true },
      firmId: { type: DataTypes.INTEGER.UNSIGNED, allowNull: false },
      name: { type: DataTypes.STRING(120), allowNull: false },
      email: { type: DataTypes.STRING(190), allowNull: false },
      role: { type: DataTypes.STRING(20), allowNull: false },
      passwordHash: { type: DataTypes.STRING(200), allowNull: true },
      demo: { type: DataTypes.BOOLEAN, allowNull: false },
      disabledAt: { type: DataTypes.DATE(3), allowNull: true },
      licence: { type: DataTypes.STRING(60), allowNull: true },
      licenceBody: { type: DataTypes.STRING(120), allowNull: true },
    },
    { sequelize, tableName: 'users', timestamps: false },
  );
}
