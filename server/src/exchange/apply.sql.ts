import { dayOf } from '@yosegi/core/days';
import {
  alternatesOf,
  behaviourOf,
  breaksIn,
  FIELD_PREFIX,
  type FileKindName,
  type FileRecord,
  namesIn,
  type PlannedChange,
} from '@yosegi/core/exchange';
import { parseDecimal, parseMoney, parseQuantity } from '@yosegi/core/number';
import { can } from '@yosegi/core/people';
import { Refusal } from '@yosegi/core/refusal';
import { receive } from '../buying/index.ts';
import { type Doing, found } from '../command/doing.ts';
import type { SqlRow, Writer } from '../db/database.ts';
import { applyCustomers, applyOrders } from './apply-orders.sql.ts';

export interface Applying {
  readonly changes: readonly PlannedChange[];
  /** The file's name, for the remark of what it posts. */
  readonly file: string;
  /** Called between chunks; throws to stop, and then nothing of it remains. */
  onProgress(done: number): void;
}

/** Records brought in between two looks at whether to go on. */
const CHUNK = 500;

/** Brings in what a plan decided, in bulk, inside the transaction of the command. @returns the document it posted, if any */
export async function applyChanges(doing: Doing, kind: FileKindName, applying: Applying): Promise<number | null> {
  if (kind === 'stock') return applyStock(doing, applying);
  if (kind === 'items') await applyItems(doing, applying);
  else if (kind === 'prices') await applyPrices(doing, applying);
  else if (kind === 'customers') await applyCustomers(doing, applying);
  else if (kind === 'orders') await applyOrders(doing, applying);
  else await applyDefinitions(doing, applying);
  doing.changed('items', 'stock', 'definitions', 'orders');
  return null;
}

const amount = (cell: string | undefined) => (cell ? parseDecimal(cell) : null);
const orZero = (cell: string | undefined) => amount(cell) ?? 0;
const flag = (cell: string | undefined) => (cell === 'yes' ? 1 : 0);

/** Ids by code in lower case. */
async function idsByCode(tx: Writer, sql: string): Promise<Map<string, number>> {
  const rows = await tx.all<{ code: string; id: number }>(sql);
  return new Map(rows.map(({ code, id }) => [code.toLowerCase(), id]));
}
const ITEM_IDS = 'SELECT code, id FROM item';
const BIN_IDS = "SELECT s.code || '/' || b.code AS code, b.id FROM bin b JOIN store s ON s.id = b.store_id";

/** The next free id of a table: rows that refer to each other can then go in together. */
const nextId = async (tx: Writer, table: 'item' | 'definition' | 'revision' | 'revision_line' | 'supplier') =>
  found(await tx.one<{ next: number }>(`SELECT ifnull(max(id), 0) + 1 AS next FROM ${table}`)).next;

async function applyItems(doing: Doing, { changes, onProgress }: Applying): Promise<void> {
  const { tx, now } = doing;
  await requireStandards(doing, changes);
  const units = await idsByCode(tx, 'SELECT code, id FROM unit');
  const bins = await idsByCode(tx, BIN_IDS);
  const ids = await idsByCode(tx, ITEM_IDS);
  const archivedAt = now.toISOString();
  const columns = (record: FileRecord): SqlRow => ({
    code: record.code ?? '',
    name: record.name ?? '',
    unit_id: units.get((record.unit ?? '').toLowerCase()) ?? 1,
    source: record.source ?? 'bought',
    tracking: record.tracking ?? 'none',
    serial_pattern: record.serialPattern || null,
    lot_order: record.lotOrder ?? 'prescribed',
    lot_fields: JSON.stringify(namesIn(record.lotFields ?? '')),
    return_days: record.returnDays ? Number(record.returnDays) : null,
    home_bin_id: bins.get((record.homeBin ?? '').toLowerCase()) ?? null,
    sell_price: amount(record.sellPrice),
    tax_free: flag(record.taxFree),
    reorder_point: amount(record.reorderPoint),
    standard_cost: amount(record.standardCost),
    barcode: record.barcode || null,
    note: record.note ?? '',
    archived_at: record.archived === 'yes' ? archivedAt : null,
  });
  const changed = changes.filter(({ fate }) => fate === 'changed');
  // Barcodes may change hands within the file: everyone lets go before anyone takes.
  await tx.run('UPDATE item SET barcode = NULL WHERE id IN (SELECT value FROM json_each($1))', [
    JSON.stringify(changed.flatMap(({ key }) => ids.get(key) ?? [])),
  ]);
  let next = await nextId(tx, 'item');
  let done = 0;
  for (let at = 0; at < changes.length; at += CHUNK) {
    onProgress(done);
    const chunk = changes.slice(at, at + CHUNK).map(({ fate, key, rows }) => {
      const id = fate === 'new' ? next++ : found(ids.get(key));
      return { fate, id, record: found(rows[0]) };
    });
    const added = chunk.filter(({ fate }) => fate === 'new');
    await tx.insertMany(
      'item',
      added.map(({ id, record }) => ({ id, ...columns(record) })),
    );
    for (const { fate, id, record } of chunk) if (fate === 'changed') await updateItem(tx, id, columns(record));
    await tx.insertMany(
      'item_pack',
      chunk.flatMap(({ id, record }) => packsOf(id, record)),
    );
    await tx.insertMany(
      'item_field',
      chunk.flatMap(({ id, record }) => fieldsOf(id, record)),
    );
    done += chunk.length;
  }
}

/** Standard costs in a file are set by who may say what stock is worth. @throws Refusal `owner-only` */
async function requireStandards({ tx, person }: Doing, changes: Applying['changes']): Promise<void> {
  if (can(person, 'value')) return;
  const known = await tx.all<{ code: string; standard_cost: number | null }>('SELECT code, standard_cost FROM item');
  const before = new Map(known.map((row) => [row.code.toLowerCase(), row.standard_cost]));
  for (const { key, rows } of changes)
    if (amount(rows[0]?.standardCost) !== (before.get(key) ?? null)) throw new Refusal('owner-only');
}

async function updateItem(tx: Writer, id: number, values: SqlRow): Promise<void> {
  const { archived_at, ...rest } = values;
  const names = Object.keys(rest);
  const sets = names.map((name, index) => `${name} = $${index + 3}`);
  // An item that was archived before keeps its day.
  await tx.run(
    `UPDATE item SET ${sets.join(', ')}, archived_at = CASE WHEN $2 IS NULL THEN NULL ELSE ifnull(archived_at, $2) END,
       version = version + 1 WHERE id = $1`,
    [id, archived_at ?? null, ...Object.values(rest)],
  );
  await tx.run('DELETE FROM item_pack WHERE item_id = $1', [id]);
  await tx.run('DELETE FROM item_field WHERE item_id = $1', [id]);
}

const packsOf = (item_id: number, record: FileRecord): SqlRow[] =>
  (record.packs ?? '')
    .split('; ')
    .filter(Boolean)
    .map((pack) => {
      const [name = '', size = ''] = pack.split(' = ');
      return { item_id, name, quantity: parseDecimal(size) };
    });

const fieldsOf = (item_id: number, record: FileRecord): SqlRow[] =>
  Object.entries(record)
    .filter(([key, value]) => key.startsWith(FIELD_PREFIX) && value !== '')
    .map(([key, value]) => ({ item_id, name: key.slice(FIELD_PREFIX.length), value }));

async function applyPrices({ tx }: Doing, { changes, onProgress }: Applying): Promise<void> {
  const items = await idsByCode(tx, ITEM_IDS);
  const suppliers = await idsByCode(tx, 'SELECT code, id FROM supplier');
  let next = await nextId(tx, 'supplier');
  const added = new Map<string, SqlRow>();
  for (const { rows } of changes) {
    const { supplier = '', supplierName } = rows[0] ?? {};
    const key = supplier.toLowerCase();
    const known = added.get(key);
    if (known && supplierName) known.name = supplierName;
    if (known || suppliers.has(key)) continue;
    added.set(key, { id: next, code: supplier, name: supplierName || supplier });
    suppliers.set(key, next++);
  }
  await tx.insertMany('supplier', [...added.values()]);
  for (let at = 0; at < changes.length; at += CHUNK) {
    onProgress(at);
    const rows = changes
      .slice(at, at + CHUNK)
      .map(({ rows: [record = {}] }) => [
        found(items.get((record.item ?? '').toLowerCase())),
        found(suppliers.get((record.supplier ?? '').toLowerCase())),
        record.supplierItem ?? '',
        orZero(record.price),
        orZero(record.pack),
        orZero(record.minimum),
        record.leadDays ? Number(record.leadDays) : null,
      ]);
    const values = Array.from({ length: 7 }, (_, index) => `value ->> ${index}`);
    await tx.run(
      `INSERT INTO item_supplier (item_id, supplier_id, code, price, pack, minimum, lead_days)
       SELECT ${values.join(', ')} FROM json_each($1) WHERE true
       ON CONFLICT DO UPDATE SET code = excluded.code, price = excluded.price, pack = excluded.pack,
         minimum = excluded.minimum, lead_days = excluded.lead_days`,
      [JSON.stringify(rows)],
    );
    const pairs = rows.map(([item_id, supplier_id]) => [item_id, supplier_id]);
    await tx.run(
      `DELETE FROM item_supplier_break WHERE (item_id, supplier_id) IN (SELECT value ->> 0, value ->> 1 FROM json_each($1))`,
      [JSON.stringify(pairs)],
    );
    await tx.insertMany(
      'item_supplier_break',
      changes.slice(at, at + CHUNK).flatMap(({ rows: [record = {}] }, nth) =>
        breaksIn(record.breaks ?? '').map(([from, price]) => ({
          item_id: Number(rows[nth]?.[0]),
          supplier_id: Number(rows[nth]?.[1]),
          from_quantity: parseQuantity(from, 6),
          price: parseMoney(price),
        })),
      ),
    );
  }
}

async function applyStock(doing: Doing, { changes, file, onProgress }: Applying): Promise<number> {
  const { tx } = doing;
  const items = await idsByCode(tx, ITEM_IDS);
  const bins = await idsByCode(tx, BIN_IDS);
  onProgress(0);
  const lines = changes.map(({ rows: [record = {}] }) => ({
    itemId: found(items.get((record.item ?? '').toLowerCase())),
    binId: found(bins.get((record.bin ?? '').toLowerCase())),
    quantity: parseQuantity(record.quantity ?? '0', 6),
    unitCost: parseMoney(record.unitCost ?? '0'),
    lot: null,
    serials: [],
    bestBefore: null,
    attributes: {},
  }));
  const document = await receive(doing, { kind: 'opening', remark: `Imported from ${file}`, lines });
  return document.id;
}

async function applyDefinitions(doing: Doing, { changes, onProgress }: Applying): Promise<void> {
  const { tx } = doing;
  const items = await idsByCode(tx, ITEM_IDS);
  const bins = await idsByCode(tx, BIN_IDS);
  const rates = await idsByCode(tx, 'SELECT name AS code, id FROM rate');
  const today = dayOf(doing.now);
  const known = await tx.all<{ id: number; item_id: number; purpose: string; newest: number; draft_id: number | null }>(
    `SELECT d.id, d.item_id, d.purpose, (SELECT max(number) FROM revision WHERE definition_id = d.id) AS newest,
       (SELECT id FROM revision WHERE definition_id = d.id AND state = 'draft') AS draft_id FROM definition d`,
  );
  const byItem = new Map(known.map((row) => [`${row.item_id}|${row.purpose}`, row]));
  const next = {
    definition: await nextId(tx, 'definition'),
    revision: await nextId(tx, 'revision'),
    line: await nextId(tx, 'revision_line'),
  };
  for (let at = 0; at < changes.length; at += CHUNK / 5) {
    onProgress(at);
    const definitions: SqlRow[] = [];
    const revisions: SqlRow[] = [];
    const lines: SqlRow[] = [];
    const alternates: SqlRow[] = [];
    for (const { rows } of changes.slice(at, at + CHUNK / 5)) {
      const first = found(rows[0]);
      const item_id = found(items.get((first.product ?? '').toLowerCase()));
      const before = byItem.get(`${item_id}|${first.purpose}`);
      const behaviour = behaviourColumns(first);
      const definition_id = before?.id ?? next.definition++;
      if (before) await updateDefinition(tx, before.id, behaviour, first.state === 'in use');
      else definitions.push({ id: definition_id, item_id, purpose: first.purpose ?? 'build', ...behaviour });
      const revision = {
        state: first.state === 'in use' ? 'in-use' : 'draft',
        output_quantity: orZero(first.makes),
        in_use_from: first.state === 'in use' ? today : null,
      };
      // A draft that is all there is takes what the file says, as if it had been typed there.
      const id = before?.draft_id ?? next.revision++;
      if (before?.draft_id) await refillDraft(tx, id, revision);
      else revisions.push({ id, definition_id, number: (before?.newest ?? 0) + 1, ...revision });
      for (const [position, row] of rows.entries()) {
        const lineId = next.line++;
        lines.push(lineColumns(row, { id: lineId, revision_id: id, position }, { items, bins, rates }));
        for (const [index, [code, ratio]] of alternatesOf(row).entries())
          alternates.push({
            line_id: lineId,
            position: index,
            item_id: found(items.get(code.toLowerCase())),
            ratio: parseDecimal(ratio),
          });
      }
    }
    await tx.insertMany('definition', definitions);
    await tx.insertMany('revision', revisions);
    await tx.insertMany('revision_line', lines);
    await tx.insertMany('revision_line_alternate', alternates);
  }
}

/** Empties a draft and gives it the head of an imported one. */
async function refillDraft(
  tx: Writer,
  id: number,
  revision: { state: string; output_quantity: number; in_use_from: string | null },
): Promise<void> {
  await tx.run('DELETE FROM revision_line WHERE revision_id = $1', [id]);
  await tx.run(
    'UPDATE revision SET state = $2, output_quantity = $3, in_use_from = $4, version = version + 1 WHERE id = $1',
    [id, revision.state, revision.output_quantity, revision.in_use_from],
  );
}

/** Makes room for the imported revision: one in use retires when the new one is in use. */
async function updateDefinition(tx: Writer, id: number, behaviour: SqlRow, inUse: boolean): Promise<void> {
  const sets = Object.keys(behaviour).map((name, index) => `${name} = $${index + 2}`);
  await tx.run(`UPDATE definition SET ${sets.join(', ')}, version = version + 1 WHERE id = $1`, [
    id,
    ...Object.values(behaviour),
  ]);
  if (inUse)
    await tx.run(
      "UPDATE revision SET state = 'retired', version = version + 1 WHERE definition_id = $1 AND state = 'in-use'",
      [id],
    );
}

function behaviourColumns(record: FileRecord): SqlRow {
  const { made, paperwork, onOrder, swapFor, price, discount } = behaviourOf(record);
  return { made, paperwork, on_order: onOrder, swap_for: swapFor, price_from: price, discount: discount };
}

function lineColumns(
  row: FileRecord,
  own: { id: number; revision_id: number; position: number },
  ids: Record<'items' | 'bins' | 'rates', ReadonlyMap<string, number>>,
): SqlRow {
  const isPart = row.kind === 'part';
  return {
    ...own,
    kind: row.kind ?? 'note',
    text: row.text ?? '',
    item_id: isPart ? found(ids.items.get((row.component ?? '').toLowerCase())) : null,
    from_bin_id: ids.bins.get((row.from ?? '').toLowerCase()) ?? null,
    basis: row.counted === 'per run' ? 'per-run' : 'per-output',
    amount: orZero(row.quantity),
    waste: orZero(row.waste),
    taken: isPart ? (row.taken === 'when finished' ? 'when-finished' : 'picked-first') : null,
    share: amount(row.share),
    comes_back: flag(row.comesBack),
    tolerance: amount(row.tolerance),
    rate_id: row.kind === 'labour' ? found(ids.rates.get((row.rate ?? '').toLowerCase())) : null,
  };
}
