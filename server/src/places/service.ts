import type { Bin, Store } from '@yosegi/contract';
import { Refusal } from '@yosegi/core/refusal';
import { type BodyOf, type Doing, found } from '../command/doing.ts';
import { updateVersioned } from '../db/versions.ts';
import { binRow, listStores, toBin } from './sql.ts';

interface NamedCode {
  readonly code: string;
  readonly name: string;
}

/** A store with a bench of its own, where picked parts stand. */
export async function createStore(doing: Doing, input: NamedCode): Promise<Store> {
  await refuseTaken(doing, input.code, null, null);
  const id = await doing.tx.insert('store', { code: input.code, name: input.name });
  await doing.tx.insert('bin', { store_id: id, code: 'Bench', kind: 'bench', walk_order: 9999 });
  doing.changed('places');
  return storeOf(doing, id);
}

export async function updateStore(doing: Doing, id: number, input: NamedCode & { version: number }): Promise<Store> {
  const before = await storeOf(doing, id);
  await refuseTaken(doing, input.code, null, id);
  await updateVersioned(
    doing.tx,
    'store',
    id,
    input.version,
    { code: input.code, name: input.name },
    async () => before,
  );
  doing.changed('places', 'items');
  return storeOf(doing, id);
}

export async function createBin(doing: Doing, storeId: number, input: BodyOf<'createBin'>): Promise<Bin> {
  await storeOf(doing, storeId);
  await refuseTaken(doing, input.code, storeId, null);
  const id = await doing.tx.insert('bin', {
    store_id: storeId,
    code: input.code,
    walk_order: input.walkOrder,
    kind: input.kind,
  });
  doing.changed('places');
  return toBin(found(await binRow(doing.tx, id)));
}

export async function updateBin(doing: Doing, id: number, input: BodyOf<'updateBin'>): Promise<Bin> {
  const before = found(await binRow(doing.tx, id));
  await refuseTaken(doing, input.code, before.store_id, id);
  const kind = before.kind === 'bench' ? before.kind : input.kind;
  const values = { code: input.code, walk_order: input.walkOrder, kind };
  await updateVersioned(doing.tx, 'bin', id, input.version, values, async () => toBin(before));
  doing.changed('places', 'items', 'stock');
  return toBin(found(await binRow(doing.tx, id)));
}

const storeOf = async (doing: Doing, id: number) =>
  found((await listStores(doing.tx)).find((store) => store.id === id));

async function refuseTaken(doing: Doing, code: string, storeId: number | null, exceptId: number | null) {
  const { models } = doing.tx;
  const other =
    storeId === null
      ? await models.store.findOne({ where: { code } })
      : await models.bin.findOne({ where: { code, store_id: storeId } });
  if (other && other.id !== exceptId)
    throw new Refusal('code-taken', { code, by: 'name' in other ? other.name : other.code }, 'code');
}
