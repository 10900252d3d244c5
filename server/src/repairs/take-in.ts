import { ONE, ZERO } from '@yosegi/core/number';
import { Refusal } from '@yosegi/core/refusal';
import { noteRepair } from '../builds/index.ts';
import { type BodyOf, type Doing, found } from '../command/doing.ts';
import { numbered } from '../db/versions.ts';
import { type ItemRow, itemRow } from '../items/index.ts';
import { nextNumber } from '../ledger/index.ts';
import { clashesOf } from '../tracking/index.ts';
import { anyShelf, customersBin } from './sql.ts';

type Input = BodyOf<'takeIn'>;

/**
 * Takes a customer's goods in: a repair, and a build with its work that no definition tells.
 * @throws Refusal `unknown-choice`, `unknown-item`, `not-tracked`, `unit-is-ours`, `unit-in-repair`
 */
export async function takeIn(doing: Doing, input: Input) {
  const { tx, now, person } = doing;
  const customer = await tx.models.customer.findByPk(input.customerId);
  if (!customer || customer.archived_at !== null) throw new Refusal('unknown-choice', {}, 'customerId');
  const item = await itemRow(tx, input.itemId);
  if (!item) throw new Refusal('unknown-item', {}, 'itemId');
  const { binId, storeId } = await binFor(doing, input.storeId);
  const serialId = await unitOf(doing, item, input.serial);
  const number = await nextNumber(tx, 'RP');
  const { storeId: _, serial: __, ...said } = input;
  const id = await tx.insert('repair', {
    number,
    customer_id: said.customerId,
    item_id: item.id,
    serial_id: serialId,
    bin_id: binId,
    state: 'taken-in',
    fault: said.fault,
    accessories: said.accessories,
    wanted_on: said.wantedOn,
    warranty: said.warranty ? 1 : 0,
    price: said.warranty ? null : said.price,
    job_tag: said.jobTag,
    taken_in_at: now.toISOString(),
    taken_in_by: person.id,
  });
  const shelf = await anyShelf(tx, storeId);
  if (!shelf) throw new Refusal('unknown-bin', {}, 'storeId');
  const buildId = await tx.insert('build', {
    number,
    item_id: item.id,
    revision_id: null,
    repair_id: id,
    output_quantity: ONE,
    quantity: ONE,
    finished: ZERO,
    state: 'planned',
    due: said.wantedOn,
    output_bin_id: shelf.id,
    planned_at: now.toISOString(),
    planned_by: person.id,
    job_tag: said.jobTag,
  });
  await noteRepair(doing, id, `Taken in from ${customer.name}: ${said.fault}`);
  return { ...(await numbered(tx, 'repair', id)), buildId };
}

/** Where a store keeps customers' goods; made when the first of them comes. */
async function binFor({ tx, changed }: Doing, wanted: number | null): Promise<{ binId: number; storeId: number }> {
  const known = await customersBin(tx, wanted);
  if (known) return { binId: known.id, storeId: known.store_id };
  const store =
    wanted === null ? await tx.models.store.findOne({ order: ['id'] }) : await tx.models.store.findByPk(wanted);
  if (!store) throw new Refusal('unknown-choice', {}, 'storeId');
  const taken = await tx.models.bin.findOne({ where: { store_id: store.id, code: 'Customers' } });
  const code = taken ? 'Customers’ goods' : 'Customers';
  const binId = await tx.insert('bin', { store_id: store.id, code, kind: 'customers', picking_order: 9998 });
  changed('places');
  return { binId, storeId: store.id };
}

/** The unit by its serial, made where it is new to us. @throws Refusal `not-tracked`, `serials-needed`, `unit-is-ours`, `unit-in-repair` */
async function unitOf({ tx }: Doing, item: ItemRow, code: string | null): Promise<number | null> {
  if (item.tracking !== 'serial') {
    if (code !== null) throw new Refusal('not-tracked', { name: item.name }, 'serial');
    return null;
  }
  if (code === null) throw new Refusal('serials-needed', { name: item.name, count: 1, given: 0 }, 'serial');
  const [known] = await clashesOf(tx, item.id, [code]);
  if (known?.inRepair) throw new Refusal('unit-in-repair', { code: known.code, says: known.says }, 'serial');
  if (known?.inStock) throw new Refusal('unit-is-ours', { code: known.code, says: known.says }, 'serial');
  return known?.id ?? found(await tx.insert('serial', { item_id: item.id, code }));
}
