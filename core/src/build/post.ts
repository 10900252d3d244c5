import { type Basis, labourCost, type Need } from '../definition/index.ts';
import { add, type Money, type Quantity } from '../number/index.ts';
import { type BinStock, takeFrom } from '../pick/index.ts';
import { type Place, type Posting, placeOf } from '../stock/index.ts';
import { plannedPortion } from './finish.ts';
import type { Progress } from './needs.ts';

/** A part line of a build at the moment of finishing. */
export interface FinishingPart extends Need {
  readonly kind: 'part';
  readonly lineId: number;
  readonly itemId: number;
  readonly actual: Quantity;
  readonly onBench: Quantity;
  /** Shelves that hold the part, in the order to take from. */
  readonly shelves: readonly BinStock[];
  /** Where a shortage is noted when no shelf holds enough. */
  readonly usualBinId: number;
}

export interface FinishingLabour {
  readonly kind: 'labour';
  readonly lineId: number;
  readonly actual: Quantity;
  readonly ratePerHour: Money;
}

export interface FinishingCharge {
  readonly kind: 'charge';
  readonly lineId: number;
  readonly basis: Basis;
  readonly amount: Money;
}

export interface Finishing {
  readonly buildId: number;
  readonly benchBinId: number;
  readonly output: Place;
  readonly good: Quantity;
  readonly progress: Progress;
  readonly lines: readonly (FinishingPart | FinishingLabour | FinishingCharge)[];
}

export interface Finished {
  /** The cost really posted, by line. */
  readonly costs: ReadonlyMap<number, Money>;
  /** What is taken from the bench, by line. */
  readonly fromBench: ReadonlyMap<number, Quantity>;
  readonly total: Money;
}

/**
 * Posts a finish: parts leave the bench first and the shelves for the rest, labour and charges add their value, and the
 * good units arrive with exactly what was consumed.
 */
export function postFinish(posting: Posting, finishing: Finishing): Finished {
  const costs = new Map<number, Money>();
  const fromBench = new Map<number, Quantity>();
  for (const line of finishing.lines) {
    if (line.kind === 'part') {
      const taken = Math.min(line.actual, Math.max(0, line.onBench)) as Quantity;
      fromBench.set(line.lineId, taken);
      costs.set(line.lineId, consume(posting, finishing, line, taken));
    } else {
      const cost =
        line.kind === 'labour'
          ? labourCost(line.actual, line.ratePerHour)
          : plannedPortion(line.basis, line.amount, finishing.progress, finishing.good);
      posting.addValue(line.kind, cost, { buildLineId: line.lineId });
      costs.set(line.lineId, cost);
    }
  }
  const total = add(0 as Money, ...costs.values());
  posting.bringIn(finishing.output, finishing.good, total);
  return { costs, fromBench, total };
}

function consume(posting: Posting, finishing: Finishing, line: FinishingPart, fromBench: Quantity): Money {
  const taken: Money[] = [];
  if (fromBench > 0) {
    taken.push(posting.takeOut(placeOf(line.itemId, finishing.benchBinId, finishing.buildId), fromBench, line.lineId));
  }
  const rest = (line.actual - fromBench) as Quantity;
  // An earlier line of the same part may have emptied a shelf within this posting.
  const shelves = line.shelves.map(({ binId }) => ({ binId, quantity: posting.at(placeOf(line.itemId, binId)) }));
  for (const { binId, quantity } of takeFrom(shelves, rest, line.usualBinId)) {
    taken.push(posting.takeOut(placeOf(line.itemId, binId), quantity, line.lineId));
  }
  return add(0 as Money, ...taken);
}
