import type { Numbered } from '@yosegi/contract';
import { Posting } from '@yosegi/core/ledger';
import {
  add,
  countedIn,
  type Money,
  minus,
  type Percent,
  parsePercent,
  type Quantity,
  ZERO,
} from '@yosegi/core/number';
import { Refusal } from '@yosegi/core/refusal';
import { afterComing, type CameBack, comesBack, type NamedBack, usualCredit } from '@yosegi/core/returns';
import { type BodyOf, type Doing, found } from '../command/doing.ts';
import type { Row } from '../db/models/index.ts';
import { numbered, updateVersioned } from '../db/versions.ts';
import { nextNumber, readStock, withNames, writeDocument } from '../ledger/index.ts';
import { customersUnit } from '../tracking/index.ts';
import { readReturn } from './read.ts';
import {
  leftOf,
  lotsByCode,
  type ReturnRecord,
  replaceLines,
  returnHolding,
  returnRecord,
  returnsBin,
  type SentRecord,
  sentLine,
  serialsByCode,
} from './sql.ts';

type LineIn = BodyOf<'announceReturn'>['lines'][number];

/** A line as it was typed, with what really left for it. */
interface Coming {
  readonly input: LineIn;
  readonly price: Money;
  readonly back: readonly CameBack[];
}

/**
 * Announces goods that come back, or takes them in at once.
 * @throws Refusal `unknown-line`, `unknown-choice`, `return-of-several`, `more-than-shipped`, `serials-needed`, `never-left`,
 * `returned-already`, `lot-unknown`
 */
export async function announceReturn(doing: Doing, input: BodyOf<'announceReturn'>) {
  const { tx, now, person } = doing;
  const { coming, customerId } = await read(doing, input.lines, 0, input.arrived);
  const id = await tx.insert('goods_return', {
    number: await nextNumber(tx, 'RT'),
    customer_id: customerId,
    remark: input.remark,
    expected_on: input.expectedOn,
    made_at: now.toISOString(),
    made_by: person.id,
  });
  const lineIds = await writeLines(doing, id, coming);
  const documentId = input.arrived ? await takeIn(doing, id, coming, lineIds, input.storeId) : null;
  doing.changed('orders', 'stock');
  return { ...(await numbered(tx, 'goods_return', id)), documentId };
}

/**
 * Takes announced goods in, as many as really came and as they are.
 * @throws Refusal `wrong-state`, `stale-save`, and what announcing refuses
 */
export async function arriveReturn(doing: Doing, id: number, input: BodyOf<'arriveReturn'>) {
  const { tx } = doing;
  const record = found(await returnRecord(tx, id));
  requireAnnounced(record);
  const { coming, customerId } = await read(doing, input.lines, id, true);
  if (customerId !== record.customer_id) throw new Refusal('return-of-several', {}, 'lines.0.shipmentId');
  await updateVersioned(tx, 'goods_return', id, input.version, {}, () => readReturn(tx, id, doing.now));
  await replaceLines(tx, id);
  const lineIds = await writeLines(doing, id, coming);
  const documentId = await takeIn(doing, id, coming, lineIds, input.storeId);
  doing.changed('orders', 'stock');
  return { ...(await numbered(tx, 'goods_return', id)), documentId };
}

/** @throws Refusal `wrong-state`, `stale-save` */
export async function callOffReturn(doing: Doing, id: number, input: BodyOf<'callOffReturn'>): Promise<Numbered> {
  const { tx } = doing;
  requireAnnounced(found(await returnRecord(tx, id)));
  const values = { called_off: input.because };
  await updateVersioned(tx, 'goods_return', id, input.version, values, () => readReturn(tx, id, doing.now));
  doing.changed('orders', 'stock');
  return numbered(tx, 'goods_return', id);
}

/** @throws Refusal `not-found`, `stale-save` */
export async function creditReturn(doing: Doing, lineId: number, input: BodyOf<'creditReturn'>): Promise<Numbered> {
  const { tx } = doing;
  const line = found((await tx.models.return_line.findByPk(lineId)) ?? undefined);
  const current = () => readReturn(tx, line.return_id, doing.now);
  await updateVersioned(tx, 'goods_return', line.return_id, input.version, {}, current);
  await line.update({ credit: input.credit });
  doing.changed('orders');
  return numbered(tx, 'goods_return', line.return_id);
}

function requireAnnounced({ number, state }: ReturnRecord): void {
  if (state === 'announced') return;
  throw new Refusal('wrong-state', { kind: 'return', number, state });
}

/** What left for a line and is not back, as the lines of a return that were read before leave it. */
interface WithThem {
  readonly sent: SentRecord;
  readonly heaps: Awaited<ReturnType<typeof leftOf>>;
}

/**
 * Reads what was typed against what left: what comes in several conditions stands on several lines, and each leaves less for
 * the next. What is announced takes nothing from what is here.
 * @param returnId the return it is taken in for; 0 for a new one
 */
async function read(doing: Doing, lines: readonly LineIn[], returnId: number, isHere: boolean) {
  const { tx } = doing;
  const coming: Coming[] = [];
  const customers = new Set<number>();
  const known = new Map<string, WithThem>();
  for (const [index, input] of lines.entries()) {
    const at = (name: string) => `lines.${index}.${name}`;
    const key = `${input.shipmentId}:${input.lineId}`;
    const own = known.get(key) ?? (await withThem(doing, input, returnId));
    if (!own) throw new Refusal('unknown-line', {}, at('lineId'));
    const { sent, heaps } = own;
    customers.add(sent.customerId);
    if (customers.size > 1) throw new Refusal('return-of-several', {}, at('shipmentId'));
    const reason = await tx.models.reason.findOne({ where: { id: input.reasonId, used_for: 'return' } });
    if (!reason) throw new Refusal('unknown-choice', {}, at('reasonId'));
    const quantity = countedIn(input.quantity, sent.decimals, at('quantity'));
    const named = await namedBack(doing, input, heaps, sent.orderNumber, at);
    // What is only announced may be named when it is here.
    const back = isHere ? comesBack(heaps, sent, quantity, named, at) : announcedOf(heaps, sent, quantity, named, at);
    const next = afterComing(heaps, sent, isHere ? quantity : ZERO, back);
    const announced = isHere ? sent.announced : add(sent.announced, quantity);
    known.set(key, { heaps: next.heaps, sent: { ...sent, ...next.line, announced } });
    coming.push({ input, price: sent.price, back });
  }
  return { coming, customerId: [...customers][0] ?? 0 };
}

async function withThem({ tx }: Doing, input: LineIn, returnId: number): Promise<WithThem | undefined> {
  const sent = await sentLine(tx, input.shipmentId, input.lineId, returnId);
  return sent && { sent, heaps: await leftOf(tx, input.shipmentId, input.lineId) };
}

/** What is announced books nothing; together no more is announced than is with them. */
function announcedOf(
  heaps: WithThem['heaps'],
  sent: SentRecord,
  quantity: Quantity,
  named: NamedBack,
  at: (name: 'quantity' | 'serials') => string,
): CameBack[] {
  const left = minus(minus(sent.shipped, sent.returned), sent.announced);
  if (quantity > left) throw new Refusal('more-than-shipped', { left }, at('quantity'));
  try {
    comesBack(heaps, sent, quantity, named, at);
  } catch (error) {
    if (!(error instanceof Refusal) || error.code !== 'serials-needed' || named.serialIds.size > 0) throw error;
  }
  return [];
}

/** @throws Refusal `never-left`, `returned-already`, `unit-in-repair`, `lot-unknown` */
async function namedBack(
  { tx }: Doing,
  { serials, lots }: LineIn,
  heaps: Awaited<ReturnType<typeof leftOf>>,
  order: string,
  at: (name: 'serials' | 'lots') => string,
): Promise<NamedBack> {
  const itemIds = [...new Set(heaps.map(({ itemId }) => itemId))];
  const known = new Map((await serialsByCode(tx, itemIds, serials)).map((row) => [row.code.toLowerCase(), row]));
  const serialIds = new Set<number>();
  for (const code of serials) {
    const serial = known.get(code.toLowerCase());
    const heap = heaps.find(({ serialId }) => serialId !== null && serialId === serial?.id);
    if (!serial || !heap) throw new Refusal('never-left', { code, order }, at('serials'));
    const on = heap.returned > 0 ? await returnHolding(tx, serial.id) : undefined;
    if (on) throw new Refusal('returned-already', { code: serial.code, number: on.number }, at('serials'));
    const theirs = await customersUnit(tx, serial.item_id, [serial.code]);
    if (theirs) throw new Refusal('unit-in-repair', theirs, at('serials'));
    serialIds.add(serial.id);
  }
  const found = await lotsByCode(tx, itemIds, lots);
  for (const code of lots)
    if (
      !found.some((lot) => lot.code.toLowerCase() === code.toLowerCase() && heaps.some(({ lotId }) => lotId === lot.id))
    )
      throw new Refusal('never-left', { code, order }, at('lots'));
  return { serialIds, lotIds: new Set(found.map(({ id }) => id)) };
}

const creditOf = ({ credit, condition }: LineIn): Percent => credit ?? parsePercent(String(usualCredit(condition)));

async function writeLines({ tx }: Doing, returnId: number, coming: readonly Coming[]): Promise<number[]> {
  const ids: number[] = [];
  for (const { input, price } of coming)
    ids.push(
      await tx.insert('return_line', {
        return_id: returnId,
        shipment_id: input.shipmentId,
        line_id: input.lineId,
        quantity: input.quantity,
        reason_id: input.reasonId,
        condition: input.condition,
        remark: input.remark,
        price,
        credit: creditOf(input),
        serials: JSON.stringify(input.serials),
        lots: JSON.stringify(input.lots),
      } satisfies Partial<Row<'return_line'>>),
    );
  return ids;
}

/** Posts what came into the returns bin, each thing at exactly its part of what left. */
async function takeIn(
  doing: Doing,
  id: number,
  coming: readonly Coming[],
  lineIds: readonly number[],
  storeId: number | null,
): Promise<number> {
  const { tx, now } = doing;
  const binId = await binFor(doing, storeId);
  const all = coming.flatMap(({ back }) => back);
  const posting = new Posting(
    await readStock(
      tx,
      all.map(({ heap }) => heap.itemId),
    ),
  );
  const holder = { kind: 'return', id } as const;
  for (const { heap, quantity, value } of all) {
    const { itemId, lotId, serialId } = heap;
    posting.bringIn({ itemId, binId, lotId, serialId, holder }, quantity, value);
    posting.addValue('returned', value, { itemId });
  }
  const posted = await withNames(tx, () => posting.close());
  const document = await writeDocument(doing, { kind: 'return', for: { kind: 'return', id } }, posted);
  await tx.insertMany(
    'return_piece',
    coming.flatMap(({ back }, index) =>
      back.map(({ heap, quantity, value }) => ({
        return_line_id: lineIds[index] ?? 0,
        document_id: document.id,
        part_id: heap.partId,
        item_id: heap.itemId,
        lot_id: heap.lotId,
        serial_id: heap.serialId,
        quantity,
        value,
      })),
    ),
  );
  const here = { document_id: document.id, arrived_at: now.toISOString() };
  await tx.models.goods_return.update(here, { where: { id } });
  return document.id;
}

/** Where a store keeps what came back; made when the first of it comes. */
async function binFor({ tx, changed }: Doing, wanted: number | null): Promise<number> {
  const known = await returnsBin(tx, wanted);
  if (known) return known.id;
  const store =
    wanted === null ? await tx.models.store.findOne({ order: ['id'] }) : await tx.models.store.findByPk(wanted);
  if (!store) throw new Refusal('unknown-choice', {}, 'storeId');
  const taken = await tx.models.bin.findOne({ where: { store_id: store.id, code: 'Returns' } });
  if (taken) throw new Refusal('code-taken', { code: 'Returns', by: taken.code }, 'storeId');
  changed('places');
  return tx.insert('bin', { store_id: store.id, code: 'Returns', kind: 'quarantine', picking_order: 9997 });
}
