import { DataTypes, type Model } from 'sequelize';

// Sequelize writes into the column descriptions it is given: each use needs one of its own.
export const id = () => ({ type: DataTypes.UUID, primaryKey: true, allowNull: false });
export const uuid = () => ({ type: DataTypes.UUID, allowNull: false });
export const maybeUuid = () => ({ type: DataTypes.UUID, allowNull: true });
export const text = (length: number) => ({ type: DataTypes.STRING(length), allowNull: false });
export const maybe = (length: number) => ({ type: DataTypes.STRING(length), allowNull: true });
export const whole = () => ({ type: DataTypes.INTEGER.UNSIGNED, allowNull: false });
export const when = () => ({ type: DataTypes.DATE(3), allowNull: false });
export const maybeWhen = () => ({ type: DataTypes.DATE(3), allowNull: true });
export const no = () => ({ type: DataTypes.BOOLEAN, allowNull: false, defaultValue: false });
export const version = () => ({ ...whole(), defaultValue: 1 });

/** JSON as the database hands it back: as text, or taken apart by the driver. */
export function fromJson<Kept = Record<string, unknown>>(raw: unknown): Kept | null {
  return (typeof raw === 'string' ? JSON.parse(raw) : raw) as Kept | null;
}

/** A JSON column for a model; MariaDB hands it back as text. */
export function json(field: string, allowNull = false) {
  return {
    type: DataTypes.JSON,
    allowNull,
    get(this: Model<Record<string, unknown>>): unknown {
      return fromJson(this.getDataValue(field));
    },
  };
}
