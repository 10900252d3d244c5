import type { Movement, StockDocument } from '@yosegi/contract';
import { formatDecimal } from '@yosegi/core/number';

const SCALE = 1_000_000n;

/** Whole millionths of a decimal text. */
const micro = (text: string): bigint => {
  const [, sign = '', whole = '0', fraction = ''] = /^(-?)(\d+)(?:\.(\d{1,6}))?$/.exec(text) ?? [];
  const amount = BigInt(whole) * SCALE + BigInt(fraction.padEnd(6, '0'));
  return sign ? -amount : amount;
};
/** a × b ÷ c to the nearest whole, halves away from nothing. */
const times = (a: bigint, b: bigint, c: bigint): bigint => {
  const size = (n: bigint) => (n < 0n ? -n : n);
  const rounded = (2n * size(a * b) + size(c)) / (2n * size(c));
  return a * b < 0n === c < 0n ? rounded : -rounded;
};
const inOrder = (amounts: bigint[]) => amounts.sort((a, b) => Number(a - b));
const smaller = (...amounts: bigint[]) => inOrder(amounts).at(0) ?? 0n;
const larger = (...amounts: bigint[]) => inOrder(amounts).at(-1) ?? 0n;
const sum = (amounts: readonly bigint[]) => amounts.reduce((a, b) => a + b, 0n);

/** What a person said of a posting that its document does not show. */
export interface Said {
  /** What one of what came in costs; nothing for what takes the average. */
  readonly unitCost?: string | null;
  /** What the supplier now wants for one, by the receipt it is about. */
  readonly price?: { readonly receipt: number; readonly unitCost: string };
}

interface Stock {
  quantity: bigint;
  value: bigint;
  /** The last cost of one that was known. */
  last: bigint;
}

/**
 * The books kept a second time, by someone slow who knows only the rules of costing: reads of each document what moved,
 * works out for itself what that was worth, and says so where the document says otherwise.
 */
export class SlowBooks {
  private readonly documents: StockDocument[] = [];
  private readonly undone = new Set<number>();
  private readonly stock = new Map<number, Stock>();
  private readonly serials = new Map<string, bigint>();
  private readonly places = new Map<string, bigint>();
  /** What is held in returns, return by return: it keeps the value that it left with. */
  private readonly held = new Map<string, { itemId: number; quantity: bigint; value: bigint }>();
  /** What left in shipments that stand, less what came back in returns that stand; by item, lot and serial. */
  private readonly withThem = new Map<string, { quantity: bigint; value: bigint }>();
  /** What one of a receipt or an opening balance costs by now: the first price and those that came later. */
  private readonly prices = new Map<number, { readonly by: number; readonly cost: bigint }[]>();
  readonly quarrels: string[] = [];

  of(itemId: number): Stock {
    const known = this.stock.get(itemId) ?? { quantity: 0n, value: 0n, last: 0n };
    this.stock.set(itemId, known);
    return known;
  }

  /** Of it what is held in returns. */
  returned(itemId: number) {
    const own = [...this.held.values()].filter((one) => one.itemId === itemId);
    return { quantity: sum(own.map(({ quantity }) => quantity)), value: sum(own.map(({ value }) => value)) };
  }

  /** What stands where, by item, lot, bin and what holds it. */
  standing(): [key: string, quantity: string][] {
    const all = new Map<string, bigint>();
    for (const [place, quantity] of this.places) {
      const [itemId, lot, , ...where] = place.split('|');
      const key = [itemId, lot, ...where].join('|');
      all.set(key, (all.get(key) ?? 0n) + quantity);
    }
    return [...all]
      .filter(([, quantity]) => quantity !== 0n)
      .map(([key, quantity]): [string, string] => [key, formatDecimal(Number(quantity))])
      .sort();
  }

  /** As the item page shows it. */
  figures(itemId: number) {
    const { quantity, value, last } = this.of(itemId);
    return { onHand: quantity, value, averageCost: quantity > 0n ? times(value, SCALE, quantity) : last };
  }

  /** What the newest receipt or opening balance that stands says one costs; null without any. */
  latest(itemId: number): bigint | null {
    for (const document of [...this.documents].reverse()) {
      const isReceipt = document.kind === 'receipt' || document.kind === 'opening';
      if (!isReceipt || this.undone.has(document.id) || !document.movements.some((m) => m.itemId === itemId)) continue;
      return this.priceOf(document.id);
    }
    return null;
  }

  /** Enters a document in its turn. */
  enter(document: StockDocument, said: Said = {}): void {
    const { kind, movements } = document;
    if (kind === 'receipt' || kind === 'opening')
      this.prices.set(document.id, [{ by: document.id, cost: micro(said.unitCost ?? '0') }]);
    if (kind === 'undo') this.reverse(document);
    else if (kind === 'price-difference') this.changePrice(document, said);
    else if (kind === 'revaluation') this.revalue(document, said);
    else this.move(document, said);
    this.documents.push(document);
    this.keepCount(document);
    if (kind === 'undo') for (const itemId of new Set(movements.map((m) => m.itemId))) this.forget(itemId);
    const total = sum(movements.map(({ value }) => micro(value)));
    const accounted = sum(document.values.map(({ amount }) => micro(amount)));
    if (total !== accounted) this.quarrel(document, 'value', total, accounted);
    for (const { quantity, value } of this.held.values())
      if (quantity < 0n || value < 0n || (quantity === 0n && value !== 0n))
        this.quarrel(document, 'held in a return', quantity, value);
  }

  /** No more comes back than left, each thing at its part of what it left with: all of it at exactly all of that. */
  private keepCount(document: StockDocument): void {
    const of = document.kind === 'undo' ? this.documents.find(({ id }) => id === document.reverses?.id) : document;
    for (const { itemId, code, lot, serial, quantity, value } of of && isWithThem(of) ? document.movements : []) {
      if (micro(quantity) === 0n) continue;
      const key = `${itemId}|${lot ?? ''}|${serial ?? ''}`;
      const before = this.withThem.get(key) ?? { quantity: 0n, value: 0n };
      const now = { quantity: before.quantity - micro(quantity), value: before.value - micro(value) };
      this.withThem.set(key, now);
      if (now.quantity < 0n) this.quarrel(document, `${code} came back`, now.quantity, 0n);
      if (now.quantity === 0n && now.value !== 0n) this.quarrel(document, `${code} all came back`, now.value, 0n);
    }
  }

  private move(document: StockDocument, said: Said): void {
    const { movements, kind } = document;
    let consumed = sum(
      document.values.filter(({ kind: of }) => of === 'labour' || of === 'charge').map(({ amount }) => micro(amount)),
    );
    for (let index = 0; index < movements.length; index += 1) {
      const movement = movements[index] as Movement;
      const next = movements[index + 1];
      const quantity = micro(movement.quantity);
      if (quantity > 0n && isBack(movement)) this.post(movement, micro(movement.value));
      else if (quantity < 0n) {
        // What is held in returns says itself what it is worth: its part of what it came in with.
        const worth = isBack(movement) ? -micro(movement.value) : this.worth(movement, -quantity);
        const carried = next && isOther(movement, next) ? next : null;
        this.expect(document, movement, -worth);
        this.post(movement, -worth);
        if (carried) {
          const before = { ...this.of(movement.itemId) };
          this.expect(document, carried, worth);
          this.post(carried, worth);
          index += 1;
          // From a return it comes onto the shelf as if it were bought for that.
          if (isBack(movement) && !isBack(carried)) {
            index += this.settle(document, before, carried, -quantity, worth, movements[index + 1]);
            const { quantity: now, value: all } = this.of(movement.itemId);
            this.of(movement.itemId).last = now > 0n ? times(all, SCALE, now) : times(worth, SCALE, -quantity);
          }
        } else {
          consumed += worth;
          // A unit takes its own cost along: what is left costs something else on average.
          const { quantity: left, value } = this.of(movement.itemId);
          if (movement.serial !== null && !isBack(movement) && left > 0n)
            this.of(movement.itemId).last = times(value, SCALE, left);
        }
      } else if (quantity > 0n) {
        const before = { ...this.of(movement.itemId) };
        const worth = this.worthIn(kind, movement, quantity, said, consumed);
        // What comes back of a unit taken apart has rules of its own, tested elsewhere.
        if (worth !== null) this.expect(document, movement, worth);
        const value = worth ?? micro(movement.value);
        this.post(movement, value);
        index += this.settle(document, before, movement, quantity, value, next);
        const { quantity: now, value: all } = this.of(movement.itemId);
        this.of(movement.itemId).last = now > 0n ? times(all, SCALE, now) : times(value, SCALE, quantity);
      } else this.quarrel(document, 'a movement of nothing', micro(movement.value), 0n);
    }
  }

  /** What was owed went out at the cost of then; now that it is known, what is left is worth that. */
  private settle(
    document: StockDocument,
    before: Stock,
    movement: Movement,
    quantity: bigint,
    value: bigint,
    next: Movement | undefined,
  ): 0 | 1 {
    if (before.quantity >= 0n) return 0;
    const after = this.of(movement.itemId);
    const right =
      after.quantity > 0n
        ? times(value, after.quantity, quantity)
        : times(before.value, after.quantity, before.quantity);
    const difference = right - after.value;
    if (difference === 0n) return 0;
    if (!next || micro(next.quantity) !== 0n || next.itemId !== movement.itemId) {
      this.quarrel(document, 'nothing settled', 0n, difference);
      return 0;
    }
    this.expect(document, next, difference);
    this.post(next, difference);
    return 1;
  }

  /** What so much is worth on its way out: a serial its own cost, all there is all of the value, the rest the last cost. */
  private worth({ itemId, serial }: Movement, quantity: bigint): bigint {
    if (serial !== null) return this.serials.get(`${itemId}:${serial}`) ?? 0n;
    const { quantity: there, value, last } = this.of(itemId);
    if (quantity < there) return times(value, quantity, there);
    return there > 0n ? value + times(quantity - there, last, SCALE) : times(quantity, last, SCALE);
  }

  private worthIn(
    kind: StockDocument['kind'],
    movement: Movement,
    quantity: bigint,
    said: Said,
    consumed: bigint,
  ): bigint | null {
    if (kind === 'take-apart') return null;
    if (kind === 'finish') return consumed;
    if (said.unitCost) return times(quantity, micro(said.unitCost), SCALE);
    const own = movement.serial === null ? undefined : this.costWhenLost(movement);
    return times(quantity, own ?? this.figures(movement.itemId).averageCost, SCALE);
  }

  /** What a serial was worth when it last left, by what stands. */
  private costWhenLost({ itemId, serial }: Movement): bigint | undefined {
    for (const document of [...this.documents].reverse()) {
      if (document.kind === 'undo' || this.undone.has(document.id)) continue;
      const left = [...document.movements]
        .reverse()
        .find((m) => m.itemId === itemId && m.serial === serial && micro(m.quantity) < 0n);
      if (left) return -micro(left.value);
    }
    return undefined;
  }

  private changePrice(document: StockDocument, { price }: Said): void {
    const receipt = this.documents.find(({ id }) => id === price?.receipt);
    if (!receipt || !price) throw new Error('a price of nothing');
    const of = receipt.movements.filter((m) => micro(m.quantity) > 0n);
    const [first] = of;
    if (!first) throw new Error('a receipt of nothing');
    const received = sum(of.map((m) => micro(m.quantity)));
    const before = this.valueOf(receipt.id, received);
    const difference = times(received, micro(price.unitCost), SCALE) - before;
    this.prices.get(receipt.id)?.push({ by: document.id, cost: micro(price.unitCost) });
    const here = [...this.places].filter(([key, quantity]) => {
      const [itemId, lot, serial, , holder] = key.split('|');
      if (itemId !== String(first.itemId) || quantity === 0n || holder?.startsWith('RT-')) return false;
      return serial ? of.some((m) => m.serial === serial) : lot === (first.lot ?? '');
    });
    const standing = larger(0n, smaller(received, sum(here.map(([, n]) => n)), this.of(first.itemId).quantity));
    const share = times(difference, standing, received);
    const into = sum(document.movements.map(({ value }) => micro(value)));
    // Goods are never worth less than nothing: then less of it lands on them.
    const least = -larger(0n, this.of(first.itemId).value);
    if (share >= 0n ? into !== share : into < share || into < least) this.quarrel(document, 'into stock', into, share);
    for (const movement of document.movements) this.post(movement, micro(movement.value));
    const { quantity, value } = this.of(first.itemId);
    if (quantity > 0n && document.movements.length > 0) this.of(first.itemId).last = times(value, SCALE, quantity);
  }

  private revalue(document: StockDocument, { unitCost }: Said): void {
    for (const movement of document.movements) this.post(movement, micro(movement.value));
    const itemIds = new Set(document.movements.map((m) => m.itemId));
    for (const itemId of itemIds) {
      const own = this.of(itemId);
      const right = times(own.quantity, micro(unitCost ?? '0'), SCALE);
      if (own.value !== right) this.quarrel(document, 'revalued', own.value, right);
      own.last = times(own.value, SCALE, own.quantity);
    }
  }

  /** The exact opposite; what that leaves over without goods is nothing any more. */
  private reverse(document: StockDocument): void {
    const of = this.documents.find(({ id }) => id === document.reverses?.id);
    if (!of) throw new Error('undoes nothing');
    this.undone.add(of.id);
    for (const [index, movement] of of.movements.entries()) {
      const opposite = document.movements[index];
      if (opposite) {
        this.expect(document, opposite, -micro(movement.value));
        if (micro(opposite.quantity) !== -micro(movement.quantity)) this.quarrel(document, 'undoes another', 0n, 1n);
        this.post(opposite, -micro(movement.value));
      }
    }
    for (const movement of document.movements.slice(of.movements.length)) {
      const key = `${movement.itemId}:${movement.serial}`;
      const rest = movement.serial === null ? this.of(movement.itemId).value : (this.serials.get(key) ?? 0n);
      this.expect(document, movement, -rest);
      this.post(movement, -rest);
    }
  }

  /** What was undone leaves no trace in the last known cost: it is found again from what stands. */
  private forget(itemId: number): void {
    const own = this.of(itemId);
    own.last = own.quantity > 0n ? times(own.value, SCALE, own.quantity) : this.lastOfStanding(itemId);
  }

  private lastOfStanding(itemId: number): bigint {
    let [quantity, value, last] = [0n, 0n, 0n];
    for (const { id, kind, movements } of this.documents) {
      if (kind === 'undo' || this.undone.has(id)) continue;
      const own = movements.filter((m) => m.itemId === itemId && !isBack(m));
      const goods = own.filter((m) => micro(m.quantity) !== 0n);
      const change = sum(goods.map((m) => micro(m.quantity)));
      const came = sum(goods.map((m) => micro(m.value)));
      const worth = sum(own.map((m) => micro(m.value)));
      const before = quantity;
      quantity += change;
      if (change > 0n && quantity > 0n) {
        value = before < 0n ? times(came, quantity, change) : value + came;
        last = times(value, SCALE, quantity);
      } else if (change > 0n) [value, last] = [0n, times(came, SCALE, change)];
      else if (change < 0n && own.some((m) => m.serial !== null)) {
        value = quantity > 0n ? value + came : 0n;
        if (quantity > 0n) last = times(value, SCALE, quantity);
      } else if (change < 0n) value = quantity > 0n ? value - times(value, -change, before) : 0n;
      else if (quantity > 0n && worth !== 0n) {
        value = larger(0n, value + worth);
        last = times(value, SCALE, quantity);
      }
    }
    return last;
  }

  private priceOf(receipt: number): bigint {
    const told = (this.prices.get(receipt) ?? []).filter(({ by }) => !this.undone.has(by));
    return told.at(-1)?.cost ?? 0n;
  }
  private valueOf = (receipt: number, quantity: bigint) => times(quantity, this.priceOf(receipt), SCALE);

  private post(movement: Movement, value: bigint): void {
    const { itemId, serial, lot, bin, build } = movement;
    const quantity = micro(movement.quantity);
    const own = isBack(movement) ? this.heldIn(movement) : this.of(itemId);
    own.quantity += quantity;
    own.value += value;
    const place = `${itemId}|${lot ?? ''}|${serial ?? ''}|${bin}|${build ?? ''}`;
    this.places.set(place, (this.places.get(place) ?? 0n) + quantity);
    if (serial === null) return;
    const key = `${itemId}:${serial}`;
    this.serials.set(key, (this.serials.get(key) ?? 0n) + value);
  }

  private heldIn({ itemId, lot, serial, build }: Movement) {
    const key = `${itemId}|${lot ?? ''}|${serial ?? ''}|${build}`;
    const known = this.held.get(key) ?? { itemId, quantity: 0n, value: 0n };
    this.held.set(key, known);
    return known;
  }

  private expect(document: StockDocument, movement: Movement, value: bigint): void {
    if (micro(movement.value) !== value)
      this.quarrel(document, `${movement.code} ${movement.quantity}`, micro(movement.value), value);
  }

  private quarrel({ number, kind }: StockDocument, about: string, says: bigint, should: bigint): void {
    this.quarrels.push(`${number} (${kind}), ${about}: ${says}, should be ${should}`);
  }
}

/** Whether it is about what is with a customer: what was shipped, came back, or went back to them. */
const isWithThem = ({ kind, values }: StockDocument): boolean =>
  kind === 'shipment' ||
  kind === 'return' ||
  (kind === 'return-settled' && values.some((line) => line.kind === 'returned'));

/** Whether it stands for a return. */
const isBack = ({ build }: Movement) => build?.startsWith('RT-') ?? false;

/** Whether the second is where goods of the first went: the other half of a move. */
const isOther = (from: Movement, to: Movement) =>
  to.itemId === from.itemId &&
  to.lot === from.lot &&
  to.serial === from.serial &&
  micro(to.quantity) === -micro(from.quantity);
