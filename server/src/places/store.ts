import type { Bin, Store } from '@yosegi/contract';
import { Refusal } from '@yosegi/core/refusal';
import type { Reader } from '../db/database.ts';

export interface BinRow {
  id: number;
  store_id: number;
  code: string;
  kind: 'shelf' | 'bench' | 'quarantine';
  walk_order: number;
  version: number;
}

export const toBin = (row: BinRow): Bin => ({
  id: row.id,
  storeId: row.store_id,
  code: row.code,
  kind: row.kind,
  walkOrder: row.walk_order,
  version: row.version,
});

export async function listStores(db: Reader): Promise<Store[]> {
  const stores = await db.all<Omit<Store, 'bins'>>('SELECT id, code, name, version FROM store ORDER BY id');
  const bins = await db.all<BinRow>('SELECT * FROM bin ORDER BY walk_order, code');
  return stores.map((store) => ({ ...store, bins: bins.filter((bin) => bin.store_id === store.id).map(toBin) }));
}

export const binRow = (db: Reader, id: number) => db.one<BinRow>('SELECT * FROM bin WHERE id = $1', [id]);

/** A bin that goods can be kept in, also to wait for a decision. @throws Refusal `unknown-bin` naming `field` */
export async function requireShelf(db: Reader, id: number, field: string): Promise<BinRow> {
  const bin = await binRow(db, id);
  if (!bin || bin.kind === 'bench') throw new Refusal('unknown-bin', {}, field);
  return bin;
}

/** The bench of the store that a bin belongs to. */
export async function benchOf(db: Reader, binId: number): Promise<number> {
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
    "SELECT id FROM bin WHERE kind = 'shelf' ORDER BY store_id, walk_order, id LIMIT 1",
  );
  if (!first) throw new Refusal('unknown-bin', {}, 'binId');
  return first.id;
}
