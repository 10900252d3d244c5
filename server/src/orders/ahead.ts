import type { Kit, OrderLook } from '@yosegi/contract';
import { required } from '@yosegi/core/definitions';
import { type Demand, latest, type Pegged, peg, type Source, sourceKey, type WhenThere } from '@yosegi/core/demand';
import { add, type Money, worthOf, ZERO } from '@yosegi/core/number';
import type { Content } from '@yosegi/core/orders';
import { isRefusal } from '@yosegi/core/refusal';
import { decimal, decimalOrNull, orNull } from '../command/amounts.ts';
import { type BodyOf, found } from '../command/doing.ts';
import { currencyDecimals } from '../command/money.ts';
import type { Reader } from '../db/database.ts';
import { readPicture } from '../demand/index.ts';
import { averageCostOf, freeOf, type ItemRow, itemRows, toItem } from '../items/index.ts';
import { type Contents, contentsOf, contentsOfLine, filled, pricedOf, priceFor } from './contents.ts';
import { arrivesOn } from './read.ts';
import { numbersOf, orderLines, orderParts } from './sql.ts';

type Asked = BodyOf<'lookAhead'>;

/** What comes after every order there is: the newest is served last of those wanted on the same day. */
const NEWEST = Number.MAX_SAFE_INTEGER;

/**
 * What an order that is being typed would get, when it would be whole, and which orders and builds would be whole later
 * because of it. Nothing is promised by asking.
 */
export async function lookAhead(db: Reader, asked: Asked, today: string): Promise<OrderLook> {
  const customer = asked.customerId === null ? null : await db.models.customer.findByPk(asked.customerId);
  const discount = { discount: customer?.discount ?? ZERO, decimals: await currencyDecimals(db) };
  const lines = await linesOf(db, asked);
  const items = await itemRows(
    db,
    lines.flatMap(({ itemId, contents, parts }) => [
      itemId,
      ...parts.map((part) => part.itemId),
      ...(contents ? [...contents.base, ...pricedOf(contents, parts)].map((part) => part.itemId) : []),
      ...(contents ? [...contents.swaps.values()].flat().map((swap) => swap.itemId) : []),
    ]),
  );
  const own = { kind: 'order', id: asked.orderId ?? NEWEST } as const;
  const isOwn = ({ source }: Demand) => source.kind === own.kind && source.id === own.id;
  const picture = await readPicture(db, today, [...items.keys()]);
  const others = picture.demands.filter((demand) => !isOwn(demand));
  const wanted = lines.flatMap((line, index) => demandsOf(own, index, line, asked.wantedOn, items));
  const pegging = peg([...others, ...wanted], picture.supplies);
  const mine = pegging.filter(({ demand }) => isOwn(demand));
  const looks = lines.map((line, index): OrderLook['lines'][number] => {
    const item = items.get(line.itemId);
    const served = mine.filter(({ demand }) => lineOf(demand) === index);
    const { contents, parts } = line;
    return {
      itemId: line.itemId,
      price: decimalOrNull(
        line.price ?? (item && contents && priceFor(contents, parts, item, items, discount)) ?? null,
      ),
      plannedCost: decimal(plannedCost(line, items) ?? ZERO),
      free: decimal(item ? freeOf(item) : ZERO),
      coming: decimal(item?.coming ?? ZERO),
      wholeOn: latest(served.map(({ wholeOn }) => wholeOn)),
      kit: contents && contents.revisionId !== null ? kitOf(contents, parts, items) : null,
      short: served.flatMap(({ demand, now }) => {
        const missing = demand.quantity - now;
        const { code, name, unit } = found(items.get(demand.itemId));
        return missing > 0 ? [{ itemId: demand.itemId, code, name, unit, quantity: decimal(missing) }] : [];
      }),
    };
  });
  return {
    lines: looks,
    wholeOn: arrivesOn(latest(looks.map(({ wholeOn }) => wholeOn)), customer?.transport_days ?? null, today),
    delays: await delaysOf(db, peg(picture.demands, picture.supplies), pegging, own),
  };
}

/** A line as it is typed, with what would leave for it; without contents where it cannot be ordered. */
interface Typed extends Pick<Asked['lines'][number], 'itemId' | 'quantity' | 'price' | 'wantedOn'> {
  readonly contents: Contents | null;
  readonly parts: readonly Content[];
}

async function linesOf(db: Reader, { lines, orderId }: Asked): Promise<Typed[]> {
  const items = await itemRows(
    db,
    lines.map((line) => line.itemId),
  );
  const known = orderId === null ? [] : await orderLines(db, [orderId]);
  const kept = await orderParts(
    db,
    known.map(({ id }) => id),
  );
  return Promise.all(
    lines.map(async (line, index) => {
      const before = known.find(({ id, item_id }) => id === line.id && item_id === line.itemId);
      const was = kept.filter(({ line_id }) => line_id === before?.id);
      const item = items.get(line.itemId);
      try {
        const contents = before
          ? await contentsOfLine(db, before, was)
          : item
            ? await contentsOf(db, item, `lines.${index}.itemId`)
            : null;
        if (contents === null) return { ...line, contents, parts: [] };
        const parts =
          before && line.contents === null
            ? was.map((part): Content => ({ ...part, itemId: part.item_id }))
            : await filled(db, contents, line.contents ?? [], (name) => `lines.${index}.${name}`);
        return { ...line, contents, parts };
      } catch (error) {
        // What cannot be ordered is said when it is saved; the other lines keep their answers.
        if (isRefusal(error, 'item-archived', 'order-record-only', 'no-definition-in-use'))
          return { ...line, contents: null, parts: [] };
        throw error;
      }
    }),
  );
}

function kitOf(contents: Contents, parts: readonly Content[], items: ReadonlyMap<number, ItemRow>): Kit {
  const itemOf = (id: number) => toItem(found(items.get(id)));
  return {
    ...contents.rule,
    outputQuantity: decimal(contents.outputQuantity),
    parts: contents.base.map((base, index) => {
      const part = parts[index] ?? base;
      return {
        position: base.position,
        item: itemOf(part.itemId),
        base: itemOf(base.itemId),
        amount: decimal(part.amount),
        baseAmount: decimal(base.amount),
        alternates: (contents.swaps.get(base.position) ?? []).map(({ itemId, ratio }) => ({
          item: itemOf(itemId),
          ratio: decimal(ratio),
        })),
      };
    }),
  };
}

const PARTS_OF_A_LINE = 1000;
const lineOf = ({ lineId }: Demand) => Math.trunc((lineId ?? 0) / PARTS_OF_A_LINE);

const needOf = ({ basis, amount, waste }: Content, { decimals }: ItemRow) => ({
  basis,
  quantity: amount,
  waste,
  decimals,
});

function demandsOf(
  source: Source,
  index: number,
  { contents, parts, quantity, wantedOn }: Typed,
  orderWantedOn: string | null,
  items: ReadonlyMap<number, ItemRow>,
): Demand[] {
  if (contents === null) return [];
  return parts.flatMap((part, at) => {
    const item = found(items.get(part.itemId));
    const needed = orNull(() => required(needOf(part, item), quantity, contents.outputQuantity)) ?? ZERO;
    if (needed === 0) return [];
    return {
      source,
      lineId: index * PARTS_OF_A_LINE + at,
      itemId: part.itemId,
      quantity: needed,
      decimals: item.decimals,
      turn: { begun: false, priority: null, wantedOn: wantedOn ?? orderWantedOn, age: source.id },
      stores: null,
      alternates: [],
    };
  });
}

function plannedCost({ contents, parts, quantity }: Typed, items: ReadonlyMap<number, ItemRow>): Money | null {
  if (contents === null) return null;
  return orNull(() =>
    add(
      ZERO,
      ...parts.map((part) => {
        const item = found(items.get(part.itemId));
        return worthOf(required(needOf(part, item), quantity, contents.outputQuantity), averageCostOf(item));
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
