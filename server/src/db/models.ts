import { DataTypes, Model, type InferAttributes, type InferCreationAttributes, type CreationOptional, type Sequelize } from 'sequelize';

type Json = Record<string, unknown>;

export class MachineRow extends Model<InferAttributes<MachineRow>, InferCreationAttributes<MachineRow>> {
  declare id: string;
  declare number: string;
  declare kind: string;
  declare card: Json;
  declare version: number;
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
}

/** One version of a limit sheet: never changed, because surveys were judged by it. */
export class LimitVersionRow extends Model<InferAttributes<LimitVersionRow>, InferCreationAttributes<LimitVersionRow>> {
  declare id: string;
  declare limitSheetId: string;
  declare version: number;
  declare content: Json;
  declare by: string;
  declare at: Date;
}

export class SurveyRow extends Model<InferAttributes<SurveyRow>, InferCreationAttributes<SurveyRow>> {
  declare id: string;
  declare machineId: string;
  declare title: string;
  declare startedAt: Date;
  declare endedAt: CreationOptional<Date | null>;
  declare school: CreationOptional<string>;
  /** Check ids in working order; null for the default ladder. */
  declare rungs: CreationOptional<string[] | null>;
  declare skipped: CreationOptional<object[] | null>;
  declare accepted: CreationOptional<object[] | null>;
  declare planned: CreationOptional<object[] | null>;
  declare standIns: CreationOptional<object[] | null>;
  declare bearings: CreationOptional<object[] | null>;
  declare byHand: CreationOptional<object[] | null>;
  /** A starting sheet by name, or a version of a sheet of the shop's own; neither means the machine's usual one. */
  declare startingLimits: CreationOptional<string | null>;
  declare limitVersionId: CreationOptional<string | null>;
  declare version: CreationOptional<number>;
}

export class CheckRow extends Model<InferAttributes<CheckRow>, InferCreationAttributes<CheckRow>> {
  declare id: string;
  declare surveyId: string;
  declare kind: string;
}

export class RoundRow extends Model<InferAttributes<RoundRow>, InferCreationAttributes<RoundRow>> {
  declare id: string;
  declare checkId: string;
  declare machineId: string;
  declare kind: string;
  declare setup: Json;
  declare plan: Json;
  declare instrument: Json | null;
  declare instrumentName: string | null;
  declare conditions: Json;
  declare purpose: Json | null;
  declare note: string | null;
  declare by: string;
  declare at: Date;
  declare version: number;
}

export class ReadingRow extends Model<InferAttributes<ReadingRow>, InferCreationAttributes<ReadingRow>> {
  declare id: string;
  declare roundId: string;
  declare sequence: number;
  declare keys: Json;
  /** As typed; null when the reading withdraws another. */
  declare value: string | null;
  /** Whether it was sent as a plain number. */
  declare bare: boolean;
  declare setUp: number;
  declare supersedes: string | null;
  declare why: string | null;
  declare by: string;
  declare at: Date;
}

export class MoveRow extends Model<InferAttributes<MoveRow>, InferCreationAttributes<MoveRow>> {
  declare id: string;
  declare roundId: string;
  declare kind: string;
  declare quantity: string;
  declare amount: number;
  declare unit: string;
  declare direction: string;
  declare plan: Json;
  declare ticks: number[];
  declare done: boolean;
  declare shift: string | null;
  declare by: string;
  declare at: Date;
  declare version: number;
}

export class LogRow extends Model<InferAttributes<LogRow>, InferCreationAttributes<LogRow>> {
  declare id: CreationOptional<number>;
  declare machineId: string | null;
  declare at: Date;
  declare by: string;
  declare what: string;
  declare text: string;
}

/** A JSON column; MariaDB hands it back as text. */
function json(field: string, allowNull = false) {
  return {
    type: DataTypes.JSON,
    allowNull,
    get(this: Model): unknown {
      const raw: unknown = this.getDataValue(field as never);
      return typeof raw === 'string' ? JSON.parse(raw) : raw;
    },
  };
}

// Sequelize writes into the column descriptions it is given: each use needs one of its own.
const id = () => ({ type: DataTypes.UUID, primaryKey: true });
const uuid = () => ({ type: DataTypes.UUID, allowNull: false });
const text = (length: number) => ({ type: DataTypes.STRING(length), allowNull: false });
const maybe = (length: number) => ({ type: DataTypes.STRING(length), allowNull: true });
const whole = () => ({ type: DataTypes.INTEGER.UNSIGNED, allowNull: false });
const when = () => ({ type: DataTypes.DATE(3), allowNull: false });
const version = () => ({ ...whole(), defaultValue: 1 });

/** Bind the models to a connection. */
export function defineModels(sequelize: Sequelize): void {
  const table = (tableName: string) => ({ sequelize, tableName, timestamps: false });
  MachineRow.init({ id: id(), number: text(24), kind: text(24), card: json('card'), version: version() }, table('machines'));
  KitRow.init(
    {
      id: id(),
      kind: text(24),
      name: text(60),
      data: json('data'),
      care: json('care', true),
      dueOn: { type: DataTypes.DATEONLY, allowNull: true },
      version: version(),
    },
    table('kit_items'),
  );
  AttachmentRow.init(
    { id: id(), kitItemId: uuid(), mime: text(40), bytes: { type: DataTypes.BLOB('medium'), allowNull: false }, by: text(8), at: when() },
    table('attachments'),
  );
  LimitSheetRow.init({ id: id(), name: text(60), version: version() }, table('limit_sheets'));
  LimitVersionRow.init(
    { id: id(), limitSheetId: uuid(), version: version(), content: json('content'), by: text(8), at: when() },
    table('limit_sheet_versions'),
  );
  SurveyRow.init(
    {
      id: id(),
      machineId: uuid(),
      title: text(120),
      startedAt: when(),
      endedAt: { ...when(), allowNull: true },
      school: { ...text(8), defaultValue: 'cascade' },
      rungs: json('rungs', true),
      skipped: json('skipped', true),
      accepted: json('accepted', true),
      planned: json('planned', true),
      standIns: json('standIns', true),
      bearings: json('bearings', true),
      byHand: json('byHand', true),
      startingLimits: maybe(24),
      limitVersionId: { type: DataTypes.UUID, allowNull: true },
      version: version(),
    },
    table('surveys'),
  );
  CheckRow.init({ id: id(), surveyId: uuid(), kind: text(60) }, table('checks'));
  RoundRow.init(
    {
      id: id(),
      checkId: uuid(),
      machineId: uuid(),
      kind: text(60),
      setup: json('setup'),
      plan: json('plan'),
      instrument: json('instrument', true),
      instrumentName: maybe(60),
      conditions: json('conditions'),
      purpose: json('purpose', true),
      note: { type: DataTypes.TEXT, allowNull: true },
      by: text(8),
      at: when(),
      version: version(),
    },
    table('rounds'),
  );
  ReadingRow.init(
    {
      id: id(),
      roundId: uuid(),
      sequence: whole(),
      keys: json('keys'),
      value: maybe(60),
      bare: { type: DataTypes.BOOLEAN, allowNull: false },
      setUp: whole(),
      supersedes: { type: DataTypes.UUID, allowNull: true },
      why: maybe(200),
      by: text(8),
      at: when(),
    },
    table('readings'),
  );
  MoveRow.init(
    {
      id: id(),
      roundId: uuid(),
      kind: text(40),
      quantity: text(60),
      amount: { type: DataTypes.DOUBLE, allowNull: false },
      unit: text(20),
      direction: text(60),
      plan: json('plan'),
      ticks: json('ticks'),
      done: { type: DataTypes.BOOLEAN, allowNull: false },
      shift: maybe(60),
      by: text(8),
      at: when(),
      version: version(),
    },
    table('moves'),
  );
  LogRow.init(
    {
      id: { type: DataTypes.BIGINT.UNSIGNED, primaryKey: true, autoIncrement: true },
      machineId: { type: DataTypes.UUID, allowNull: true },
      at: when(),
      by: text(8),
      what: text(40),
      text: text(400),
    },
    table('log_entries'),
  );
}
