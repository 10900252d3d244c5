import type { Bin, Store } from '@yosegi/contract';
import { isForGoods } from '@yosegi/core/places';
import { Refusal } from '@yosegi/core/refusal';
import type { Reader } from '../db/database.ts';
import type { Row } from '../db/models/index.ts';

export type BinRow = Row<'bin'>;

export const toBin = (row: BinRow): Bin => ({
  id: row.id,
  storeId: row.store_id,
  code: row.code,
  kind: row.kind,
  pickingOrder: row.picking_order,
  version: row.version,
});

export async function listStores(db: Reader): Promise<Store[]> {
  const stores = await db.models.store.findAll({ order: ['id'] });
  const bins = await db.models.bin.findAll({ order: ['picking_order', 'code'] });
  return stores.map(({ id, code, name, version }) => ({
    id,
    code,
    name,
    version,
    bins: bins.filter((bin) => bin.store_id === id).map(toBin),
  }));
}

export const binRow = async (db: Reader, id: number): Promise<BinRow | undefined> =>
  (await db.models.bin.findByPk(id)) ?? undefined;

/** A bin that goods can be kept in, also to wait for a decision. @throws Refusal `unknown-bin` naming `field` */
export async function requireShelf(db: Reader, id: number, field: string): Promise<BinRow> {
  const bin = await binRow(db, id);
  if (!bin || !isForGoods(bin.kind)) throw new Refusal('unknown-bin', {}, field);
  return bin;
}

/** The bench of the store that a bin belongs to. */
export async function benchBinOf(db: Reader, binId: number): Promise<number> {
  const bench = await db.one<{ id: number }>(
    "SELECT id FROM bin WHERE kind = 'bench' AND store_id = (SELECT store_id FROM bin WHERE id = $1)",
    [binId],
  );
  if (!bench) throw new Refusal('unknown-bin', {}, 'binId');
  return bench.id;
}

/** Where goods of an item go without being told: its home bin, or the first shelf of the first store. */
export async function usualBin(db: Reader, homeBinId: number | null): Promise<number> {
  if (homeBinId !== null) return homeBinId;
  const first = await db.one<{ id: number }>(
    "SELECT id FROM bin WHERE kind = 'shelf' ORDER BY store_id, picking_order, id LIMIT 1",
  );
  if (!first) throw new Refusal('unknown-bin', {}, 'binId');
  return first.id;
}
