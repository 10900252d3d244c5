import { DataTypes, type ModelAttributeColumnOptions } from 'sequelize';

declare const held: unique symbol;

/** A column with the type of what it holds. */
export interface Column<T> {
  readonly attribute: ModelAttributeColumnOptions;
  readonly [held]?: T;
}

/** Columns of a table by name. */
export type Columns = Readonly<Record<string, Column<unknown>>>;
/** A row of a table with these columns, as SQL and models read it. */
export type RowOf<C extends Columns> = { [K in keyof C]: C[K] extends Column<infer T> ? T : never };

const column = <T>(attribute: ModelAttributeColumnOptions): Column<T> => ({
  attribute: { allowNull: false, ...attribute },
});
const withDefault = (defaultValue: unknown) => (defaultValue === undefined ? {} : { defaultValue });

/** The number of a row. */
export const key = () =>
  column<number>({ type: DataTypes.INTEGER, primaryKey: true, autoIncrement: true, allowNull: true });
export const text = <T extends string = string>(fallback?: NoInfer<T>) =>
  column<T>({ type: DataTypes.TEXT, ...withDefault(fallback) });
export const integer = <T extends number = number>(fallback?: number) =>
  column<T>({ type: DataTypes.INTEGER, ...withDefault(fallback) });
/** 0 or 1. */
export const flag = (fallback?: 0 | 1) => integer(fallback);
export const blob = () => column<Buffer>({ type: DataTypes.BLOB });
/** Counts the changes of a record that people edit. */
export const version = () => integer(0);

/** The row of another table. */
export const ref = (table: string, onDelete: 'CASCADE' | 'NO ACTION' = 'NO ACTION') =>
  column<number>({ type: DataTypes.INTEGER, references: { model: table, key: '' }, onDelete });
/** The same where that table is known by words. */
export const refText = <T extends string = string>(table: string) =>
  column<T>({ type: DataTypes.TEXT, references: { model: table, key: '' }, onDelete: 'NO ACTION' });

export const maybe = <T>({ attribute }: Column<T>): Column<T | null> => ({
  attribute: { ...attribute, allowNull: true },
});
/** Part of what tells a row from others. SQLite lets a single number stand for the row itself. */
export const primary = <T>({ attribute }: Column<T>): Column<T> => ({ attribute: { ...attribute, primaryKey: true } });
