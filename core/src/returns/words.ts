/** What a thing looked like when it came back, with the share of the price paid that is owed for it unless somebody says otherwise. */
export const conditions = ['as new', 'used', 'damaged', 'incomplete'] as const;
export type Condition = (typeof conditions)[number];

const USUAL_CREDIT: Readonly<Record<Condition, number>> = { 'as new': 100, used: 80, damaged: 50, incomplete: 70 };

/** The percentage of the price paid that is usually owed. */
export const usualCredit = (condition: Condition): number => USUAL_CREDIT[condition];

/** What becomes of what came back. Of the parts of a kit, some were damaged, some missing, and some not what had left. */
export const outcomes = ['shelf', 'apart', 'rework', 'scrap', 'sent-back', 'damaged', 'missing', 'not-ours'] as const;
export type Outcome = (typeof outcomes)[number];

/** What somebody decides of one thing by itself; a product is taken apart, or refreshed, on its own. */
export const settledBy = ['shelf', 'scrap', 'sent-back', 'damaged', 'missing', 'not-ours'] as const;
export type SettledBy = (typeof settledBy)[number];

/** Whether its worth is lost with it. */
export const isWrittenOff = (outcome: Outcome): boolean =>
  outcome === 'scrap' || outcome === 'damaged' || outcome === 'missing' || outcome === 'not-ours';

/** Where a return is: told but not here, here and waiting, all of it decided, or called off. */
export const returnStates = ['announced', 'waiting', 'settled', 'called-off'] as const;
export type ReturnState = (typeof returnStates)[number];
