import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type Money, type Quantity, SCALE } from '../number/index.ts';
import { Refusal } from '../refusal/index.ts';
import {
  bringInAt,
  type Heap,
  type ItemStock,
  isInReturns,
  type Posted,
  Posting,
  postAdjustment,
  postPriceDifference,
  postRevaluation,
  type Spot,
  spotKey,
} from './index.ts';

/**
 * A history of 10,000 steps of every kind of document, on plain items, lots and serials, kept by the ledger and beside it
 * by a slow reference that knows only the rules: it keeps the whole journal, finds every balance, average and serial's
 * cost by adding the journal up in big integers, and works out for itself what leaves at which value.
 */
const STEPS = Number(process.env.HISTORY_STEPS ?? 10_000);
const [PLAIN, LOTS, SERIALS, PRODUCT] = [1, 2, 3, 4] as const;
const [SHELF, OTHER, BENCH, RETURNS] = [1, 2, 9, 10] as const;
const BUILD = { kind: 'build', id: 7 } as const;
const units = (n: number) => (n * SCALE) as Quantity;

/** The journal alone, and what follows from it. Slow on purpose; sums are kept only to be found again. */
class Reference {
  readonly quantities = new Map<string, bigint>();
  readonly items = new Map<number, { quantity: bigint; value: bigint }>();
  readonly serials = new Map<number, { units: bigint; value: bigint }>();
  /** What is held in returns, place by place: it keeps the value that it left with. */
  readonly held = new Map<string, { quantity: bigint; value: bigint }>();

  enter({ movements }: Posted): void {
    for (const movement of movements) {
      const key = spotKey(movement);
      const quantity = BigInt(movement.quantity);
      const value = BigInt(movement.value);
      this.quantities.set(key, (this.quantities.get(key) ?? 0n) + quantity);
      const [of, id] = isInReturns(movement) ? ([this.held, key] as const) : ([this.items, movement.itemId] as const);
      const all = of as Map<number | string, { quantity: bigint; value: bigint }>;
      const known = all.get(id) ?? { quantity: 0n, value: 0n };
      all.set(id, { quantity: known.quantity + quantity, value: known.value + value });
      if (movement.serialId === null) continue;
      const serial = this.serials.get(movement.serialId) ?? { units: 0n, value: 0n };
      this.serials.set(movement.serialId, {
        units: serial.units + quantity / BigInt(SCALE),
        value: serial.value + value,
      });
    }
  }

  /** What so much of a plain or lot item is worth now, by the moving average, to the nearest millionth; all takes all. */
  worth(itemId: number, quantity: bigint): bigint {
    const { quantity: there, value } = this.items.get(itemId) ?? { quantity: 0n, value: 0n };
    if (quantity === there) return value;
    const [floor, rest] = [(value * quantity) / there, (value * quantity) % there];
    return rest * 2n >= there ? floor + 1n : floor;
  }
}

class History {
  readonly items = new Map<number, ItemStock>();
  readonly spots = new Map<string, Quantity>();
  readonly serials = new Map<number, Money>();
  readonly standing = new Map<string, Spot>();
  readonly reference = new Reference();
  readonly posted: { of: Posted; kind: string; undone: boolean; back?: Posted | null }[] = [];
  readonly done = new Map<string, number>();
  nextSerial = 1;

  post(kind: string, fill: (posting: Posting) => void, mayGoBelow = false): Posted | null {
    const posting = new Posting(this, { mayGoBelow });
    let of: Posted;
    try {
      fill(posting);
      of = posting.close();
    } catch (error) {
      if (error instanceof Refusal) return null;
      throw error;
    }
    for (const [id, item] of of.items) this.items.set(id, item);
    for (const [key, { spot, quantity }] of of.spots) {
      if (quantity === 0) this.spots.delete(key);
      else this.spots.set(key, quantity);
      this.standing.set(key, spot);
    }
    for (const [id, value] of of.serials) {
      if (value === null) this.serials.delete(id);
      else this.serials.set(id, value);
    }
    this.reference.enter(of);
    this.posted.push({ of, kind, undone: false });
    this.done.set(kind, (this.done.get(kind) ?? 0) + 1);
    return of;
  }

  /** Everything of an item, at its places. */
  of(itemId: number, binId?: number): Heap[] {
    return [...this.spots].flatMap(([key, quantity]) => {
      const spot = this.standing.get(key) as Spot;
      const isThere = binId === undefined ? !isInReturns(spot) : spot.binId === binId;
      const fits = spot.itemId === itemId && isThere && quantity > 0;
      return fits ? [{ spot, quantity }] : [];
    });
  }
}

/** The same numbers for the same seed (a linear congruence is random enough to wander). */
function dice(seed: number) {
  let state = BigInt(seed) & 0xffffffffn;
  return (sides: number) => {
    state = (state * 6364136223846793005n + 1442695040888963407n) & 0xffffffffffffffffn;
    return Number((state >> 33n) % BigInt(sides));
  };
}

function step(history: History, roll: (sides: number) => number): void {
  const itemId = [PLAIN, LOTS, SERIALS][roll(3)] as number;
  const cost = roll(9_999_999);
  const fresh = (n: number, binId: number = SHELF): Heap[] => {
    const spot = { itemId, binId, lotId: null, serialId: null, holder: null };
    if (itemId === PLAIN) return [{ spot, quantity: units(n) }];
    if (itemId === LOTS) return [{ spot: { ...spot, lotId: 1 + roll(5) }, quantity: units(n) }];
    return Array.from({ length: n }, () => ({
      spot: { ...spot, serialId: history.nextSerial++ },
      quantity: units(1),
    }));
  };
  const some = (binId?: number): Heap | undefined => {
    const there = history.of(itemId, binId);
    return there[roll(Math.max(1, there.length))];
  };
  const part = ({ quantity }: Heap) => units(1 + roll(Math.max(1, Math.floor(quantity / SCALE))));
  const kinds = [
    'receipt',
    'receipt',
    'transfer',
    'adjustment',
    'count',
    'pick',
    'put-back',
    'finish',
    'take-apart',
    'price',
    'revalue',
    'ship',
    'return',
    'return',
    'decide',
    'undo',
    'undo',
  ];
  const kind = history.posted.length === 0 ? 'opening' : (kinds[roll(kinds.length)] as string);
  if (kind === 'receipt' || kind === 'opening') {
    const standing = fresh(1 + roll(6));
    const value = (standing.length * cost) as Money;
    history.post(kind, (posting) => {
      posting.addValue(kind === 'opening' ? 'opening' : 'supplier', value);
      bringInAt(posting, standing, value);
    });
  }
  if (kind === 'transfer' || kind === 'pick' || kind === 'put-back') {
    const from = some(kind === 'put-back' ? BENCH : SHELF);
    if (!from) return;
    const to = {
      transfer: { binId: OTHER, holder: null },
      pick: { binId: BENCH, holder: BUILD },
      'put-back': { binId: SHELF, holder: null },
    }[kind];
    history.post(kind, (posting) => posting.move(from.spot, { ...from.spot, ...to }, part(from)));
  }
  if (kind === 'adjustment' || kind === 'count') {
    const from = some();
    const found = roll(3) === 0;
    const below = roll(6) === 0;
    if (!found && !from) return;
    const [own] = found ? fresh(1) : [{ spot: from?.spot as Spot, quantity: part(from as Heap) }];
    const change = (found ? units(1) : -((own?.quantity ?? 0) + (below ? units(2) : 0))) as Quantity;
    const unitCost = roll(2) === 0 ? (cost as Money) : null;
    history.post(kind, (posting) => postAdjustment(posting, { spot: own?.spot as Spot, change, unitCost }), below);
  }
  if (kind === 'finish') {
    const uses = [PLAIN, LOTS, SERIALS].flatMap((id) => history.of(id, roll(2) ? BENCH : SHELF).slice(0, 2));
    if (uses.length === 0) return;
    history.post(kind, (posting) => {
      const used = uses.map((use) => posting.takeOut(use.spot, Math.min(use.quantity, units(2)) as Quantity));
      posting.addValue('labour', cost as Money);
      const spot = { itemId: PRODUCT, binId: SHELF, lotId: null, serialId: null, holder: null };
      posting.bringIn(spot, units(1 + roll(4)), (used.reduce((a, b) => a + b, 0) + cost) as Money);
    });
  }
  if (kind === 'take-apart') {
    const [unit] = history.of(PRODUCT);
    if (!unit) return;
    history.post(kind, (posting) => {
      const value = posting.takeOut(unit.spot, part(unit));
      const off = Math.floor(value / (2 + roll(5))) as Money;
      bringInAt(posting, fresh(1 + roll(3)), (value - off) as Money);
      posting.addValue('written-off', -off as Money);
    });
  }
  if (kind === 'price') {
    const receipts = history.posted.filter((one) => one.kind === 'receipt' && !one.undone);
    const chosen = receipts[roll(Math.max(1, receipts.length))]?.of.movements.filter(({ quantity }) => quantity > 0);
    const [first] = chosen ?? [];
    if (!first || !chosen) return;
    const received = chosen.reduce((sum, { quantity }) => sum + quantity, 0) as Quantity;
    const ids = new Set(chosen.map(({ serialId, lotId }) => serialId ?? lotId));
    const here = history.of(first.itemId).filter(({ spot }) => ids.has(spot.serialId ?? spot.lotId));
    const difference = (roll(2) ? cost : -cost) as Money;
    history.post(kind, (posting) => postPriceDifference(posting, { itemId: first.itemId, received, difference, here }));
  }
  if (kind === 'revalue')
    history.post(kind, (posting) => postRevaluation(posting, itemId, cost as Money, history.of(itemId)));
  if (kind === 'ship') {
    const from = some(SHELF);
    if (!from) return;
    history.post(kind, (posting) => posting.addValue('shipped', -posting.takeOut(from.spot, part(from)) as Money));
  }
  if (kind === 'return') {
    const sent = history.posted
      .slice(-200)
      .filter((one) => one.kind === 'ship' && !one.undone && !isBack(history, one));
    const chosen = sent[roll(Math.max(1, sent.length))];
    const [left] = chosen?.of.movements ?? [];
    if (!chosen || !left) return;
    const { itemId: id, lotId, serialId } = left;
    const holder = { kind: 'return', id: history.posted.length } as const;
    const spot = { itemId: id, binId: RETURNS, lotId, serialId, holder };
    chosen.back = history.post(kind, (posting) => {
      posting.addValue('returned', -left.value as Money);
      posting.bringIn(spot, -left.quantity as Quantity, -left.value as Money);
    });
  }
  if (kind === 'decide') {
    const heap = some(RETURNS);
    if (!heap) return;
    const value = Number(history.reference.held.get(spotKey(heap.spot))?.value ?? 0n) as Money;
    history.post(kind, (posting) => {
      posting.takeOutAt(heap.spot, heap.quantity, value);
      if (roll(2)) posting.bringIn({ ...heap.spot, binId: SHELF, holder: null }, heap.quantity, value);
      else posting.addValue('written-off', -value as Money);
    });
  }
  if (kind === 'undo') {
    // What came back is not undone before its return is.
    const open = history.posted.slice(-40).filter((one) => !one.undone && !isBack(history, one));
    const chosen = open[roll(Math.max(1, open.length))];
    if (!chosen) return;
    const counter = history.post(kind, (posting) => posting.reverse(chosen.of.movements, chosen.of.values));
    if (!counter) return;
    chosen.undone = true;
    (history.posted.at(-1) as { undone: boolean }).undone = true;
  }
}

/** Whether it left and stands in a return that stands. */
const isBack = (history: History, { back }: History['posted'][number]): boolean =>
  back != null && history.posted.some(({ of, undone }) => of === back && !undone);

/** What the ledger kept beside the journal is what the journal says. */
function agree(history: History): void {
  const { reference } = history;
  for (const [id, item] of history.items) {
    const own = reference.items.get(id);
    expect([BigInt(item.quantity), BigInt(item.value)]).toEqual([own?.quantity, own?.value]);
    if (item.quantity === 0) expect(item.value).toBe(0);
    if (item.quantity > 0) expect(item.value).toBeGreaterThanOrEqual(0);
  }
  for (const { quantity, value } of reference.held.values()) {
    expect(quantity).toBeGreaterThanOrEqual(0n);
    expect(value).toBeGreaterThanOrEqual(0n);
    if (quantity === 0n) expect(value).toBe(0n);
  }
  for (const [key, quantity] of reference.quantities) expect(BigInt(history.spots.get(key) ?? 0)).toBe(quantity);
  for (const [id, { units: here, value }] of reference.serials) {
    expect([0n, 1n]).toContain(here);
    expect(history.serials.has(id)).toBe(here === 1n);
    if (here === 1n) expect(BigInt(history.serials.get(id) ?? -1)).toBe(value);
    else expect(value).toBe(0n);
  }
}

describe(`a history of ${STEPS} steps`, () => {
  it('conserves quantity and value, and agrees with a slow reference all along', () => {
    fc.assert(
      fc.property(fc.integer(), (seed) => {
        const history = new History();
        const roll = dice(seed);
        for (let n = 0; n < STEPS; n += 1) {
          const before = new Map(history.reference.items);
          const count = history.posted.length;
          step(history, roll);
          const posted = history.posted[count];
          if (!posted) continue;
          const moved = posted.of.movements.reduce((sum, { value }) => sum + value, 0);
          expect(moved).toBe(posted.of.values.reduce((sum, { amount }) => sum + amount, 0));
          // What left a plain item or a lot first left at the average that the reference finds for itself.
          const [first] = posted.of.movements;
          if (first && ['transfer', 'pick', 'put-back'].includes(posted.kind) && first.serialId === null) {
            const asBefore = Object.assign(new Reference(), { items: before });
            const there = before.get(first.itemId)?.quantity ?? 0n;
            if (there >= BigInt(-first.quantity))
              expect(BigInt(-first.value)).toBe(asBefore.worth(first.itemId, BigInt(-first.quantity)));
          }
          if (n % 500 === 0) agree(history);
        }
        agree(history);
        const kinds = [
          'receipt',
          'transfer',
          'adjustment',
          'count',
          'pick',
          'put-back',
          'finish',
          'take-apart',
          'price',
          'revalue',
          'ship',
          'return',
          'decide',
          'undo',
        ];
        for (const kind of kinds) expect(history.done.get(kind) ?? 0, kind).toBeGreaterThan(STEPS / 500);
      }),
      { numRuns: 2 },
    );
  });
});
