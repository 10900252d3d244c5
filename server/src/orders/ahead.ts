import type { OrderLook } from '@yosegi/contract';
import { required } from '@yosegi/core/definitions';
import { type Demand, latest, type Pegged, peg, type Source, sourceKey, type WhenThere } from '@yosegi/core/demand';
import { add, type Money, type Quantity, worthOf, ZERO } from '@yosegi/core/number';
import { isRefusal } from '@yosegi/core/refusal';
import { decimal, decimalOrNull, orNull } from '../command/amounts.ts';
import { type BodyOf, found } from '../command/doing.ts';
import { currencyDecimals } from '../command/money.ts';
import type { Reader } from '../db/database.ts';
import { readPicture } from '../demand/index.ts';
import { averageCostOf, freeOf, type ItemRow, itemRows } from '../items/index.ts';
import { type Contents, contentsOf, priceFor } from './contents.ts';
import { arrivesOn } from './read.ts';
import { numbersOf } from './sql.ts';

type Asked = BodyOf<'lookAhead'>;

/** What comes after every order there is: the newest is served last of those wanted on the same day. */
const NEWEST = Number.MAX_SAFE_INTEGER;

/**
 * What an order that is being typed would get, when it would be whole, and which orders and builds would be whole later
 * because of it. Nothing is promised by asking.
 */
export async function lookAhead(db: Reader, asked: Asked, today: string): Promise<OrderLook> {
  const customer = asked.customerId === null ? null : await db.models.customer.findByPk(asked.customerId);
  const items = await itemRows(
    db,
    asked.lines.map((line) => line.itemId),
  );
  const decimals = await currencyDecimals(db);
  const contents = await Promise.all(
    asked.lines.map((line, index) => readable(db, items.get(line.itemId), `lines.${index}.itemId`)),
  );
  const parts = await itemRows(
    db,
    contents.flatMap((one) => one?.parts.map((part) => part.item_id) ?? []),
  );
  const own = { kind: 'order', id: asked.orderId ?? NEWEST } as const;
  const isOwn = ({ source }: Demand) => source.kind === own.kind && source.id === own.id;
  const picture = await readPicture(db, today, [...parts.keys()]);
  const others = picture.demands.filter((demand) => !isOwn(demand));
  const wanted = asked.lines.flatMap((line, index) =>
    demandsOf(own, index, line.wantedOn ?? asked.wantedOn, line.quantity, contents[index] ?? null, parts),
  );
  const with_ = peg([...others, ...wanted], picture.supplies);
  const mine = with_.filter(({ demand }) => isOwn(demand));
  const ofLine = (index: number) => mine.filter(({ demand }) => lineOf(demand) === index);
  const lines = asked.lines.map((line, index): OrderLook['lines'][number] => {
    const item = items.get(line.itemId);
    const one = contents[index] ?? null;
    return {
      itemId: line.itemId,
      price: decimalOrNull(line.price ?? (one && priceFor(one, customer?.discount ?? ZERO, decimals))),
      plannedCost: decimal((one && plannedCost(one, line.quantity, parts)) ?? ZERO),
      free: decimal(item ? freeOf(item) : ZERO),
      coming: decimal(item?.coming ?? ZERO),
      wholeOn: latest(ofLine(index).map(({ wholeOn }) => wholeOn)),
      short: ofLine(index).flatMap(({ demand, now }) => {
        const missing = demand.quantity - now;
        const { code, name, unit } = found(parts.get(demand.itemId));
        return missing > 0 ? [{ itemId: demand.itemId, code, name, unit, quantity: decimal(missing) }] : [];
      }),
    };
  });
  const whole = latest(lines.map(({ wholeOn }) => wholeOn));
  return {
    lines,
    wholeOn: arrivesOn(whole, customer?.transport_days ?? null, today),
    delays: await delaysOf(db, peg(picture.demands, picture.supplies), with_, own),
  };
}

/** Contents of a line; null for what cannot be ordered, which is said when it is saved. */
async function readable(db: Reader, item: ItemRow | undefined, field: string): Promise<Contents | null> {
  if (!item) return null;
  try {
    return await contentsOf(db, item, field);
  } catch (error) {
    if (isRefusal(error, 'item-archived', 'order-record-only', 'no-definition-in-use')) return null;
    throw error;
  }
}

const PARTS_OF_A_LINE = 1000;
const lineOf = ({ lineId }: Demand) => Math.trunc((lineId ?? 0) / PARTS_OF_A_LINE);

function demandsOf(
  source: Source,
  line: number,
  wantedOn: string | null,
  quantity: Quantity,
  contents: Contents | null,
  items: ReadonlyMap<number, ItemRow>,
): Demand[] {
  if (contents === null) return [];
  return contents.parts.flatMap((part, index) => {
    const { decimals } = found(items.get(part.item_id));
    const need = { basis: part.basis, quantity: part.amount, waste: part.waste, decimals };
    const needed = orNull(() => required(need, quantity, contents.outputQuantity)) ?? ZERO;
    if (needed === 0) return [];
    return {
      source,
      lineId: line * PARTS_OF_A_LINE + index,
      itemId: part.item_id,
      quantity: needed,
      decimals,
      turn: { begun: false, priority: null, wantedOn, age: source.id },
      stores: null,
      alternates: [],
    };
  });
}

function plannedCost(contents: Contents, quantity: Quantity, items: ReadonlyMap<number, ItemRow>): Money | null {
  return orNull(() =>
    add(
      ZERO,
      ...contents.parts.map((part) => {
        const item = found(items.get(part.item_id));
        const need = { basis: part.basis, quantity: part.amount, waste: part.waste, decimals: item.decimals };
        return worthOf(required(need, quantity, contents.outputQuantity), averageCostOf(item));
      }),
    ),
  );
}

/** Whole days by source. */
function wholeBySource(pegging: readonly Pegged[]): Map<string, { source: Source; wholeOn: WhenThere }> {
  const known = new Map<string, { source: Source; wholeOn: WhenThere }>();
  for (const { demand, wholeOn } of pegging) {
    const key = sourceKey(demand.source);
    const before = known.get(key);
    known.set(key, { source: demand.source, wholeOn: before ? latest([before.wholeOn, wholeOn]) : wholeOn });
  }
  return known;
}

/** Whose day would move, with both days. */
async function delaysOf(
  db: Reader,
  before: readonly Pegged[],
  after: readonly Pegged[],
  own: Source,
): Promise<OrderLook['delays']> {
  const was = wholeBySource(before);
  const moved = [...wholeBySource(after).values()].filter(({ source, wholeOn }) => {
    const old = was.get(sourceKey(source))?.wholeOn;
    const isNamed = source.kind === 'order' || source.kind === 'build';
    return isNamed && sourceKey(source) !== sourceKey(own) && old !== undefined && old !== wholeOn;
  });
  const names = await numbersOf(
    db,
    moved.map(({ source }) => source),
  );
  return names.map(({ kind, id, number }) => ({
    kind,
    id,
    number,
    before: was.get(sourceKey({ kind, id }))?.wholeOn ?? null,
    after: moved.find(({ source }) => source.kind === kind && source.id === id)?.wholeOn ?? null,
  }));
}
