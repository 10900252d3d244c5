import {
  add,
  LARGEST_OF_ITEM,
  type Money,
  mulDiv,
  type Quantity,
  SCALE,
  unitCostOf,
  worthOf,
  ZERO,
} from '../number/index.ts';
import { Refusal } from '../refusal/index.ts';
import { type InReturns, type ItemStock, isInReturns, NO_STOCK, type Spot, type StockState, spotKey } from './state.ts';

/** One row of the ledger: a signed quantity and value at a place. */
export interface Movement extends Spot {
  readonly quantity: Quantity;
  readonly value: Money;
  /** The build line that this movement serves, when there is one. */
  readonly lineId: number | null;
}

/**
 * Value that enters or leaves stock other than with goods. Positive kinds bring value in (what a supplier is owed, an
 * opening balance, labour, charges), negative ones take it out (written off, a difference in cost). What is adjusted or
 * revalued goes either way.
 */
export type ValueKind =
  | 'supplier'
  | 'opening'
  | 'labour'
  | 'charge'
  | 'written-off'
  | 'cost-difference'
  | 'adjusted'
  | 'revalued'
  | 'shipped'
  | 'returned'
  | 'repaired';

export interface ValueLine {
  readonly kind: ValueKind;
  /** Signed: what it adds to the value of stock. */
  readonly amount: Money;
  readonly itemId: number | null;
  readonly lineId: number | null;
}

/** A place from which more was wanted than stood there. */
export interface Shortage extends Spot {
  readonly wanted: Quantity;
  readonly there: Quantity;
}

/** What a posting does to stock; sum of movement values = sum of value lines, always. */
export interface Posted {
  readonly movements: readonly Movement[];
  readonly values: readonly ValueLine[];
  readonly items: ReadonlyMap<number, ItemStock>;
  /** By how much it changes what is held in returns, item by item. */
  readonly inReturns: ReadonlyMap<number, InReturns>;
  readonly spots: ReadonlyMap<string, { readonly spot: Spot; readonly quantity: Quantity }>;
  /** What each serial it touched is worth now; null once it has left stock. */
  readonly serials: ReadonlyMap<number, Money | null>;
  /** Places that went or stayed below zero, allowed by an override. */
  readonly belowZero: readonly Shortage[];
}

/**
 * Builds one posting step by step against a stock state, keeping moving averages, serials' own costs and balances as it
 * goes.
 * Nothing takes effect outside until {@link close} hands over the result.
 *
 * Taking more than is there is collected over the whole posting and refused at the end, so that a person sees every
 * shortage at once; with `mayGoBelow` it is costed at the last known cost instead. A serial number is one thing in one
 * place: it never goes below zero, whatever is allowed.
 */
export class Posting {
  private readonly items = new Map<number, ItemStock>();
  private readonly inReturns = new Map<number, InReturns>();
  private readonly spots = new Map<string, { spot: Spot; quantity: Quantity }>();
  private readonly serials = new Map<number, { value: Money; units: number }>();
  private readonly movements: Movement[] = [];
  private readonly values: ValueLine[] = [];
  private readonly shortages: Shortage[] = [];
  /** Serials that stood in returns before; found when it is asked for. */
  private heldApart: ReadonlySet<number> | undefined;

  constructor(
    private readonly state: StockState,
    private readonly options: { readonly mayGoBelow?: boolean } = {},
  ) {}

  item(itemId: number): ItemStock {
    return this.items.get(itemId) ?? this.state.items.get(itemId) ?? NO_STOCK;
  }

  at(spot: Spot): Quantity {
    const key = spotKey(spot);
    return this.spots.get(key)?.quantity ?? this.state.spots.get(key) ?? (0 as Quantity);
  }

  /** What may be taken off the worth of what stands at a place: a serial's own cost, or all of the item's value. */
  worthAt({ itemId, serialId }: Spot): Money {
    return serialId === null ? this.item(itemId).value : this.serial(serialId).value;
  }

  /** What a serial is worth: the sum of what was ever posted on it. */
  private serial(serialId: number): { value: Money; units: number } {
    const known = this.serials.get(serialId);
    if (known) return known;
    const value = this.state.serials.get(serialId);
    return { value: value ?? (0 as Money), units: value === undefined ? 0 : 1 };
  }

  /** Value added to what this posting brings in: labour, charges; or with a negative amount, what leaves unseen. */
  addValue(kind: ValueKind, amount: Money, about: { itemId?: number; lineId?: number } = {}): void {
    if (amount === 0) return;
    this.values.push({ kind, amount, itemId: about.itemId ?? null, lineId: about.lineId ?? null });
  }

  /**
   * Brings `quantity` worth `value` to a place. The value must be accounted for by value lines or by what other steps
   * took out. When the item stood below zero, the difference between the cost it went out at and the cost now known is
   * settled at once, as a movement without quantity against a cost difference.
   */
  bringIn(spot: Spot, quantity: Quantity, value: Money, lineId: number | null = null): void {
    const before = this.item(spot.itemId);
    this.record(spot, quantity, value, lineId);
    if (isInReturns(spot)) return;
    if (before.quantity < 0) this.settle(spot, before, quantity, value);
    const after = this.item(spot.itemId);
    const cost = after.quantity > 0 ? unitCostOf(after.value, after.quantity) : unitCostOf(value, quantity);
    this.items.set(spot.itemId, { ...after, lastCost: cost });
  }

  /**
   * Takes `quantity` from a place and returns its value: a serial's own cost, else the item's moving average. The last of
   * an item takes all of its value with it.
   */
  takeOut(spot: Spot, quantity: Quantity, lineId: number | null = null): Money {
    if (isInReturns(spot)) throw new Error('what is held in returns has a value of its own: takeOutAt');
    this.noteShortage(spot, quantity);
    const value = this.valueOf(spot, quantity);
    this.record(spot, -quantity as Quantity, -value as Money, lineId);
    // What leaves at its own cost changes what the others cost on average.
    if (spot.serialId !== null) this.keepLastCost(spot.itemId);
    return value;
  }

  /** Takes `quantity` of what is held in returns at exactly `value`, its part of what it came in with. */
  takeOutAt(spot: Spot, quantity: Quantity, value: Money, lineId: number | null = null): void {
    if (!isInReturns(spot)) throw new Error('only what is held in returns has a value of its own');
    this.noteShortage(spot, quantity);
    this.record(spot, -quantity as Quantity, -value as Money, lineId);
  }

  /** Moves `quantity` between places of one item; its value moves along and the item's total stays as it is. */
  move(from: Spot, to: Spot, quantity: Quantity, lineId: number | null = null): void {
    this.noteShortage(from, quantity);
    const value = this.valueOf(from, quantity);
    this.record(from, -quantity as Quantity, -value as Money, lineId);
    this.record(to, quantity, value, lineId);
  }

  /**
   * Changes what stands at a place without moving it: a price known later, a revaluation. The value must be accounted
   * for by value lines.
   */
  addWorth(spot: Spot, value: Money): void {
    if (value === 0) return;
    this.record(spot, 0 as Quantity, value, null);
    this.keepLastCost(spot.itemId);
  }

  private keepLastCost(itemId: number): void {
    const item = this.item(itemId);
    if (item.quantity > 0) this.items.set(itemId, { ...item, lastCost: unitCostOf(item.value, item.quantity) });
  }

  /**
   * Undoes posted movements and value lines exactly, as the counter-document of a mistake.
   * @param lastCostOf the last cost known by the postings that stand, for what is used up without the one undone
   * @throws Refusal `undo-goods-gone` when goods it brought have left their place (`lines`: place, wanted, there), or
   * `undo-value-gone` when the value it brought has been used up since (`itemIds`)
   */
  reverse(
    movements: readonly Movement[],
    values: readonly ValueLine[],
    lastCostOf: (itemId: number) => Money | undefined = () => undefined,
  ): void {
    for (const movement of movements) {
      this.record(movement, -movement.quantity as Quantity, -movement.value as Money, movement.lineId);
    }
    for (const line of values) {
      this.addValue(line.kind, -line.amount as Money, {
        ...(line.itemId === null ? {} : { itemId: line.itemId }),
        ...(line.lineId === null ? {} : { lineId: line.lineId }),
      });
    }
    for (const serialId of new Set(movements.flatMap((movement) => movement.serialId ?? [])))
      this.holdApart(serialId, movements);
    this.refuseWhatIsGone(movements);
    for (const movement of movements) this.clearSerial(movement);
    const ofShelves = movements.filter((movement) => !isInReturns(movement));
    for (const itemId of new Set(ofShelves.map((movement) => movement.itemId))) {
      this.clearRest(itemId, ofShelves);
      this.forgetCost(itemId, lastCostOf);
    }
  }

  /**
   * The finished posting.
   * @throws Refusal `stock-short` with every shortage (`lines`) unless the posting may go below zero;
   * `serial-not-there` or `serial-in-stock` (`lines`) for serials, always
   */
  close(): Posted {
    this.refuseSerials();
    if (this.shortages.length > 0 && !this.options.mayGoBelow) {
      throw new Refusal('stock-short', { lines: this.shortages });
    }
    const moved = add(0 as Money, ...this.movements.map((movement) => movement.value));
    const accounted = add(0 as Money, ...this.values.map((line) => line.amount));
    if (moved !== accounted) throw new Error(`posting does not conserve value: moved ${moved}, accounted ${accounted}`);
    return {
      movements: this.movements,
      values: this.values,
      items: this.items,
      inReturns: this.inReturns,
      spots: this.spots,
      serials: new Map([...this.serials].map(([id, { value, units }]) => [id, units > 0 ? value : null])),
      belowZero: this.shortages,
    };
  }

  private record(spot: Spot, quantity: Quantity, value: Money, lineId: number | null): void {
    const { itemId, binId, lotId, serialId, holder } = spot;
    const where: Spot = { itemId, binId, lotId, serialId, holder };
    this.spots.set(spotKey(where), { spot: where, quantity: add(this.at(where), quantity) });
    if (isInReturns(spot)) {
      const known = this.inReturns.get(itemId) ?? NO_STOCK;
      this.inReturns.set(itemId, { quantity: add(known.quantity, quantity), value: add(known.value, value) });
    } else {
      const item = this.item(itemId);
      const sum = add(item.quantity, quantity);
      if (Math.abs(sum) > LARGEST_OF_ITEM) throw new Refusal('too-large', { largest: LARGEST_OF_ITEM });
      this.items.set(itemId, { ...item, quantity: sum, value: add(item.value, value) });
    }
    if (serialId !== null) {
      const serial = this.serial(serialId);
      this.serials.set(serialId, { value: add(serial.value, value), units: serial.units + quantity / SCALE });
    }
    this.movements.push({ ...where, quantity, value, lineId });
  }

  private valueOf({ itemId, serialId }: Spot, quantity: Quantity): Money {
    if (serialId !== null) return this.serial(serialId).value;
    const { quantity: there, value, lastCost } = this.item(itemId);
    if (quantity < there) return mulDiv(value, quantity, there, 'nearest') as Money;
    const covered = Math.max(there, 0);
    const beyond = worthOf((quantity - covered) as Quantity, lastCost);
    return add(covered > 0 ? value : (0 as Money), beyond);
  }

  private noteShortage(spot: Spot, wanted: Quantity): void {
    const there = this.at(spot);
    if (wanted <= there) return;
    const { itemId, binId, lotId, serialId, holder } = spot;
    this.shortages.push({ itemId, binId, lotId, serialId, holder, wanted, there });
  }

  /** Brings the item to what its remaining quantity is worth now that a cost for the missing part is known. */
  private settle(spot: Spot, before: ItemStock, quantity: Quantity, value: Money): void {
    const after = this.item(spot.itemId);
    const rightValue =
      after.quantity > 0
        ? mulDiv(value, after.quantity, quantity, 'nearest')
        : mulDiv(before.value, after.quantity, before.quantity, 'nearest');
    const difference = (rightValue - after.value) as Money;
    if (difference === 0) return;
    this.record(spot, 0 as Quantity, difference, null);
    this.addValue('cost-difference', difference, { itemId: spot.itemId });
  }

  private refuseSerials(): void {
    const missing = this.shortages.filter(({ serialId }) => serialId !== null);
    if (missing.length > 0) throw new Refusal('serial-not-there', { lines: missing });
    const twice = [...this.spots.values()].filter(
      ({ spot, quantity }) => spot.serialId !== null && quantity > 0 && this.serial(spot.serialId).units !== 1,
    );
    if (twice.length > 0) throw new Refusal('serial-in-stock', { lines: twice.map(({ spot }) => spot) });
  }

  private refuseWhatIsGone(movements: readonly Movement[]): void {
    const lines = movements
      .filter((movement) => movement.quantity > 0 && this.at(movement) < 0)
      .map((movement) => ({
        itemId: movement.itemId,
        binId: movement.binId,
        lotId: movement.lotId,
        serialId: movement.serialId,
        wanted: movement.quantity,
        there: this.state.spots.get(spotKey(movement)) ?? ZERO,
      }));
    if (lines.length > 0) throw new Refusal('undo-goods-gone', { lines });
    const usedUp = movements.filter(({ itemId, serialId }) => {
      const { quantity, value } = this.item(itemId);
      if ((quantity > 0 && value < 0) || (quantity < 0 && value > 0)) return true;
      return serialId !== null && this.serial(serialId).units > 0 && this.serial(serialId).value < 0;
    });
    const itemIds = [...new Set(usedUp.map(({ itemId }) => itemId))];
    if (itemIds.length > 0) throw new Refusal('undo-value-gone', { itemIds });
  }

  /** What is undone leaves no trace in what a unit was last known to cost. */
  private forgetCost(itemId: number, lastCostOf: (itemId: number) => Money | undefined): void {
    const item = this.item(itemId);
    const known = item.quantity > 0 ? unitCostOf(item.value, item.quantity) : lastCostOf(itemId);
    if (known !== undefined) this.items.set(itemId, { ...item, lastCost: known });
  }

  /**
   * A unit that is held in a return keeps the worth it has there, or came there with, whatever is undone of what shelves made
   * of it before or since: that is a difference in cost.
   */
  private holdApart(serialId: number, movements: readonly Movement[]): void {
    const own = movements.filter((movement) => movement.serialId === serialId);
    const again = own.find((movement) => isInReturns(movement) && movement.quantity < 0);
    const held = again ? -again.value : this.isHeldApart(serialId) ? this.state.serials.get(serialId) : undefined;
    const shelf = own.find((movement) => !isInReturns(movement));
    const { value, units } = this.serial(serialId);
    if (held === undefined || !shelf || units !== 1 || held === value) return;
    const rest = (held - value) as Money;
    this.record(shelf, 0 as Quantity, rest, null);
    this.addValue('cost-difference', rest, { itemId: shelf.itemId });
  }

  private isHeldApart(serialId: number): boolean {
    this.heldApart ??= new Set(
      [...this.state.spots].flatMap(([key, quantity]) => {
        const serial = quantity > 0 ? /:(\d+):return\d+$/.exec(key)?.[1] : undefined;
        return serial === undefined ? [] : Number(serial);
      }),
    );
    return this.heldApart.has(serialId);
  }

  /** The same for one serial that an undo takes out of stock after its worth has changed. */
  private clearSerial(spot: Spot): void {
    if (spot.serialId === null) return;
    const { value, units } = this.serial(spot.serialId);
    if (units !== 0 || value === 0) return;
    this.record(spot, 0 as Quantity, -value as Money, null);
    this.addValue('cost-difference', -value as Money, { itemId: spot.itemId });
  }

  /** No quantity, no value: what an undo leaves over without goods is a difference in cost. */
  private clearRest(itemId: number, movements: readonly Movement[]): void {
    const item = this.item(itemId);
    const spot = movements.find((movement) => movement.itemId === itemId);
    if (item.quantity !== 0 || item.value === 0 || !spot) return;
    const rest = -item.value as Money;
    this.record(spot, 0 as Quantity, rest, null);
    this.addValue('cost-difference', rest, { itemId });
  }
}
