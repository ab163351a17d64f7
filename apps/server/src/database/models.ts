import type { Change, Document } from '@yperkine/demonstration';
import {
  DataTypes,
  Model,
  type CreationOptional,
  type InferAttributes,
  type InferCreationAttributes,
  type NonAttribute,
  type Sequelize,
} from 'sequelize';

export class AccountRow extends Model<InferAttributes<AccountRow>, InferCreationAttributes<AccountRow>> {
  declare id: string;
  declare name: string;
  declare email: string;
  /** Argon2id hash; null for the demo teacher, who has no password. */
  declare passwordHash: string | null;
}

export class DemonstrationRow extends Model<
  InferAttributes<DemonstrationRow>,
  InferCreationAttributes<DemonstrationRow>
> {
  declare id: string;
  declare accountId: string;
  declare title: string;
  declare document: Document;
  declare version: CreationOptional<number>;
  declare changedAt: Date;
  declare picture?: NonAttribute<PictureRow | null>;
}

export class ChangeRow extends Model<InferAttributes<ChangeRow>, InferCreationAttributes<ChangeRow>> {
  declare demonstrationId: string;
  /** The version that the demonstration has after this change. */
  declare version: number;
  declare changeId: string;
  declare edits: Change['edits'];
  /** The version of the document's schema in which the edits are written. */
  declare format: number;
}

/** The small pictures of a demonstration; null for one that took too long. */
export class PictureRow extends Model<InferAttributes<PictureRow>, InferCreationAttributes<PictureRow>> {
  declare demonstrationId: string;
  /** The version of the demonstration, and of what painted it. */
  declare version: number;
  declare painter: string;
  declare day: string | null;
  declare night: string | null;
}

/** Binds the models to a connection. Tables are made by migrations, never by the models. */
export function defineModels(sequelize: Sequelize): void {
  const common = { sequelize, timestamps: false, underscored: true } as const;
  AccountRow.init(
    {
      id: { type: DataTypes.UUID, primaryKey: true },
      name: { type: DataTypes.TEXT, allowNull: false },
      email: { type: DataTypes.TEXT, allowNull: false },
      passwordHash: DataTypes.TEXT,
    },
    { ...common, tableName: 'accounts' },
  );
  DemonstrationRow.init(
    {
      id: { type: DataTypes.UUID, primaryKey: true },
      accountId: { type: DataTypes.UUID, allowNull: false },
      title: { type: DataTypes.TEXT, allowNull: false },
      document: { type: DataTypes.JSONB, allowNull: false },
      version: { type: DataTypes.INTEGER, allowNull: false, defaultValue: 0 },
      changedAt: { type: DataTypes.DATE, allowNull: false },
    },
    { ...common, tableName: 'demonstrations' },
  );
  ChangeRow.init(
    {
      demonstrationId: { type: DataTypes.UUID, primaryKey: true },
      version: { type: DataTypes.INTEGER, primaryKey: true },
      changeId: { type: DataTypes.TEXT, allowNull: false },
      edits: { type: DataTypes.JSONB, allowNull: false },
      format: { type: DataTypes.INTEGER, allowNull: false },
    },
    { ...common, tableName: 'changes' },
  );
  PictureRow.init(
    {
      demonstrationId: { type: DataTypes.UUID, primaryKey: true },
      version: { type: DataTypes.INTEGER, allowNull: false },
      painter: { type: DataTypes.TEXT, allowNull: false },
      day: DataTypes.TEXT,
      night: DataTypes.TEXT,
    },
    { ...common, tableName: 'pictures' },
  );
  DemonstrationRow.hasOne(PictureRow, { foreignKey: 'demonstrationId', as: 'picture' });
}
