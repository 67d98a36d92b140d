import { DataTypes, Model, type CreationOptional, type InferAttributes, type InferCreationAttributes, type Sequelize } from 'sequelize';
import type { ArchiveScope } from '@isometra/contract/archive';
import { id, json, text, when } from './columns.js';

/** A state of something that has left this shop, or come into it: the SHA-256 of it. */
export class SeenRow extends Model<InferAttributes<SeenRow>, InferCreationAttributes<SeenRow>> {
  declare kind: string;
  declare name: string;
  declare hash: string;
}

/** An archive that was taken in. */
export class ImportRow extends Model<InferAttributes<ImportRow>, InferCreationAttributes<ImportRow>> {
  declare id: CreationOptional<number>;
  declare fingerprint: string;
  declare scope: ArchiveScope;
  declare written: Date;
  declare by: string;
  declare at: Date;
}

/** A token that may read. */
export class TokenRow extends Model<InferAttributes<TokenRow>, InferCreationAttributes<TokenRow>> {
  declare id: string;
  /** SHA-256 of it. */
  declare secret: string;
  declare name: string;
  declare by: string;
  declare at: Date;
}

/** Bind what belongs to archives and to who reads from outside. */
export function defineArchives(sequelize: Sequelize): void {
  const table = (tableName: string) => ({ sequelize, tableName, timestamps: false });
  const hash = () => ({ type: DataTypes.CHAR(64), allowNull: false });
  const key = (length: number) => ({ type: DataTypes.STRING(length), primaryKey: true });
  SeenRow.init({ kind: key(16), name: key(40), hash: { ...hash(), primaryKey: true } }, table('seen_states'));
  ImportRow.init(
    {
      id: { type: DataTypes.BIGINT.UNSIGNED, primaryKey: true, autoIncrement: true },
      fingerprint: hash(),
      ...{ scope: json('scope'), written: when(), by: text(8), at: when() },
    },
    table('imports'),
  );
  TokenRow.init({ id: id(), secret: text(64), name: text(60), by: text(8), at: when() }, table('tokens'));
}
