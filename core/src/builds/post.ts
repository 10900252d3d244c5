import { labourCost } from '../definitions/index.ts';
import { bringInAt, type Heap, type Posting, type Spot, shareOut, type Taker } from '../ledger/index.ts';
import { add, type Money, minus, negated, type Quantity, ZERO } from '../number/index.ts';
import { type CameOut, worthOut } from './came-out.ts';
import { chargePortion, type UsedCharge } from './finish.ts';
import type { BuildNeed, Progress } from './needs.ts';

/** A part line of a build at the moment of finishing. */
export interface FinishingPart extends BuildNeed {
  readonly kind: 'part';
  readonly lineId: number;
  readonly itemId: number;
  readonly actual: Quantity;
  /** Standing on the bench for this line. */
  readonly onBench: Quantity;
  /** Where on the bench it stands, by lot and serial, in the order to use it. */
  readonly bench: readonly Spot[];
  /** Shelves that hold the part, by lot and serial, in the order to take from. */
  readonly shelves: readonly Spot[];
  /** Where a shortage is noted when no shelf holds enough. */
  readonly usual: Spot;
}

export interface FinishingLabour {
  readonly kind: 'labour';
  readonly lineId: number;
  readonly actual: Quantity;
  readonly ratePerHour: Money;
}

/** A part that a rework took out of its unit. */
export interface PartOut extends CameOut {
  /** Where it goes, by lot or serial; none unless it goes to stock. */
  readonly standing: readonly Heap[];
}

export interface Finishing {
  /** Where the good units go, by lot or serial; in all `good`, which may be none. */
  readonly output: readonly Heap[];
  readonly good: Quantity;
  /** What was made and is no good; its parts are used up like those of the good ones. */
  readonly rejected?: Quantity;
  /** The most that is written off with them; nothing where the good ones carry it. */
  readonly writeOff?: Money;
  readonly progress: Progress;
  /** Nothing more of the build is finished after it; where left out, once all of it is. */
  readonly closes?: boolean;
  readonly lines: readonly (FinishingPart | FinishingLabour | UsedCharge)[];
  /** What a rework took out of the unit that is the item of `itself`. */
  readonly out?: { readonly itself: number; readonly parts: readonly PartOut[] };
  /** What is made is not ours and goes into no stock: all it took is what its repair cost. */
  readonly isRepair?: boolean;
}

export interface Finished {
  /** The cost really posted, by line. */
  readonly costs: ReadonlyMap<number, Money>;
  /** What is taken from the bench, by line. */
  readonly fromBench: ReadonlyMap<number, Quantity>;
  readonly total: Money;
  /** Of it, what does not go into the good ones. */
  readonly writtenOff: Money;
  /** What the parts that came out are worth, one by one. */
  readonly out: readonly Money[];
}

/**
 * Posts a finish: parts leave the bench first and the shelves for the rest, labour and charges add their value, and the
 * good units arrive with exactly what was consumed.
 */
export function postFinish(posting: Posting, finishing: Finishing): Finished {
  const portion = add(finishing.good, finishing.rejected ?? ZERO);
  const costs = new Map<number, Money>();
  const fromBench = new Map<number, Quantity>();
  const takings = takingsOf(
    posting,
    finishing.lines.filter((line) => line.kind === 'part'),
  );
  for (const line of finishing.lines) {
    if (line.kind === 'part') {
      fromBench.set(line.lineId, benchOf(line));
      const own = takings.get(line) ?? [];
      costs.set(
        line.lineId,
        add(0 as Money, ...own.map((heap) => posting.takeOut(heap.spot, heap.quantity, line.lineId))),
      );
    } else {
      const cost =
        line.kind === 'labour'
          ? labourCost(line.actual, line.ratePerHour)
          : chargePortion(line, finishing.progress, portion, finishing.closes);
      posting.addValue(line.kind, cost, { lineId: line.lineId });
      costs.set(line.lineId, cost);
    }
  }
  const total = add(0 as Money, ...costs.values());
  if (finishing.isRepair) {
    posting.addValue('repaired', negated(total));
    return { costs, fromBench, total, writtenOff: ZERO, out: [] };
  }
  const { out, scrapped, kept } = postOut(posting, finishing, costs);
  const left = minus(total, add(scrapped, kept));
  const lost = finishing.good === 0 ? left : (Math.min(left, finishing.writeOff ?? ZERO) as Money);
  const writtenOff = add(lost, scrapped);
  posting.addValue('written-off', negated(writtenOff));
  if (finishing.good > 0) bringInAt(posting, finishing.output, minus(left, lost));
  return { costs, fromBench, total, writtenOff, out };
}

/** Brings what came out of a unit to stock at its share of what the unit was worth, and tells what the scrap took with it. */
function postOut(posting: Posting, { out, lines }: Finishing, costs: ReadonlyMap<number, Money>) {
  const own = lines.filter((line) => line.kind === 'part' && line.itemId === out?.itself);
  const unit = add<Money>(ZERO, ...own.map(({ lineId }) => costs.get(lineId) ?? ZERO));
  const parts = out?.parts ?? [];
  const worth = worthOut(unit, parts);
  const sumOf = (way: CameOut['went']) => add<Money>(ZERO, ...worth.filter((_, index) => parts[index]?.went === way));
  for (const [index, part] of parts.entries())
    if (part.went === 'stock') bringInAt(posting, part.standing, worth[index] ?? ZERO);
  return { out: worth, scrapped: sumOf('scrap'), kept: sumOf('stock') };
}

const benchOf = ({ actual, onBench }: FinishingPart) => Math.min(actual, Math.max(0, onBench)) as Quantity;

/** What each part takes from its bench and from shelves, all of them shared out over all parts. */
function takingsOf(posting: Posting, parts: readonly FinishingPart[]): ReadonlyMap<FinishingPart, readonly Heap[]> {
  const shares = shareOut(
    (spot) => posting.at(spot),
    parts.flatMap((part): Taker[] => [
      { wanted: benchOf(part), spots: part.bench, fallback: part.bench[0] ?? part.usual },
      { wanted: minus(part.actual, benchOf(part)), spots: part.shelves, fallback: part.usual },
    ]),
  );
  return new Map(parts.map((part, index) => [part, shares.slice(2 * index, 2 * index + 2).flat()]));
}
