import { z } from 'zod';
import { Decimal } from './common.ts';

/** What something earned: what was shipped and stands, what of it came back, and what is left of both. */
export const Earned = z.object({
  quantity: Decimal,
  /** What was shipped, at its prices, and what that cost. */
  sold: Decimal,
  cost: Decimal,
  /** How much came back, what is owed for it, and what it is worth again, less what was lost of it. */
  returned: Decimal,
  owed: Decimal,
  back: Decimal,
  /** Shipped less owed, and cost less what is worth again. */
  earned: Decimal,
  spent: Decimal,
});
export type Earned = z.infer<typeof Earned>;
