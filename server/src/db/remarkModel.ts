import { DataTypes, Model, type CreationOptional, type InferAttributes, type InferCreationAttributes, type Sequelize } from 'sequelize';
import type { MarkedPicture, RemarkPlace } from '@isometra/contract';
import { id, json, maybe, maybeUuid, text, when } from './columns.js';

/** A note from any screen. Never changed: another supersedes it. */
export class RemarkRow extends Model<InferAttributes<RemarkRow>, InferCreationAttributes<RemarkRow>> {
  declare id: string;
  declare sequence: CreationOptional<number>;
  declare machineId: string | null;
  declare part: string | null;
  declare place: RemarkPlace;
  /** The address alone, to look for. */
  declare path: string;
  declare text: string;
  declare pictures: MarkedPicture[];
  declare supersedes: string | null;
  declare by: string;
  declare at: Date;
}

export function defineRemarks(sequelize: Sequelize): void {
  RemarkRow.init(
    {
      id: id(),
      sequence: { type: DataTypes.BIGINT.UNSIGNED, autoIncrement: true, allowNull: false },
      machineId: maybeUuid(),
      part: maybe(60),
      place: json('place'),
      path: text(300),
      text: { type: DataTypes.TEXT, allowNull: false },
      pictures: json('pictures'),
      supersedes: maybeUuid(),
      by: text(8),
      at: when(),
    },
    { sequelize, tableName: 'remarks', timestamps: false },
  );
}
