import { DataTypes, Model, type CreationOptional, type InferAttributes, type InferCreationAttributes, type Sequelize } from 'sequelize';
import type { PlanSettled } from '@isometra/contract';
import { id, json, text, uuid, when, whole } from './columns.js';

/** What people settled of the plan of a machine. */
export class PlanRow extends Model<InferAttributes<PlanRow>, InferCreationAttributes<PlanRow>> {
  declare machineId: string;
  declare settled: PlanSettled;
  declare version: number;
}

/** A date that was named for the end of a survey. Days as 2026-11-29. */
export class NamedDateRow extends Model<InferAttributes<NamedDateRow>, InferCreationAttributes<NamedDateRow>> {
  declare id: CreationOptional<number>;
  declare surveyId: string;
  declare namedOn: string;
  declare p10: string;
  declare p50: string;
  declare p90: string;
}

/** An address under which the calendar of the shop can be fetched. */
export class CalendarRow extends Model<InferAttributes<CalendarRow>, InferCreationAttributes<CalendarRow>> {
  declare id: string;
  declare secret: string;
  declare name: string;
  declare by: string;
  declare at: Date;
}

const day = () => ({ type: DataTypes.DATEONLY, allowNull: false });

/** Bind what belongs to plans. */
export function definePlans(sequelize: Sequelize): void {
  const table = (tableName: string) => ({ sequelize, tableName, timestamps: false });
  PlanRow.init({ machineId: { type: DataTypes.UUID, primaryKey: true }, settled: json('settled'), version: whole() }, table('plans'));
  NamedDateRow.init(
    {
      id: { type: DataTypes.BIGINT.UNSIGNED, primaryKey: true, autoIncrement: true },
      surveyId: uuid(),
      ...{ namedOn: day(), p10: day(), p50: day(), p90: day() },
    },
    table('named_dates'),
  );
  CalendarRow.init({ id: id(), secret: text(64), name: text(60), by: text(8), at: when() }, table('calendars'));
}
