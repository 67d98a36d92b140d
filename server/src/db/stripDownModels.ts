import { DataTypes, Model, type InferAttributes, type InferCreationAttributes, type Sequelize } from 'sequelize';
import type { Fitted, MarkedPicture, Need, NeedState } from '@isometra/contract';
import { id, json, maybe, text, uuid, version, when, whole } from './columns.js';

/** Something of a machine that is taken apart. */
export class StripDownRow extends Model<InferAttributes<StripDownRow>, InferCreationAttributes<StripDownRow>> {
  declare id: string;
  declare machineId: string;
  declare name: string;
  declare archived: boolean;
  declare begunAt: Date;
  declare version: number;
}

/** A part that came off. */
export class PartRow extends Model<InferAttributes<PartRow>, InferCreationAttributes<PartRow>> {
  declare id: string;
  declare stripDownId: string;
  declare number: number;
  declare place: number;
  declare details: Record<string, unknown>;
  declare need: Need | null;
  declare fitted: Fitted | null;
  declare pictures: MarkedPicture[];
  declare needState: NeedState | null;
  declare standing: true | null;
  declare version: number;
}

export function defineStripDowns(sequelize: Sequelize): void {
  StripDownRow.init(
    {
      ...{ id: id(), machineId: uuid(), name: text(60), begunAt: when(), version: version() },
      archived: { type: DataTypes.BOOLEAN, allowNull: false, defaultValue: false },
    },
    { sequelize, tableName: 'strip_downs', timestamps: false },
  );
  PartRow.init(
    {
      ...{ id: id(), stripDownId: uuid(), number: whole(), version: version() },
      place: { type: DataTypes.DOUBLE, allowNull: false },
      ...{ details: json('details'), need: json('need', true), fitted: json('fitted', true), pictures: json('pictures') },
      needState: maybe(10),
      standing: { type: DataTypes.BOOLEAN, allowNull: true },
    },
    { sequelize, tableName: 'parts', timestamps: false },
  );
}
