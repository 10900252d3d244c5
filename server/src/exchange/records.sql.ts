import {
  definitionKey,
  FIELD_PREFIX,
  type FileKindName,
  type FileRecord,
  writeAlternates,
  writeBreaks,
  writeNames,
  writePacks,
} from '@yosegi/core/exchange';
import { formatDecimal, type Quantity } from '@yosegi/core/number';
import type { Reader } from '../db/database.ts';
import type { Row } from '../db/models/index.ts';
import { averageCostOf } from '../items/index.ts';

export type Records = ReadonlyMap<string, FileRecord[]>;

/** Everything there is of a kind in the form its file has, by key and in the order of its file. */
export function readRecords(db: Reader, kind: FileKindName): Promise<Records> {
  return readers[kind](db);
}

const text = (scaled: number | null) => (scaled === null ? '' : formatDecimal(scaled));
const yesNo = (flag: number | boolean) => (flag ? 'yes' : 'no');

/** Rows of a table by one of their columns. */
function grouped<T>(rows: readonly T[], keyOf: (row: T) => number): Map<number, T[]> {
  const groups = new Map<number, T[]>();
  for (const row of rows) {
    const group = groups.get(keyOf(row));
    if (group) group.push(row);
    else groups.set(keyOf(row), [row]);
  }
  return groups;
}

const readers: Record<FileKindName, (db: Reader) => Promise<Records>> = {
  async items(db) {
    const items = await db.all<{
      id: number;
      code: string;
      name: string;
      unit: string;
      source: string;
      tracking: string;
      serial_pattern: string | null;
      lot_order: string;
      lot_fields: string;
      return_days: number | null;
      home_bin: string | null;
      sell_price: number | null;
      tax_free: number;
      reorder_point: number | null;
      standard_cost: number | null;
      barcode: string | null;
      note: string;
      archived_at: string | null;
    }>(
      `SELECT i.id, i.code, i.name, u.code AS unit, i.source, i.tracking, i.serial_pattern, i.lot_order, i.lot_fields, i.return_days, s.code || '/' || b.code AS home_bin, i.sell_price,
         i.tax_free, i.reorder_point, i.standard_cost, i.barcode, i.note, i.archived_at
       FROM item i JOIN unit u ON u.id = i.unit_id LEFT JOIN bin b ON b.id = i.home_bin_id LEFT JOIN store s ON s.id = b.store_id
       ORDER BY i.code COLLATE NOCASE`,
    );
    const packs = grouped(
      await db.all<{ item_id: number; name: string; quantity: number }>(
        'SELECT item_id, name, quantity FROM item_pack ORDER BY item_id, quantity, name',
      ),
      (pack) => pack.item_id,
    );
    const fields = grouped(
      await db.all<{ item_id: number; name: string; value: string }>(
        'SELECT item_id, name, value FROM item_field ORDER BY item_id, name',
      ),
      (field) => field.item_id,
    );
    return new Map(
      items.map((item) => [
        item.code.toLowerCase(),
        [
          {
            code: item.code,
            name: item.name,
            unit: item.unit,
            source: item.source,
            tracking: item.tracking,
            serialPattern: item.serial_pattern ?? '',
            lotOrder: item.lot_order,
            lotFields: writeNames(JSON.parse(item.lot_fields) as string[]),
            returnDays: item.return_days === null ? '' : String(item.return_days),
            homeBin: item.home_bin ?? '',
            sellPrice: text(item.sell_price),
            taxFree: yesNo(item.tax_free),
            reorderPoint: text(item.reorder_point),
            standardCost: text(item.standard_cost),
            barcode: item.barcode ?? '',
            packs: writePacks((packs.get(item.id) ?? []).map((pack) => [pack.name, formatDecimal(pack.quantity)])),
            note: item.note,
            archived: yesNo(item.archived_at !== null),
            ...Object.fromEntries((fields.get(item.id) ?? []).map(({ name, value }) => [FIELD_PREFIX + name, value])),
          },
        ],
      ]),
    );
  },

  async customers(db) {
    const customers = await db.all<Row<'customer'>>('SELECT * FROM customer ORDER BY code COLLATE NOCASE');
    const fields = grouped(
      await db.all<Row<'customer_field'>>('SELECT * FROM customer_field ORDER BY customer_id, name'),
      (field) => field.customer_id,
    );
    return new Map(
      customers.map(({ id, code, name, contact, email, phone, billing, delivery, note, ...row }) => [
        code.toLowerCase(),
        [
          {
            ...{ code, name, contact, email, phone, billing, delivery, note },
            discount: text(row.discount),
            transportDays: row.transport_days === null ? '' : String(row.transport_days),
            archived: yesNo(row.archived_at !== null),
            ...Object.fromEntries((fields.get(id) ?? []).map((field) => [FIELD_PREFIX + field.name, field.value])),
          },
        ],
      ]),
    );
  },

  async orders(db) {
    const rows = await db.all<
      Pick<Row<'sales_order'>, 'number' | 'reference' | 'state'> &
        Pick<Row<'order_line'>, 'quantity' | 'price' | 'shipped'> & {
          customer: string;
          wanted_on: string | null;
          item: string;
        }
    >(
      `SELECT o.number, c.code AS customer, o.reference, o.state, o.wanted_on, i.code AS item, l.quantity, l.price, l.shipped
       FROM sales_order o JOIN customer c ON c.id = o.customer_id JOIN order_line l ON l.order_id = o.id
       JOIN item i ON i.id = l.item_id ORDER BY o.id, l.position`,
    );
    const records = new Map<string, FileRecord[]>();
    for (const row of rows) {
      const key = row.number.toLowerCase();
      const record = {
        order: row.number,
        customer: row.customer,
        reference: row.reference,
        state: row.state,
        wantedOn: row.wanted_on ?? '',
        item: row.item,
        quantity: text(row.quantity),
        price: text(row.price),
        shipped: row.shipped > 0 ? text(row.shipped) : '',
      };
      const known = records.get(key);
      if (known) known.push(record);
      else records.set(key, [record]);
    }
    return records;
  },

  async prices(db) {
    const rows = await db.all<{
      item: string;
      supplier: string;
      name: string;
      code: string;
      price: number;
      pack: number;
      minimum: number;
      lead_days: number | null;
      breaks: string;
    }>(
      `SELECT i.code AS item, s.code AS supplier, s.name, p.code, p.price, p.pack, p.minimum, p.lead_days,
         (SELECT json_group_array(json_array(from_quantity, price)) FROM item_supplier_break
            WHERE item_id = p.item_id AND supplier_id = p.supplier_id) AS breaks
       FROM item_supplier p JOIN item i ON i.id = p.item_id JOIN supplier s ON s.id = p.supplier_id
       ORDER BY s.code COLLATE NOCASE, i.code COLLATE NOCASE`,
    );
    return new Map(
      rows.map((row) => [
        `${row.item}|${row.supplier}`.toLowerCase(),
        [
          {
            item: row.item,
            supplier: row.supplier,
            supplierName: row.name,
            supplierItem: row.code,
            price: text(row.price),
            pack: text(row.pack),
            minimum: text(row.minimum),
            breaks: writeBreaks(
              (JSON.parse(row.breaks) as [number, number][]).map(([from, price]) => [text(from), text(price)]),
            ),
            leadDays: row.lead_days === null ? '' : String(row.lead_days),
          },
        ],
      ]),
    );
  },

  async stock(db) {
    const rows = await db.all<
      Pick<Row<'item_stock'>, 'quantity' | 'value' | 'last_cost'> &
        Pick<Row<'item'>, 'latest_cost' | 'standard_cost'> & { item: string; bin: string; on_shelf: Quantity }
    >(
      `SELECT i.code AS item, s.code || '/' || b.code AS bin, sum(l.quantity) AS on_shelf, k.quantity, k.value, k.last_cost,
         i.latest_cost, i.standard_cost
       FROM balance l JOIN item i ON i.id = l.item_id JOIN bin b ON b.id = l.bin_id JOIN store s ON s.id = b.store_id
       JOIN item_stock k ON k.item_id = i.id WHERE l.holder_id IS NULL
       GROUP BY i.id, b.id HAVING sum(l.quantity) > 0 ORDER BY i.code COLLATE NOCASE, s.id, b.picking_order`,
    );
    return new Map(
      rows.map((row) => [
        `${row.item}|${row.bin}`.toLowerCase(),
        [{ item: row.item, bin: row.bin, quantity: text(row.on_shelf), unitCost: text(averageCostOf(row)) }],
      ]),
    );
  },

  async definitions(db) {
    // The revision in use speaks for a definition, or its draft while there is no other.
    const lines = await db.all<DefinitionLine>(
      `SELECT i.code AS product, d.purpose, r.output_quantity, r.state, d.made, d.paperwork, d.on_order, d.swap_for,
         d.price_from, d.discount, l.id, l.kind, c.code AS component, l.text, l.amount, l.basis, l.waste, l.taken,
         s.code || '/' || b.code AS from_bin, l.share, l.comes_back, l.tolerance, t.name AS rate
       FROM revision r JOIN definition d ON d.id = r.definition_id JOIN item i ON i.id = d.item_id
       JOIN revision_line l ON l.revision_id = r.id
       LEFT JOIN item c ON c.id = l.item_id LEFT JOIN bin b ON b.id = l.from_bin_id LEFT JOIN store s ON s.id = b.store_id
       LEFT JOIN rate t ON t.id = l.rate_id
       WHERE r.state = 'in-use' OR (r.state = 'draft' AND NOT EXISTS (
         SELECT 1 FROM revision WHERE definition_id = d.id AND state = 'in-use'))
       ORDER BY i.code COLLATE NOCASE, d.purpose, l.position`,
    );
    const alternates = grouped(
      await db.all<{ line_id: number; code: string; ratio: number }>(
        `SELECT a.line_id, i.code, a.ratio FROM revision_line_alternate a JOIN item i ON i.id = a.item_id
         ORDER BY a.line_id, a.position`,
      ),
      (alternate) => alternate.line_id,
    );
    const records = new Map<string, FileRecord[]>();
    for (const line of lines) {
      const key = definitionKey(line.product, line.purpose);
      const others = (alternates.get(line.id) ?? []).map(({ code, ratio }) => [code, formatDecimal(ratio)] as const);
      const record = lineRecord(line, writeAlternates(others));
      const known = records.get(key);
      if (known) known.push(record);
      else records.set(key, [record]);
    }
    return records;
  },
};

interface DefinitionLine {
  product: string;
  purpose: string;
  output_quantity: number;
  state: string;
  made: string;
  paperwork: string;
  on_order: string;
  swap_for: string;
  price_from: string;
  discount: number;
  id: number;
  kind: string;
  component: string | null;
  text: string;
  amount: number;
  basis: string;
  waste: number;
  taken: string | null;
  from_bin: string | null;
  share: number | null;
  tolerance: number | null;
  comes_back: number;
  rate: string | null;
}

function lineRecord(line: DefinitionLine, alternates: string): FileRecord {
  const isPart = line.kind === 'part';
  return {
    product: line.product,
    purpose: line.purpose,
    makes: formatDecimal(line.output_quantity),
    state: line.state === 'draft' ? 'draft' : 'in use',
    made: line.made.replaceAll('-', ' '),
    paperwork: line.paperwork.replaceAll('-', ' '),
    onOrder: line.on_order === 'swaps' ? `swaps ${line.swap_for}` : line.on_order,
    partsDiscount: line.price_from === 'parts' ? formatDecimal(line.discount) : '',
    kind: line.kind,
    component: line.component ?? '',
    text: line.text,
    quantity: line.kind === 'note' ? '' : formatDecimal(line.amount),
    counted: line.basis.replaceAll('-', ' '),
    waste: formatDecimal(line.waste),
    taken: (line.taken ?? '').replaceAll('-', ' '),
    from: line.from_bin ?? '',
    share: text(line.share),
    comesBack: isPart ? yesNo(line.comes_back) : '',
    tolerance: text(line.tolerance),
    alternates,
    rate: line.rate ?? '',
  };
}
