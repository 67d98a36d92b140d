import { DataTypes, Model, type CreationOptional, type InferAttributes, type InferCreationAttributes, type Sequelize } from 'sequelize';
import type { MachineCardText, Working } from '@isometra/contract';
import type { LimitSheet } from '@isometra/core';
import { id, json, maybe, maybeWhen, text, uuid, version, when, whole } from './columns.js';

type Json = Record<string, unknown>;

export class MachineRow extends Model<InferAttributes<MachineRow>, InferCreationAttributes<MachineRow>> {
  declare id: string;
  declare number: string;
  declare kind: string;
  declare card: MachineCardText;
  declare version: number;
  declare archived: CreationOptional<Json | null>;
}

export class KitRow extends Model<InferAttributes<KitRow>, InferCreationAttributes<KitRow>> {
  declare id: string;
  declare kind: string;
  declare name: string;
  declare data: Json;
  declare care: CreationOptional<Json | null>;
  /** Until when its certificate counts: a date, for the list of what is overdue. */
  declare dueOn: CreationOptional<string | null>;
  declare version: number;
  declare archived: CreationOptional<Json | null>;
}

/** A photograph of a piece of kit. */
export class AttachmentRow extends Model<InferAttributes<AttachmentRow>, InferCreationAttributes<AttachmentRow>> {
  declare id: string;
  declare kitItemId: string;
  declare mime: string;
  declare bytes: Buffer;
  declare by: string;
  declare at: Date;
}

export class LimitSheetRow extends Model<InferAttributes<LimitSheetRow>, InferCreationAttributes<LimitSheetRow>> {
  declare id: string;
  declare name: string;
  /** The newest version. */
  declare version: number;
  declare archived: CreationOptional<Json | null>;
}

/** One version of a limit sheet: never changed, because surveys were judged by it. */
export class LimitVersionRow extends Model<InferAttributes<LimitVersionRow>, InferCreationAttributes<LimitVersionRow>> {
  declare id: string;
  declare limitSheetId: string;
  declare version: number;
  declare content: LimitSheet;
  declare by: string;
  declare at: Date;
}

/** Who did what, to a machine or (without one) to the shop. */
export class LogRow extends Model<InferAttributes<LogRow>, InferCreationAttributes<LogRow>> {
  declare id: CreationOptional<number>;
  declare machineId: string | null;
  declare at: Date;
  declare by: string;
  declare what: string;
  declare text: string;
  /** The check or the face it belongs to. */
  declare part: CreationOptional<string | null>;
  declare thing: CreationOptional<string | null>;
  declare thingId: CreationOptional<string | null>;
  declare was: CreationOptional<string | null>;
}

/** One thing that is settled for the whole shop, by its name. */
export class PersonRow extends Model<InferAttributes<PersonRow>, InferCreationAttributes<PersonRow>> {
  declare initials: string;
  declare name: string;
  /** Whose initials they were meant to be; null for a person. */
  declare meant: string | null;
  declare working: CreationOptional<Working | null>;
}

export class SettingRow extends Model<InferAttributes<SettingRow>, InferCreationAttributes<SettingRow>> {
  declare name: string;
  declare value: string;
  /** Who settled it; null where nobody did and the first browser's was taken. */
  declare by: string | null;
  declare at: Date;
}

/** A phone or tablet that was let in from the network. */
export class DeviceRow extends Model<InferAttributes<DeviceRow>, InferCreationAttributes<DeviceRow>> {
  declare id: string;
  declare name: string;
  /** argon2id of what it shows. */
  declare secret: string;
  declare pairedAt: Date;
  declare seenAt: Date;
}

/** One state of a card, a piece of kit or a face: written once, never changed. */
export class EarlierStateRow extends Model<InferAttributes<EarlierStateRow>, InferCreationAttributes<EarlierStateRow>> {
  declare id: CreationOptional<number>;
  declare what: string;
  declare thingId: string;
  declare version: number;
  declare state: Json;
  declare by: string | null;
  declare at: Date | null;
}

/** Bind what belongs to the shop: machines, kit, limit sheets, the log. */
export function defineShop(sequelize: Sequelize): void {
  const table = (tableName: string) => ({ sequelize, tableName, timestamps: false });
  MachineRow.init(
    { id: id(), number: text(24), kind: text(24), card: json('card'), version: version(), archived: json('archived', true) },
    table('machines'),
  );
  KitRow.init(
    {
      id: id(),
      kind: text(24),
      name: text(60),
      data: json('data'),
      care: json('care', true),
      dueOn: { type: DataTypes.DATEONLY, allowNull: true },
      version: version(),
      archived: json('archived', true),
    },
    table('kit_items'),
  );
  const bytes = { type: DataTypes.BLOB('medium'), allowNull: false };
  AttachmentRow.init({ id: id(), kitItemId: uuid(), mime: text(40), bytes, by: text(8), at: when() }, table('attachments'));
  LimitSheetRow.init({ id: id(), name: text(60), version: version(), archived: json('archived', true) }, table('limit_sheets'));
  LimitVersionRow.init(
    { id: id(), limitSheetId: uuid(), version: version(), content: json('content'), by: text(8), at: when() },
    table('limit_sheet_versions'),
  );
  LogRow.init(
    {
      id: { type: DataTypes.BIGINT.UNSIGNED, primaryKey: true, autoIncrement: true },
      machineId: { type: DataTypes.UUID, allowNull: true },
      at: when(),
      by: text(8),
      what: text(40),
      text: { type: DataTypes.TEXT('medium'), allowNull: false },
      part: maybe(60),
      thing: maybe(16),
      thingId: { type: DataTypes.UUID, allowNull: true },
      was: maybe(200),
    },
    table('log_entries'),
  );
  PersonRow.init(
    { initials: { type: DataTypes.STRING(8), primaryKey: true }, name: text(60), meant: maybe(8), working: json('working', true) },
    table('people'),
  );
  SettingRow.init(
    { name: { type: DataTypes.STRING(40), primaryKey: true }, value: { type: DataTypes.TEXT, allowNull: false }, by: maybe(8), at: when() },
    table('shop_settings'),
  );
  EarlierStateRow.init(
    {
      id: { type: DataTypes.BIGINT.UNSIGNED, primaryKey: true, autoIncrement: true },
      what: text(24),
      thingId: uuid(),
      version: whole(),
      state: json('state'),
      by: maybe(8),
      at: maybeWhen(),
    },
    table('earlier_states'),
  );
  DeviceRow.init({ id: id(), name: text(40), secret: text(200), pairedAt: when(), seenAt: when() }, table('paired_devices'));
}
