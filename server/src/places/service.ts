import type { Bin, Store } from '@yosegi/contract';
import { isForGoods } from '@yosegi/core/places';
import { Refusal } from '@yosegi/core/refusal';
import { type BodyOf, type Doing, found } from '../command/doing.ts';
import { saveAnew, updateVersioned } from '../db/versions.ts';
import { binRow, listStores, toBin } from './sql.ts';

interface NamedCode {
  readonly code: string;
  readonly name: string;
}

/** A store with a bench of its own, where picked parts stand. */
export async function createStore(doing: Doing, input: NamedCode): Promise<Store> {
  await refuseTaken(doing, input.code, null, null);
  const id = await doing.tx.insert('store', { code: input.code, name: input.name });
  await doing.tx.insert('bin', { store_id: id, code: 'Bench', kind: 'bench', picking_order: 9999 });
  doing.changed('places');
  return storeOf(doing, id);
}

/** Changes a store and all its bins at once, which take the order they come in as their walking order. */
export async function updateStore(doing: Doing, id: number, input: BodyOf<'updateStore'>): Promise<Store> {
  const before = await storeOf(doing, id);
  await refuseTaken(doing, input.code, null, id);
  refuseTwice(input.bins);
  const { code, name } = input;
  await updateVersioned(doing.tx, 'store', id, input.version, { code, name }, async () => before);
  await saveBins(doing, before, input.bins);
  doing.changed('places', 'items', 'stock');
  return storeOf(doing, id);
}

type BinInput = BodyOf<'updateStore'>['bins'][number];

async function saveBins(doing: Doing, store: Store, bins: readonly BinInput[]): Promise<void> {
  const known = store.bins.filter(({ kind }) => isForGoods(kind));
  const named = new Set(bins.map(({ id }) => id));
  const kept = known.filter(({ id }) => !named.has(id));
  for (const [index, bin] of bins.entries()) {
    if (bin.id !== null && !known.some(({ id }) => id === bin.id))
      throw new Refusal('unknown-bin', {}, `bins.${index}.id`);
    // Those named here may swap their codes; one that stays as it is keeps its own.
    const other = store.bins.find(
      ({ id, kind, code }) => isSame(code, bin.code) && (!isForGoods(kind) || !named.has(id)),
    );
    if (other) throw new Refusal('code-taken', { code: bin.code, by: other.code }, `bins.${index}.code`);
  }
  const { bin: model } = doing.tx.models;
  // Out of each other's way first; no code that is typed has a slash.
  const moved = known.filter((one) => bins.some(({ id, code }) => one.id === id && one.code !== code));
  for (const { id } of moved) await model.update({ code: `/${id}` }, { where: { id } });
  for (const [index, { id, code, kind }] of [...bins, ...kept].entries()) {
    const values = { code, kind: kind === 'quarantine' ? kind : ('shelf' as const), picking_order: (index + 1) * 10 };
    const record = id === null ? null : await model.findByPk(id);
    if (!record) await doing.tx.insert('bin', { ...values, store_id: store.id });
    else {
      record.set(values);
      if (record.changed()) await record.save();
    }
  }
}

const isSame = (one: string, other: string) => one.toLowerCase() === other.toLowerCase();

function refuseTwice(bins: readonly BinInput[]): void {
  const seen = new Map<string, string>();
  for (const [index, { id, code }] of bins.entries()) {
    if (id !== null && bins.findIndex((bin) => bin.id === id) !== index)
      throw new Refusal('invalid', { message: 'This bin is listed twice.' }, `bins.${index}.id`);
    const by = seen.get(code.toLowerCase());
    if (by !== undefined) throw new Refusal('code-taken', { code, by }, `bins.${index}.code`);
    seen.set(code.toLowerCase(), code);
  }
}

export async function createBin(doing: Doing, storeId: number, input: BodyOf<'createBin'>): Promise<Bin> {
  await storeOf(doing, storeId);
  await refuseTaken(doing, input.code, storeId, null);
  const id = await doing.tx.insert('bin', {
    store_id: storeId,
    code: input.code,
    picking_order: input.pickingOrder,
    kind: input.kind,
  });
  // Whoever has the store open has not seen this bin.
  const store = await doing.tx.models.store.findByPk(storeId);
  if (store) await saveAnew(store, {});
  doing.changed('places');
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
