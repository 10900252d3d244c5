import type { Buildable, Numbered } from '@yosegi/contract';
import { worldOf } from '@yosegi/contract/coverage-input';
import { cover } from '@yosegi/core/coverage';
import { dayAfter, dayOf } from '@yosegi/core/days';
import { add, countedIn, minus, type Quantity, ZERO } from '@yosegi/core/number';
import { Refusal } from '@yosegi/core/refusal';
import { buildRecord, planBuilds, readBuild, requireOpen } from '../builds/index.ts';
import { decimal } from '../command/amounts.ts';
import { type BodyOf, type Doing, found } from '../command/doing.ts';
import { readSnapshot } from '../coverage/index.ts';
import type { Reader, Writer } from '../db/database.ts';
import { numbered, updateVersioned } from '../db/versions.ts';
import { readPegging } from '../demand/index.ts';
import { itemRows } from '../items/index.ts';
import {
  beingBuilt,
  buildable,
  builtFor,
  type OrderLineRecord,
  type OrderPartRecord,
  orderLines,
  orderParts,
  orderRecords,
  servedIn,
  setBuilt,
} from '../orders/index.ts';
import { partsById } from './sql.ts';

type Chosen = BodyOf<'buildForOrders'>['chosen'];

/** Something open of an order that a build could make. */
interface Candidate {
  readonly part: OrderPartRecord;
  readonly line: OrderLineRecord;
  readonly orderId: number;
  readonly order: string;
  readonly customer: string;
  readonly wantedOn: string | null;
  /** The moment the order was confirmed, and how long goods are on their way to its customer. */
  readonly confirmedAt: string;
  readonly transport: number;
  /** What open builds make for it already. */
  readonly building: Quantity;
}

/** What of some orders can be built, and what of it nothing else brings; what could start, and what is missing for it. */
export async function lookToBuild(db: Reader, { orderIds, chosen }: BodyOf<'lookToBuild'>, today: string) {
  const candidates = await candidatesOf(db, orderIds);
  const served = servedIn((await readPegging(db, today)).pegged);
  const items = await itemRows(
    db,
    candidates.map(({ part }) => part.item_id),
  );
  const lines = candidates.map(({ part, orderId, order, customer, wantedOn, building }): Buildable => {
    const { code, name, unit, decimals } = found(items.get(part.item_id));
    const pegged = served.get(part.id);
    return {
      partId: part.id,
      orderId,
      order,
      customer,
      wantedOn,
      itemId: part.item_id,
      code,
      name,
      unit,
      decimals,
      open: decimal(part.open),
      ready: decimal(pegged?.now ?? ZERO),
      building: decimal(building),
      short: decimal(pegged?.short ?? ZERO),
      completeOn: pegged?.completeOn ?? null,
    };
  });
  const wanted = new Map<number, Quantity>();
  for (const { part } of candidates) {
    const quantity = chosen
      ? (chosen.find(({ partId }) => partId === part.id)?.quantity ?? ZERO)
      : (served.get(part.id)?.short ?? ZERO);
    if (quantity > 0) wanted.set(part.item_id, add(wanted.get(part.item_id) ?? ZERO, quantity));
  }
  return { lines, ...(await startable(db, wanted, today)) };
}

/** How much of each could start now, and which parts stand in the way. */
async function startable(db: Reader, wanted: ReadonlyMap<number, Quantity>, today: string) {
  const world = worldOf(await readSnapshot(db, today));
  const answer = cover(world, { wanted: [...wanted].map(([itemId, quantity]) => ({ itemId, quantity })) });
  const lacking = answer.components.filter(({ needed, free }) => needed > Math.max(0, free));
  const items = await itemRows(db, [...wanted.keys(), ...lacking.map(({ itemId }) => itemId)]);
  const named = (itemId: number) => {
    const { code, name, unit } = found(items.get(itemId));
    return { itemId, code, name, unit };
  };
  return {
    products: answer.products.map(({ itemId, quantity, now }) => ({
      ...named(itemId),
      quantity: decimal(quantity),
      canStart: decimal(now),
    })),
    missing: lacking.map(({ itemId, needed, free, coming, completeOn }) => ({
      ...named(itemId),
      short: decimal(needed - Math.max(0, free)),
      comesOn: completeOn,
      isComing: coming > 0,
    })),
  };
}

/** What is open of confirmed orders and made by a bill of materials in use, by order, the first wanted first. */
async function candidatesOf(db: Reader, orderIds: readonly number[]): Promise<Candidate[]> {
  const orders = (await orderRecords(db, orderIds)).filter(({ open }) => open === 1);
  const lines = await orderLines(
    db,
    orders.map(({ id }) => id),
  );
  const all = await orderParts(
    db,
    lines.map(({ id }) => id),
  );
  const made = await buildable(
    db,
    all.map(({ item_id }) => item_id),
  );
  const parts = all.filter(({ item_id, open }) => open > 0 && made.has(item_id));
  const building = await beingBuilt(
    db,
    parts.map(({ id }) => id),
  );
  const candidates = parts.map((part): Candidate => {
    const line = found(lines.find(({ id }) => id === part.line_id));
    const order = found(orders.find(({ id }) => id === line.order_id));
    return {
      part,
      line,
      orderId: order.id,
      order: order.number,
      customer: order.customer,
      wantedOn: line.wanted_on ?? order.wanted_on,
      confirmedAt: order.confirmed_at ?? order.made_at,
      transport: order.transport_days ?? 0,
      building: building.get(part.id) ?? ZERO,
    };
  });
  return candidates.sort(
    (a, b) =>
      (a.wantedOn ?? '9999').localeCompare(b.wantedOn ?? '9999') ||
      a.confirmedAt.localeCompare(b.confirmedAt) ||
      a.orderId - b.orderId,
  );
}

/**
 * Plans builds for what was chosen of orders, one for each product, or one for each product of each order. What they
 * finish is kept for the lines they are built for.
 * @throws Refusal `unknown-line`, `order-not-confirmed`, `no-way-to-build`, `more-than-needed`, `built-meanwhile`
 */
export async function buildForOrders(doing: Doing, input: BodyOf<'buildForOrders'>): Promise<{ builds: Numbered[] }> {
  const { tx } = doing;
  const chosen = await checked(tx, input.chosen);
  const groups = new Map<string, typeof chosen>();
  for (const one of chosen) {
    const key = input.together === 'per-order' ? `${one.orderId}:${one.part.item_id}` : `${one.part.item_id}`;
    groups.set(key, [...(groups.get(key) ?? []), one]);
  }
  const plans = [...groups.values()].map((own) => ({
    itemId: own[0]?.part.item_id ?? 0,
    purpose: 'build' as const,
    quantity: add(ZERO, ...own.map(({ quantity }) => quantity)),
    due: input.due ?? firstDay(own),
    remark: '',
  }));
  const builds = await planBuilds(doing, plans);
  const rows = [...groups.values()].flatMap((own, index) =>
    own.map(({ part, quantity }) => ({ build_id: builds[index]?.id ?? 0, part_id: part.id, quantity, kept: ZERO })),
  );
  await setBuilt(tx, rows);
  doing.changed('orders');
  return { builds };
}

/** The first day by which any of it has to leave, to be with its customer on the day it is wanted. */
const firstDay = (lines: readonly Candidate[]) =>
  lines.reduce<string | null>((first, { wantedOn, transport }) => {
    if (wantedOn === null) return first;
    const leaves = dayAfter(wantedOn, -transport);
    return first === null || leaves < first ? leaves : first;
  }, null);

/** What was chosen, as far as it can be built for its line. */
async function checked(tx: Writer, chosen: Chosen) {
  const parts = await partsById(
    tx,
    chosen.map(({ partId }) => partId),
  );
  const candidates = await candidatesOf(tx, [...new Set(parts.map(({ order_id }) => order_id))]);
  const seen = new Set<number>();
  const wanted = chosen.map(({ partId, quantity, building }, index) => {
    const at = (name: string) => `chosen.${index}.${name}`;
    const part = parts.find(({ id }) => id === partId);
    if (!part || seen.has(partId)) throw new Refusal('unknown-line', {}, at('partId'));
    seen.add(partId);
    return { part, building, quantity: countedIn(quantity, part.decimals, at('quantity')), at };
  });
  const made = await buildable(
    tx,
    parts.map(({ item_id }) => item_id),
  );
  return wanted.map(({ part, quantity, building, at }) => {
    if (part.order_open === 0) throw new Refusal('order-not-confirmed', { number: part.order_number }, at('partId'));
    if (!made.has(part.item_id)) throw new Refusal('no-way-to-build', { name: part.name }, at('partId'));
    const candidate = candidates.find((one) => one.part.id === part.id);
    const needed = candidate ? minus(candidate.part.open, candidate.building) : ZERO;
    // Two people who saw the same shortage would both build all of it.
    if (candidate && building !== null && building !== candidate.building)
      throw new Refusal('built-meanwhile', { name: part.name, building: candidate.building }, at('quantity'));
    if (!candidate || quantity > needed)
      throw new Refusal('more-than-needed', { name: part.name, needed }, at('quantity'));
    return { ...candidate, quantity };
  });
}

/**
 * Sets for which lines of orders an open build makes how many; what it finishes beyond them is for anybody.
 * @throws Refusal `wrong-state`, `unknown-line`, `more-than-needed`, `more-than-planned`, `stale-save`
 */
export async function setBuildFor(doing: Doing, id: number, input: BodyOf<'setBuildFor'>): Promise<Numbered> {
  const { tx } = doing;
  const build = found(await buildRecord(tx, id));
  if (build.repair_id !== null) throw new Refusal('is-a-repair');
  requireOpen(build);
  await updateVersioned(tx, 'build', id, input.version, {}, () => readBuild(tx, id, dayOf(doing.now)));
  const before = await builtFor(tx, [id]);
  const parts = await partsById(
    tx,
    input.orders.map(({ partId }) => partId),
  );
  const building = await beingBuilt(
    tx,
    parts.map((part) => part.id),
  );
  const rows = input.orders.map(({ partId, quantity: typed }, index) => {
    const at = (name: string) => `orders.${index}.${name}`;
    const part = parts.find((one) => one.id === partId);
    const isTwice = input.orders.findIndex((one) => one.partId === partId) !== index;
    if (!part || isTwice || part.item_id !== build.item_id) throw new Refusal('unknown-line', {}, at('partId'));
    const quantity = countedIn(typed, part.decimals, at('quantity'));
    const own = before.find(({ part_id }) => part_id === partId);
    const kept = own?.kept ?? ZERO;
    const others = minus(building.get(partId) ?? ZERO, own ? minus(own.quantity, own.kept) : ZERO);
    const needed = minus(part.open, others);
    if (quantity > needed) throw new Refusal('more-than-needed', { name: part.name, needed }, at('quantity'));
    return { build_id: id, part_id: partId, quantity: add(kept, quantity), kept };
  });
  const left = minus(build.quantity, add(build.finished, build.rejected));
  if (add(ZERO, ...rows.map(({ quantity, kept }) => minus(quantity, kept))) > left)
    throw new Refusal('more-than-planned', { left }, 'orders');
  const gone = before
    .filter(({ part_id }) => !rows.some((row) => row.part_id === part_id))
    .map(({ part_id, kept }) => ({ build_id: id, part_id, quantity: kept, kept }));
  await setBuilt(tx, [...gone, ...rows]);
  doing.changed('builds', 'orders');
  return numbered(tx, 'build', id);
}
