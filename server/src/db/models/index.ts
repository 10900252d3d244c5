import type { Model, ModelStatic, Sequelize } from 'sequelize';
import type { Columns } from './columns.ts';
import { type Row, type TableName, tables } from './tables.ts';

export type { Row, TableName } from './tables.ts';

/** What may be asked for along with a record, by the name in {@link OWNED}. */
interface With {
  readonly finish: { readonly lines?: readonly Row<'finish_line'>[] };
}
/** One record as a model has it. */
export type Record<T extends TableName> = Model<Row<T>, Partial<Row<T>>> &
  Row<T> &
  (T extends keyof With ? With[T] : unknown);
/** The models of one connection. */
export type Models = { readonly [T in TableName]: ModelStatic<Record<T>> };

/** What belongs to a record and goes with it, by the name it is called there. */
const OWNED: readonly (readonly [owner: TableName, owned: TableName, column: string, as: string])[] = [
  ['store', 'bin', 'store_id', 'bins'],
  ['unit', 'unit_related', 'unit_id', 'related'],
  ['item', 'item_pack', 'item_id', 'packs'],
  ['item', 'item_field', 'item_id', 'fields'],
  ['item', 'item_supplier', 'item_id', 'suppliers'],
  ['definition', 'definition_field', 'definition_id', 'fields'],
  ['definition', 'revision', 'definition_id', 'revisions'],
  ['revision', 'revision_line', 'revision_id', 'lines'],
  ['revision_line', 'revision_line_alternate', 'line_id', 'alternates'],
  ['build', 'build_line', 'build_id', 'lines'],
  ['finish', 'finish_line', 'document_id', 'lines'],
  ['take_apart', 'take_apart_line', 'document_id', 'lines'],
  ['purchase_order', 'purchase_order_line', 'order_id', 'lines'],
  ['purchase_order', 'mail', 'order_id', 'mail'],
  ['purchase_order_line', 'purchase_need', 'line_id', 'needs'],
  ['receipt', 'receipt_line', 'document_id', 'lines'],
  ['stock_count', 'stock_count_line', 'count_id', 'lines'],
  ['customer', 'customer_field', 'customer_id', 'fields'],
  ['sales_order', 'order_line', 'order_id', 'lines'],
  ['order_line', 'order_part', 'line_id', 'parts'],
  ['sales_order', 'parcel', 'order_id', 'parcels'],
  ['shipment', 'shipment_line', 'document_id', 'lines'],
  ['document', 'movement', 'document_id', 'movements'],
  ['document', 'document_value', 'document_id', 'values'],
];

/** Models of every table on one connection, with what refers to what. A record with a version is saved by it. */
export function defineModels(sequelize: Sequelize): Models {
  const models = new Map<string, ModelStatic<Model>>();
  for (const [name, columns] of Object.entries<Columns>(tables)) {
    const attributes = Object.fromEntries(
      Object.entries(columns).map(([column, { attribute }]) => [column, { ...attribute }]),
    );
    const options = { tableName: name, freezeTableName: true, timestamps: false, version: 'version' in columns };
    const model = sequelize.define(name, attributes, options);
    if (!Object.values(attributes).some(({ primaryKey }) => primaryKey)) model.removeAttribute('id');
    models.set(name, model);
  }
  const of = (name: string) => models.get(name) as ModelStatic<Model>;
  // Both ends, so that either can be asked for with the other. What only points somewhere is joined in SQL.
  for (const [owner, owned, foreignKey, as] of OWNED) {
    of(owner).hasMany(of(owned), { foreignKey, as, constraints: false });
    of(owned).belongsTo(of(owner), { foreignKey, as: foreignKey.replace(/_id$/, ''), constraints: false });
  }
  return Object.fromEntries(models) as unknown as Models;
}
