import { definitionKey, type FileKindName, type ImportWorld, type KnownItem } from '@yosegi/core/exchange';
import type { Quantity } from '@yosegi/core/number';
import type { Reader } from '../db/database.ts';
import { HAS_STOCK, HISTORY, IS_PACKED, IS_PROMISED } from '../items/index.ts';
import { readRecords } from './records.sql.ts';

/** The number of the last change: a plan made before another change may not be true any more. */
export async function changeCount(db: Reader): Promise<number> {
  return (await db.one<{ last: number }>('SELECT ifnull(max(id), 0) AS last FROM event'))?.last ?? 0;
}

/** Everything that the rows of a file of this kind may refer to. */
export async function readWorld(db: Reader, kind: FileKindName): Promise<ImportWorld> {
  const units = await db.all<{ code: string; name: string; decimals: number }>('SELECT code, name, decimals FROM unit');
  const bins = await db.all<{ store: string; code: string }>(
    // Goods may stand in quarantine when a company begins; nothing has its home there.
    `SELECT s.code AS store, b.code FROM bin b JOIN store s ON s.id = b.store_id
     WHERE b.kind = 'shelf' OR ($1 = 'stock' AND b.kind = 'quarantine')`,
    [kind],
  );
  const suppliers = await db.all<{ code: string; name: string }>('SELECT code, name FROM supplier');
  const rates = await db.all<{ name: string }>('SELECT name FROM rate');
  const customers = await db.all<{ code: string; name: string; archived: 0 | 1 }>(
    'SELECT code, name, archived_at IS NOT NULL AS archived FROM customer ORDER BY id DESC',
  );
  const barcodes = await db.all<{ barcode: string; code: string }>(
    'SELECT barcode, code FROM item WHERE barcode IS NOT NULL',
  );
  const byBin = new Map<string, string | null>();
  for (const { store, code } of bins) {
    const full = `${store}/${code}`;
    byBin.set(full.toLowerCase(), full);
    byBin.set(code.toLowerCase(), byBin.has(code.toLowerCase()) ? null : full);
  }
  return {
    units: new Map(units.flatMap((unit) => [unit.name, unit.code].map((name) => [name.toLowerCase(), unit]))),
    bins: byBin,
    suppliers: new Map(suppliers.map((supplier) => [supplier.code.toLowerCase(), supplier])),
    customers: customersBy(customers),
    rates: new Map(rates.map(({ name }) => [name.toLowerCase(), name])),
    items: await readItems(db),
    barcodes: new Map(barcodes.map(({ barcode, code }) => [barcode, code])),
    existing: await readRecords(db, kind),
    parts: kind === 'definitions' ? await readParts(db) : new Map(),
  };
}

/** By name first, so that a code that is somebody's name stays a code. */
const customersBy = (rows: readonly { code: string; name: string; archived: 0 | 1 }[]) => {
  const known = rows.map(({ archived, ...row }) => ({ ...row, archived: archived === 1 }));
  return new Map([
    ...known.map((customer) => [customer.name.toLowerCase(), customer] as const),
    ...known.map((customer) => [customer.code.toLowerCase(), customer] as const),
  ]);
};

async function readItems(db: Reader): Promise<Map<string, KnownItem>> {
  const rows = await db.all<{
    code: string;
    name: string;
    unit: string;
    decimals: number;
    measures: string;
    tracking: KnownItem['tracking'];
    archived: number;
    has_history: number;
    has_moved: number;
    has_stock: number;
    promised: number;
    packed: number;
    record_only: number;
    has_price: number;
    builds: string | null;
    drafts: string | null;
  }>(
    `SELECT i.code, i.name, u.code AS unit, u.decimals, i.tracking, i.archived_at IS NOT NULL AS archived,
       (SELECT json_group_array(json_array(name, one)) FROM (
         SELECT name, quantity AS one FROM item_pack WHERE item_id = i.id
         UNION ALL SELECT name, one FROM unit_related WHERE unit_id = i.unit_id)) AS measures,
       EXISTS (${HISTORY}) AS has_history,
       (k.item_id IS NOT NULL AND EXISTS (SELECT 1 FROM movement m JOIN document d ON d.id = m.document_id
         WHERE m.item_id = i.id AND d.kind <> 'opening')) AS has_moved,
       ${HAS_STOCK} AS has_stock, ${IS_PROMISED} AS promised, ${IS_PACKED} AS packed,
       (EXISTS (SELECT 1 FROM definition WHERE item_id = i.id AND purpose = 'record')
         AND NOT EXISTS (SELECT 1 FROM definition WHERE item_id = i.id AND purpose = 'build')) AS record_only,
       (i.sell_price IS NOT NULL OR EXISTS (SELECT 1 FROM definition WHERE item_id = i.id AND purpose = 'build'
         AND price_from = 'parts')) AS has_price,
       (SELECT group_concat(b.number) FROM build b JOIN revision r ON r.id = b.revision_id
         JOIN definition d ON d.id = r.definition_id AND d.purpose = 'build'
         WHERE b.item_id = i.id AND b.state IN ('planned', 'on-bench')) AS builds,
       (SELECT group_concat(d.purpose) FROM definition d JOIN revision r ON r.definition_id = d.id AND r.state = 'draft'
         WHERE d.item_id = i.id AND (r.in_use_from IS NOT NULL OR EXISTS (
           SELECT 1 FROM revision WHERE definition_id = d.id AND state = 'in-use'))) AS drafts
     FROM item i JOIN unit u ON u.id = i.unit_id LEFT JOIN item_stock k ON k.item_id = i.id`,
  );
  return new Map(
    rows.map((row) => [
      row.code.toLowerCase(),
      {
        code: row.code,
        name: row.name,
        unit: row.unit,
        decimals: row.decimals,
        measures: (JSON.parse(row.measures) as [string, Quantity][]).map(([name, one]) => ({ name, one })),
        tracking: row.tracking,
        archived: row.archived === 1,
        hasHistory: row.has_history === 1,
        hasMoved: row.has_moved === 1,
        hasStock: row.has_stock === 1,
        isPromised: row.promised === 1,
        isPacked: row.packed === 1,
        notForSale: row.record_only === 1,
        hasPrice: row.has_price === 1,
        openBuilds: row.builds?.split(',') ?? [],
        drafts: row.drafts?.split(',') ?? [],
      },
    ]),
  );
}

/** Parts of every definition that is not retired, but record-only ones, by its key. */
async function readParts(db: Reader): Promise<Map<string, string[]>> {
  const rows = await db.all<{ product: string; purpose: string; part: string }>(
    `SELECT DISTINCT p.code AS product, d.purpose, c.code AS part FROM revision r JOIN definition d ON d.id = r.definition_id
     JOIN item p ON p.id = d.item_id JOIN revision_line l ON l.revision_id = r.id JOIN item c ON c.id = l.item_id
     WHERE r.state <> 'retired' AND d.purpose <> 'record'`,
  );
  const parts = new Map<string, string[]>();
  for (const { product, purpose, part } of rows) {
    const key = definitionKey(product, purpose);
    const known = parts.get(key);
    if (known) known.push(part.toLowerCase());
    else parts.set(key, [part.toLowerCase()]);
  }
  return parts;
}
