import type { Kit, OrderLook } from '@yosegi/contract';
import { arrivesOn, latest } from '@yosegi/core/demand';
import { ONE, ZERO } from '@yosegi/core/number';
import { type AheadLine, type Content, type Delay, type LineAhead, lookAhead as look } from '@yosegi/core/orders';
import { decimal, decimalOrNull } from '../command/amounts.ts';
import { type BodyOf, found } from '../command/doing.ts';
import { currencyDecimals } from '../command/money.ts';
import type { Reader } from '../db/database.ts';
import { readPicture } from '../demand/index.ts';
import { averageCostOf, freeOf, type ItemRow, itemRows, toItem } from '../items/index.ts';
import {
  type Contents,
  contentsOf,
  contentsOfLine,
  filled,
  isNotForSale,
  pricedOf,
  priceFor,
  readKits,
} from './contents.ts';
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
  const sold = await itemRows(
    db,
    asked.lines.map((line) => line.itemId),
  );
  const lines = await linesOf(db, asked, sold);
  const inThem = lines.flatMap(({ contents, parts }) => [
    ...parts.map((part) => part.itemId),
    ...(contents ? [...contents.base, ...pricedOf(contents, parts)].map((part) => part.itemId) : []),
    ...(contents ? [...contents.swaps.values()].flat().map((swap) => swap.itemId) : []),
  ]);
  const unread = [...new Set(inThem)].filter((id) => !sold.has(id));
  const items = new Map([...sold, ...(await itemRows(db, unread))]);
  const order = asked.orderId === null ? null : await db.models.sales_order.findByPk(asked.orderId);
  const picture = await readPicture(db, today, [...items.keys()]);
  const ahead = look(
    {
      source: { kind: 'order', id: asked.orderId ?? NEWEST },
      wantedOn: asked.wantedOn,
      turnOn: asked.turnOn,
      begun: order?.packing === 1,
      age: order?.state === 'confirmed' ? Date.parse(order.confirmed_at ?? order.made_at) : NEWEST,
    },
    lines.map((line) => ({ ...line, outputQuantity: line.contents?.outputQuantity ?? ONE })),
    new Map([...items].map(([id, item]) => [id, { decimals: item.decimals, averageCost: averageCostOf(item) }])),
    picture,
  );
  return {
    lines: lines.map((line, index): OrderLook['lines'][number] => {
      const item = items.get(line.itemId);
      const own = found(ahead.lines[index]);
      const { contents, parts } = line;
      return {
        itemId: line.itemId,
        price: decimalOrNull(
          line.price ?? (item && contents && priceFor(contents, parts, item, items, discount)) ?? null,
        ),
        plannedCost: decimal(own.plannedCost ?? ZERO),
        free: decimal(item ? freeOf(item) : ZERO),
        coming: decimal(item?.coming ?? ZERO),
        completeOn: own.completeOn,
        kit: contents && contents.revisionId !== null ? kitOf(contents, parts, items, own) : null,
        short: [...own.parts.values()].flatMap(({ itemId, missing }) => {
          const { code, name, unit } = found(items.get(itemId));
          return missing > 0 ? [{ itemId, code, name, unit, quantity: decimal(missing) }] : [];
        }),
      };
    }),
    completeOn: arrivesOn(
      latest(ahead.lines.map(({ completeOn }) => completeOn)),
      customer?.transport_days ?? 0,
      today,
    ),
    delays: await named(db, ahead.delays),
  };
}

/** A line as it is typed, with what would leave for it; without contents where it cannot be ordered. */
interface Typed extends Omit<AheadLine, 'outputQuantity'>, Pick<Asked['lines'][number], 'itemId' | 'price'> {
  readonly contents: Contents | null;
}

const NOTHING_GONE = { gone: { shipped: ZERO, dropped: ZERO }, packed: [] };

async function linesOf(db: Reader, { lines, orderId }: Asked, items: ReadonlyMap<number, ItemRow>): Promise<Typed[]> {
  const known = orderId === null ? [] : await orderLines(db, [orderId]);
  const kept = await orderParts(
    db,
    known.map(({ id }) => id),
  );
  const kits = await readKits(
    db,
    [...items.keys()],
    known.flatMap(({ revision_id }) => revision_id ?? []),
  );
  return Promise.all(
    lines.map(async (line, index) => {
      const before = known.find(({ id, item_id }) => id === line.id && item_id === line.itemId);
      const was = kept.filter(({ line_id }) => line_id === before?.id);
      const item = items.get(line.itemId);
      try {
        const contents = before
          ? contentsOfLine(kits, before, was)
          : item
            ? contentsOf(kits, item, `lines.${index}.itemId`)
            : null;
        if (contents === null) return { ...line, ...NOTHING_GONE, contents, parts: [] };
        const parts =
          before && line.contents === null
            ? was.map((part): Content => ({ ...part, itemId: part.item_id }))
            : await filled(db, contents, line.contents ?? [], (name) => `lines.${index}.${name}`);
        const gone = before ?? NOTHING_GONE.gone;
        const packed = parts.map(({ itemId }, at) => (was[at]?.item_id === itemId ? (was[at]?.packed ?? ZERO) : ZERO));
        return { ...line, gone, packed, contents, parts };
      } catch (error) {
        // What cannot be ordered is said when it is saved; the other lines keep their answers.
        if (isNotForSale(error)) return { ...line, ...NOTHING_GONE, contents: null, parts: [] };
        throw error;
      }
    }),
  );
}

function kitOf(
  contents: Contents,
  parts: readonly Content[],
  items: ReadonlyMap<number, ItemRow>,
  { parts: ahead }: LineAhead,
): Kit {
  const itemOf = (id: number) => toItem(found(items.get(id)));
  return {
    ...contents.rule,
    outputQuantity: decimal(contents.outputQuantity),
    parts: contents.base.map((base, index) => {
      const part = parts[index] ?? base;
      const own = ahead.get(index);
      return {
        position: base.position,
        item: itemOf(part.itemId),
        base: itemOf(base.itemId),
        amount: decimal(part.amount),
        baseAmount: decimal(base.amount),
        missing: decimal(own?.missing ?? ZERO),
        completeOn: own ? own.completeOn : '',
        alternates: (contents.swaps.get(base.position) ?? []).map(({ itemId, ratio }) => ({
          item: itemOf(itemId),
          ratio: decimal(ratio),
        })),
      };
    }),
  };
}

/** Whose day would move, by their numbers. */
async function named(db: Reader, delays: readonly Delay[]): Promise<OrderLook['delays']> {
  const names = await numbersOf(
    db,
    delays.map(({ source }) => source),
  );
  return names.flatMap(({ kind, id, number }) => {
    const delay = delays.find(({ source }) => source.kind === kind && source.id === id);
    return delay ? [{ kind, id, number, before: delay.before, after: delay.after, turnOn: delay.turnOn }] : [];
  });
}
