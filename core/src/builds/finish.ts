import { type Basis, labourCost, scaled } from '../definitions/index.ts';
import { add, type Money, mulDiv, type Quantity, unitCostOf, worthOf, ZERO } from '../number/index.ts';
import { Refusal } from '../refusal/index.ts';
import { portionOf, type Spent } from '../tasks/index.ts';
import { type BuildNeed, type Progress, plannedUse } from './needs.ts';

/** A part line of a build with what was really used. */
export interface UsedPart extends BuildNeed {
  readonly kind: 'part';
  readonly lineId: number;
  readonly itemId: number;
  readonly actual: Quantity;
  /** Moving average at the time. */
  readonly unitCost: Money;
  /** What the very units that are used are worth, where each keeps its own cost; else they are worth the average. */
  readonly worth?: Money | undefined;
}

export interface UsedLabour {
  readonly kind: 'labour';
  readonly lineId: number;
  readonly basis: Basis;
  /** Minutes per output quantity or per run, in millionths. */
  readonly minutes: Quantity;
  readonly ratePerHour: Money;
  /** Minutes really spent, in millionths. */
  readonly actual: Quantity;
}

export interface UsedCharge {
  readonly kind: 'charge';
  readonly lineId: number;
  readonly basis: Basis;
  readonly amount: Money;
  /** What it costs where that is not as planned. */
  readonly spent?: Spent<number> | undefined;
}

export type UsedLine = UsedPart | UsedLabour | UsedCharge;

export interface LineUse {
  readonly lineId: number;
  readonly kind: UsedLine['kind'];
  /** In the part's unit, or minutes; a charge has none. */
  readonly planned: Quantity;
  readonly actual: Quantity;
  readonly difference: Quantity;
  readonly plannedCost: Money;
  readonly cost: Money;
  readonly costDifference: Money;
}

export interface FinishCost {
  readonly lines: readonly LineUse[];
  readonly planned: Money;
  readonly actual: Money;
  readonly plannedUnitCost: Money;
  readonly unitCost: Money;
}

/**
 * What finishing `good` units costs as planned and as really used: the figures shown while a person types. Posting uses
 * the ledger's own values, which are the same but for the last millionth of a rounded average.
 */
export function finishCost(
  lines: readonly UsedLine[],
  progress: Progress,
  good: Quantity,
  closes = isLast(progress, good),
): FinishCost {
  const uses = lines.map((line) => useOf(line, progress, good, closes));
  const planned = add(0 as Money, ...uses.map((use) => use.plannedCost));
  const actual = add(0 as Money, ...uses.map((use) => use.cost));
  return {
    lines: uses,
    planned,
    actual,
    plannedUnitCost: unitCostOf(planned, good),
    unitCost: unitCostOf(actual, good),
  };
}

/** Planned amount of a labour or charge line for `now` more units; what is fixed per run falls to the first portion. */
export function plannedPortion<T extends number>(basis: Basis, amount: T, progress: Progress, now: Quantity): T {
  const after = scaled(basis, amount, (progress.finished + now) as Quantity, progress.outputQuantity);
  return (after - scaled(basis, amount, progress.finished, progress.outputQuantity)) as T;
}

const isLast = ({ quantity, finished }: Progress, now: Quantity) => finished + now === quantity;

/** Minutes that a finish books of a line of labour: what was written down on its task, else as planned. */
export const labourPortion = (
  {
    basis,
    minutes,
    spent,
  }: { readonly basis: Basis; readonly minutes: Quantity; readonly spent: Spent<number> | undefined },
  progress: Progress,
  now: Quantity,
  closes = isLast(progress, now),
): Quantity => portionOf(plannedUpTo(basis, minutes, progress, now), spent, { ...progress, now, closes });

/** What a finish books of a charge: its share of what it costs, else as planned. */
export const chargePortion = (
  { basis, amount, spent }: Pick<UsedCharge, 'basis' | 'amount' | 'spent'>,
  progress: Progress,
  now: Quantity,
  closes = isLast(progress, now),
): Money => portionOf(plannedUpTo(basis, amount, progress, now), spent, { ...progress, now, closes });

/** What the plan has for `now` more units, and for those before them. */
const plannedUpTo = <T extends number>(basis: Basis, amount: T, progress: Progress, now: Quantity) => ({
  now: plannedPortion(basis, amount, progress, now),
  before: plannedPortion(basis, amount, { ...progress, finished: ZERO }, progress.finished),
});

/** Whether the cost of what is rejected is carried by the good ones, or written off as far as it was planned. */
export const rejectCosts = ['carried', 'written-off'] as const;
export type RejectCost = (typeof rejectCosts)[number];

/**
 * What of the planned cost of a portion is written off with the rejected of it: their share, rounded down. With none that
 * is good there is nobody to carry anything.
 */
export const rejectedCost = (planned: Money, rejected: Quantity, good: Quantity): Money =>
  rejected === 0 ? ZERO : (Number((BigInt(planned) * BigInt(rejected)) / (BigInt(rejected) + BigInt(good))) as Money);

/**
 * Refuses a portion that a build cannot take.
 * @throws Refusal `not-positive`, `more-than-planned` with what is `left`, `rejects-need-good` where nothing good could
 *   carry what the rejected ones cost
 */
export function checkPortion(
  progress: Progress,
  good: Quantity,
  rejected: Quantity = ZERO,
  cost: RejectCost = 'carried',
): void {
  const left = (progress.quantity - progress.finished) as Quantity;
  if (good + rejected <= 0) throw new Refusal('not-positive', {}, 'good');
  if (good + rejected > left) throw new Refusal('more-than-planned', { left }, good > left ? 'good' : 'rejected');
  if (good === 0 && cost === 'carried') throw new Refusal('rejects-need-good', {}, 'rejectCost');
}

function useOf(line: UsedLine, progress: Progress, good: Quantity, closes: boolean): LineUse {
  if (line.kind === 'part') {
    const planned = plannedUse(line, progress, good);
    return use(line, planned, line.actual, worthOfUse(line, planned), worthOfUse(line, line.actual));
  }
  if (line.kind === 'labour') {
    const planned = plannedPortion(line.basis, line.minutes, progress, good);
    const cost = labourCost(line.actual, line.ratePerHour);
    return use(line, planned, line.actual, labourCost(planned, line.ratePerHour), cost);
  }
  const amount = plannedPortion(line.basis, line.amount, progress, good);
  return use(line, 0 as Quantity, 0 as Quantity, amount, chargePortion(line, progress, good, closes));
}

/** So much of a part at what the units that are used cost, or at the average. */
function worthOfUse({ worth, actual, unitCost }: UsedPart, quantity: Quantity): Money {
  if (worth === undefined || actual === 0) return worthOf(quantity, unitCost);
  return mulDiv(worth, quantity, actual, 'nearest') as Money;
}

function use(line: UsedLine, planned: Quantity, actual: Quantity, plannedCost: Money, cost: Money): LineUse {
  return {
    lineId: line.lineId,
    kind: line.kind,
    planned,
    actual,
    difference: (actual - planned) as Quantity,
    plannedCost,
    cost,
    costDifference: (cost - plannedCost) as Money,
  };
}
