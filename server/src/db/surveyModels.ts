import { DataTypes, Model, type CreationOptional, type InferAttributes, type InferCreationAttributes, type Sequelize } from 'sequelize';
import { id, json, maybe, maybeUuid, maybeWhen, no, text, uuid, version, when, whole } from './columns.js';

type Json = Record<string, unknown>;

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
  /** A starting sheet by name, or a version of a sheet of the shop's own; neither means the machine's usual one. */
  declare startingLimits: CreationOptional<string | null>;
  declare limitVersionId: CreationOptional<string | null>;
  declare version: CreationOptional<number>;
  /** Since when it is in the archive, and by whom; null where it is not. */
  declare archived: CreationOptional<Record<string, unknown> | null>;
}

/** One thing written down in a survey. Never changed: another supersedes it. */
export class NoteRow extends Model<InferAttributes<NoteRow>, InferCreationAttributes<NoteRow>> {
  declare id: string;
  /** In which it was written down. */
  declare sequence: CreationOptional<number>;
  declare surveyId: string;
  declare kind: string;
  declare content: Json;
  declare supersedes: string | null;
  declare by: string;
  declare at: Date;
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
  /** Its date lay beyond the server's own time when it came in, and nobody has put it right yet. */
  declare ahead: CreationOptional<boolean>;
  /** Who struck it out, when and why; null for one that counts. */
  declare struck: CreationOptional<Json | null>;
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
  declare shift: string | null;
  declare made: CreationOptional<Json | null>;
  declare by: string;
  declare begunAt: Date;
  declare doneAt: Date | null;
  declare version: number;
}

/** What a round said, for its last reading, its version, the judging of its survey and the core that worked it out. */
export class FindingRow extends Model<InferAttributes<FindingRow>, InferCreationAttributes<FindingRow>> {
  declare roundId: string;
  declare sequence: number;
  declare version: number;
  declare judging: string;
  declare core: string;
  /** Those that its quantities have, each once, in the order of the alphabet: 'in,out'; '' where none has any. */
  declare verdicts: string;
  declare head: Json;
}

/** Bind what belongs to a survey: notes, checks, rounds, readings, moves, findings. */
export function defineSurveys(sequelize: Sequelize): void {
  const table = (tableName: string) => ({ sequelize, tableName, timestamps: false });
  SurveyRow.init(
    {
      id: id(),
      machineId: uuid(),
      title: text(120),
      startedAt: when(),
      endedAt: maybeWhen(),
      school: { ...text(8), defaultValue: 'cascade' },
      rungs: json('rungs', true),
      skipped: json('skipped', true),
      startingLimits: maybe(24),
      limitVersionId: maybeUuid(),
      archived: json('archived', true),
      version: version(),
    },
    table('surveys'),
  );
  const signed = () => ({ by: text(8), at: when() });
  const sequence = { type: DataTypes.BIGINT.UNSIGNED, autoIncrement: true, allowNull: false };
  NoteRow.init(
    { id: id(), sequence, surveyId: uuid(), kind: text(24), content: json('content'), supersedes: maybeUuid(), ...signed() },
    table('survey_notes'),
  );
  CheckRow.init({ id: id(), surveyId: uuid(), kind: text(60) }, table('checks'));
  const described = {
    setup: json('setup'),
    plan: json('plan'),
    instrument: json('instrument', true),
    instrumentName: maybe(60),
    conditions: json('conditions'),
    purpose: json('purpose', true),
    note: { type: DataTypes.TEXT, allowNull: true },
  };
  RoundRow.init(
    {
      id: id(),
      checkId: uuid(),
      machineId: uuid(),
      kind: text(60),
      ...described,
      ahead: no(),
      struck: json('struck', true),
      ...signed(),
      version: version(),
    },
    table('rounds'),
  );
  const bare = { type: DataTypes.BOOLEAN, allowNull: false };
  const taken = { keys: json('keys'), value: maybe(60), bare, setUp: whole(), supersedes: maybeUuid(), why: maybe(200) };
  ReadingRow.init({ id: id(), roundId: uuid(), sequence: whole(), ...taken, ...signed() }, table('readings'));
  const decided = { kind: text(40), quantity: text(60), amount: { type: DataTypes.DOUBLE, allowNull: false }, unit: text(20) };
  const worked = { plan: json('plan'), ticks: json('ticks'), shift: maybe(60), made: json('made', true) };
  MoveRow.init(
    {
      id: id(),
      roundId: uuid(),
      ...decided,
      direction: text(60),
      ...worked,
      by: text(8),
      begunAt: when(),
      doneAt: maybeWhen(),
      version: version(),
    },
    table('moves'),
  );
  const key = { sequence: whole(), version: whole(), judging: text(160), core: text(20), verdicts: text(16) };
  FindingRow.init({ roundId: { ...id() }, ...key, head: json('head') }, table('findings'));
}
