import { DataTypes, Model, type CreationOptional, type InferAttributes, type InferCreationAttributes, type Sequelize } from 'sequelize';
import { id, json, maybeUuid, text, uuid, version, when, whole } from './columns.js';

type Json = Record<string, unknown>;

/** A picture by what is in it; its bytes are in parts. */
export class PictureRow extends Model<InferAttributes<PictureRow>, InferCreationAttributes<PictureRow>> {
  declare hash: string;
  declare type: string;
  declare width: number;
  declare height: number;
  declare size: number;
  declare by: string;
  declare at: Date;
}

export class PicturePartRow extends Model<InferAttributes<PicturePartRow>, InferCreationAttributes<PicturePartRow>> {
  declare hash: string;
  declare part: number;
  declare bytes: Buffer;
}

export class SurfaceRow extends Model<InferAttributes<SurfaceRow>, InferCreationAttributes<SurfaceRow>> {
  declare id: string;
  declare machineId: string;
  declare name: string;
  declare card: Json;
  declare version: number;
}

/** One thing written down at the scraping desk. Never changed: another supersedes it. */
export class SurfaceEntryRow extends Model<InferAttributes<SurfaceEntryRow>, InferCreationAttributes<SurfaceEntryRow>> {
  declare id: string;
  declare sequence: CreationOptional<number>;
  declare surfaceId: string;
  declare kind: string;
  declare content: Json;
  declare supersedes: string | null;
  declare by: string;
  declare at: Date;
}

/** Bind what belongs to the scraping desk. */
export function defineScraping(sequelize: Sequelize): void {
  const table = (tableName: string) => ({ sequelize, tableName, timestamps: false });
  const hash = () => ({ type: DataTypes.CHAR(64), primaryKey: true, allowNull: false });
  PictureRow.init(
    { hash: hash(), type: text(8), width: whole(), height: whole(), size: whole(), by: text(8), at: when() },
    table('pictures'),
  );
  const bytes = { type: DataTypes.BLOB('medium'), allowNull: false };
  PicturePartRow.init({ hash: hash(), part: { ...whole(), primaryKey: true }, bytes }, table('picture_parts'));
  SurfaceRow.init({ id: id(), machineId: uuid(), name: text(60), card: json('card'), version: version() }, table('surfaces'));
  SurfaceEntryRow.init(
    {
      id: id(),
      sequence: { type: DataTypes.BIGINT.UNSIGNED, autoIncrement: true, allowNull: false },
      surfaceId: uuid(),
      kind: text(12),
      content: json('content'),
      supersedes: maybeUuid(),
      by: text(8),
      at: when(),
    },
    table('surface_entries'),
  );
}
