import { add, type Money, minus, negated, ZERO } from '../number/index.ts';

/** What a document can be booked under a job for. */
export const jobRecords = ['order', 'build', 'repair', 'purchase', 'document'] as const;
export type JobRecord = (typeof jobRecords)[number];

/** Value that a document brought into stock from outside, and what it did to the value of stock. */
export interface JobPosting {
  /** What suppliers are owed, and opening balances. */
  readonly bought: Money;
  readonly labour: Money;
  readonly charges: Money;
  /** Signed. */
  readonly stockChange: Money;
  /** What customers pay for it. */
  readonly income: Money;
}

/** What jobs come to. */
export interface JobSum {
  readonly cost: Money;
  readonly income: Money;
  readonly margin: Money;
}

/**
 * What a document costs: what came in from outside and does not stand in stock after it. What is bought or built for stock
 * costs nothing yet; it does when it leaves, so that nothing is counted twice however it went.
 */
export const costOf = ({ bought, labour, charges, stockChange }: JobPosting): Money =>
  minus(add(bought, labour, charges), stockChange);

/** Cost, income and margin of some of them. */
export function jobSum(postings: readonly JobPosting[]): JobSum {
  const cost = add(ZERO as Money, ...postings.map(costOf));
  const income = add(ZERO as Money, ...postings.map((one) => one.income));
  return { cost, income, margin: add(income, negated(cost)) };
}
