import {
  fromZero,
  type Money,
  parseMoney,
  parsePercent,
  parseQuantity,
  percentTo,
  positive,
} from '@yosegi/core/number';
import { type Code, Refusal, type Refused } from '@yosegi/core/refusal';
import { z } from 'zod';
import { Decimal } from './common.ts';
import { wordedOf } from './problems/index.ts';

/** What an amount that is sent was refused for, as the issue of its schema carries it. */
export interface RefusedIssue {
  readonly refused: { readonly code: Code; readonly facts: Refused['facts'] };
}

/**
 * An amount that is sent: decimal text, which is read once, here. Whether an item's unit allows its decimals is asked
 * where the item is known.
 */
const amountBy = <T extends number>(read: (text: string) => T) =>
  Decimal.transform((text, context): T => {
    try {
      return read(text);
    } catch (error) {
      if (!(error instanceof Refusal)) throw error;
      const params: RefusedIssue = { refused: { code: error.code, facts: error.facts } };
      context.addIssue({ code: 'custom', message: wordedOf(error).detail, params });
      return z.NEVER;
    }
  });

const quantity = (text: string) => parseQuantity(text, 6);

/** A quantity that may be below zero, like a correction. */
export const Change = amountBy(quantity);
/** A quantity above zero. */
export const Positive = amountBy((text) => positive(quantity(text)));
/** A quantity that may be nothing. */
export const FromZero = amountBy((text) => fromZero(quantity(text)));
/** A time in minutes, above zero, to a hundredth. */
export const Minutes = amountBy((text) => positive(parseQuantity(text, 2)));
/** Money of zero or more, with up to six decimals. */
export const Price = amountBy((text): Money => fromZero(parseMoney(text)));
/** A percentage from zero to `most`, with up to two decimals. */
export const percentUpTo = (most: number) => amountBy((text) => percentTo(parsePercent(text), most));
