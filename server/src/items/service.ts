import type { Saved } from '@yosegi/contract';
import { type ItemAround, type ItemFacts, readBarcode, refuseItem } from '@yosegi/core/items';
import { countedIn, type Money } from '@yosegi/core/number';
import { Refusal } from '@yosegi/core/refusal';
import { parsePattern } from '@yosegi/core/tracking';
import { type BodyOf, type Doing, found, requireRight } from '../command/doing.ts';
import type { SqlRow, Writer } from '../db/database.ts';
import type { Row } from '../db/models/index.ts';
import { saved, updateVersioned } from '../db/versions.ts';
import { requireShelf } from '../places/index.ts';
import { aroundItem, dueWith, hasHistory, type ItemRow, itemRow, readItem } from './sql.ts';

type ItemInput = BodyOf<'createItem'>;

export async function createItem(doing: Doing, input: ItemInput): Promise<Saved> {
  const { tx } = doing;
  requireStandard(doing, input.standardCost, null);
  await refuseTakenCode(tx, input.code, null);
  const unit = await unitOf(tx, input.unitId);
  refuseContradiction(factsOf(input, unit), undefined, NOTHING_AROUND);
  const { decimals } = unit;
  const id = await tx.insert('item', await columns(tx, null, decimals, input));
  await writeParts(tx, id, decimals, input);
  doing.changed('items');
  return saved(tx, 'item', id);
}

export async function updateItem(doing: Doing, id: number, input: BodyOf<'updateItem'>): Promise<Saved> {
  const { tx } = doing;
  const before = found(await itemRow(tx, id));
  requireStandard(doing, input.standardCost, before.standard_cost);
  await refuseTakenCode(tx, input.code, id);
  const unit = await unitOf(tx, input.unitId);
  refuseContradiction(factsOf(input, unit), knownFacts(before), await aroundItem(tx, id));
  const { decimals } = unit;
  const values = await columns(tx, id, decimals, input);
  await updateVersioned(tx, 'item', id, input.version, values, () => readItem(tx, id));
  await writeParts(tx, id, decimals, input);
  // A picture is known by its item's code.
  doing.changed('items', 'stock', ...(input.code === before.code ? [] : ['pictures' as const]));
  return saved(tx, 'item', id);
}

/** A standard cost is set by who may say what stock is worth. @throws Refusal `owner-only` */
function requireStandard({ person }: Doing, to: Money | null, before: Money | null): void {
  if (to !== before) requireRight(person, 'value');
}

/** Changes prices alone, so that a price worked out beside a definition needs no whole item. */
export async function setPrices(doing: Doing, id: number, input: BodyOf<'setPrices'>): Promise<Saved> {
  const { tx } = doing;
  const before = found(await itemRow(tx, id));
  if (input.standardCost !== undefined) requireStandard(doing, input.standardCost, before.standard_cost);
  const values: SqlRow = {
    ...(input.sellPrice === undefined ? {} : { sell_price: input.sellPrice }),
    ...(input.standardCost === undefined ? {} : { standard_cost: input.standardCost }),
  };
  await updateVersioned(tx, 'item', id, input.version, values, () => readItem(tx, id));
  doing.changed('items', 'stock');
  return saved(tx, 'item', id);
}

/**
 * Takes an item out of use or brings it back.
 * @throws Refusal `archive-has-stock`, `archive-is-promised`, `archive-comes-into-use`
 */
export async function archiveItem(doing: Doing, id: number, input: BodyOf<'archiveItem'>) {
  const { tx } = doing;
  const row = found(await itemRow(tx, id));
  const before = knownFacts(row);
  refuseItem({ ...before, archived: input.archived }, before, await aroundItem(tx, id));
  if (input.archived) await refuseDue(tx, id, row.name);
  const values = { archived_at: input.archived ? doing.now.toISOString() : null };
  await updateVersioned(tx, 'item', id, input.version, values, () => readItem(tx, id));
  doing.changed('items', 'definitions');
  return saved(tx, 'item', id);
}

/** What comes into use on a day to come cannot lose a part until then. @throws Refusal `archive-comes-into-use` */
async function refuseDue(tx: Writer, id: number, name: string): Promise<void> {
  const due = await dueWith(tx, id);
  if (due) throw new Refusal('archive-comes-into-use', { name, product: due.code, day: due.on });
}

/** Deletes an item that nothing refers to. @throws Refusal `item-has-history` */
export async function deleteItem(doing: Doing, id: number): Promise<{ id: number }> {
  const { tx } = doing;
  found(await itemRow(tx, id));
  if (await hasHistory(tx, id)) throw new Refusal('item-has-history');
  await tx.models.item.destroy({ where: { id } });
  doing.changed('items', 'pictures');
  return { id };
}

interface UnitFacts {
  readonly code: string;
  readonly decimals: number;
}

async function unitOf(tx: Writer, unitId: number): Promise<UnitFacts> {
  const unit = await tx.models.unit.findByPk(unitId);
  if (!unit) throw new Refusal('unknown-choice', {}, 'unitId');
  return unit;
}

const NOTHING_AROUND: ItemAround = { hasHistory: false, hasStock: false, isPromised: false, isPacked: false };
const factsOf = ({ tracking }: ItemInput, unit: UnitFacts): ItemFacts => ({
  unit: unit.code,
  decimals: unit.decimals,
  tracking,
  archived: false,
});
const knownFacts = (row: ItemRow): ItemFacts => ({ ...row, archived: row.archived_at !== null });

/** The rule of the core, naming the fields as the form has them. */
function refuseContradiction(after: ItemFacts, before: ItemFacts | undefined, around: ItemAround): void {
  try {
    refuseItem(after, before, around);
  } catch (error) {
    throw error instanceof Refusal && error.field === 'unit' ? error.at('unitId') : error;
  }
}

/** @throws Refusal `serial-pattern` */
function patternOf(text: string): string {
  parsePattern(text, 'serialPattern');
  return text;
}

async function columns(tx: Writer, id: number | null, decimals: number, input: ItemInput): Promise<SqlRow> {
  if (input.homeBinId !== null) await requireShelf(tx, input.homeBinId, 'homeBinId');
  const barcode = input.barcode ? readBarcode(input.barcode) : null;
  if (barcode) await refuseTakenBarcode(tx, barcode, id);
  return {
    code: input.code,
    name: input.name,
    unit_id: input.unitId,
    source: input.source,
    tracking: input.tracking,
    lot_order: input.lotOrder,
    lot_fields: JSON.stringify(input.lotFields),
    return_days: input.returnDays,
    serial_pattern: input.serialPattern ? patternOf(input.serialPattern) : null,
    tax_free: input.taxFree ? 1 : 0,
    barcode,
    home_bin_id: input.homeBinId,
    sell_price: input.sellPrice,
    reorder_point: input.reorderPoint && countedIn(input.reorderPoint, decimals, 'reorderPoint'),
    standard_cost: input.standardCost,
    note: input.note,
  };
}

/** Replaces an item's packs, suppliers and custom fields by what was typed. */
async function writeParts(tx: Writer, item_id: number, decimals: number, input: ItemInput): Promise<void> {
  const packs = input.packs.map(({ name, one }, index) => ({
    item_id,
    name,
    quantity: countedIn(one, decimals, `packs.${index}.one`),
  }));
  refuseTwice(
    input.packs.map((pack) => pack.name),
    (index) => `packs.${index}.name`,
  );
  const suppliers = [];
  const breaks: Row<'item_supplier_break'>[] = [];
  for (const [index, supplier] of input.suppliers.entries()) {
    const at = (name: string) => `suppliers.${index}.${name}`;
    if (!(await tx.models.supplier.findByPk(supplier.supplierId)))
      throw new Refusal('unknown-choice', {}, at('supplierId'));
    suppliers.push({
      item_id,
      supplier_id: supplier.supplierId,
      code: supplier.code,
      price: supplier.price,
      pack: countedIn(supplier.pack, decimals, at('pack')),
      minimum: countedIn(supplier.minimum, decimals, at('minimum')),
      lead_days: supplier.leadDays,
    });
    const own = supplier.breaks.map(({ from, price }, nth) => ({
      ...{ item_id, supplier_id: supplier.supplierId, price },
      from_quantity: countedIn(from, decimals, at(`breaks.${nth}.from`)),
    }));
    refuseTwice(
      own.map(({ from_quantity }) => String(from_quantity)),
      (nth) => at(`breaks.${nth}.from`),
    );
    breaks.push(...own);
  }
  refuseTwice(
    input.suppliers.map((supplier) => String(supplier.supplierId)),
    (index) => `suppliers.${index}.supplierId`,
  );
  refuseTwice(
    input.fields.map((field) => field.name),
    (index) => `fields.${index}.name`,
  );
  const { item_pack, item_supplier, item_field } = tx.models;
  await item_pack.destroy({ where: { item_id } });
  await item_supplier.destroy({ where: { item_id } });
  await item_field.destroy({ where: { item_id } });
  await tx.insertMany('item_pack', packs);
  await tx.insertMany('item_supplier', suppliers);
  await tx.insertMany('item_supplier_break', breaks);
  await tx.insertMany(
    'item_field',
    input.fields.map((field) => ({ item_id, ...field })),
  );
}

/** @throws Refusal `twice` naming the second of two equal names */
export function refuseTwice(names: readonly string[], field: (index: number) => string): void {
  const lower = names.map((name) => name.toLowerCase());
  const second = lower.findIndex((name, index) => lower.indexOf(name) !== index);
  if (second >= 0) throw new Refusal('twice', { name: names[second] ?? '' }, field(second));
}

async function refuseTakenCode(tx: Writer, code: string, exceptId: number | null): Promise<void> {
  const other = await tx.models.item.findOne({ where: { code } });
  if (other && other.id !== exceptId) throw new Refusal('code-taken', { code, by: other.name, id: other.id }, 'code');
}

async function refuseTakenBarcode(tx: Writer, barcode: string, exceptId: number | null): Promise<void> {
  const other = await tx.models.item.findOne({ where: { barcode } });
  if (other && other.id !== exceptId) throw new Refusal('barcode-taken', { barcode, by: other.code }, 'barcode');
}
