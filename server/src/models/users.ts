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
  declare passwordHash: string;
  declare demo: boolean;
}

export function initUsers(sequelize: Sequelize): void {
  UserRow.init(
    {
      id: { type: DataTypes.INTEGER.UNSIGNED, primaryKey: true, autoIncrement: true },
      firmId: { type: DataTypes.INTEGER.UNSIGNED, allowNull: false },
      name: { type: DataTypes.STRING(120), allowNull: false },
      email: { type: DataTypes.STRING(190), allowNull: false },
      role: { type: DataTypes.STRING(20), allowNull: false },
      passwordHash: { type: DataTypes.STRING(200), allowNull: false },
      demo: { type: DataTypes.BOOLEAN, allowNull: false },
    },
    { sequelize, tableName: 'users', timestamps: false },
  );
}
