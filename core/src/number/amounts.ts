declare const unit: unique symbol;

/** An amount of an item in its stock unit, as an integer count of millionths. */
export type Quantity = number & { readonly [unit]: 'quantity' };
/** An amount in the company's currency, as an integer count of millionths. */
export type Money = number & { readonly [unit]: 'money' };
/** A percentage, as an integer count of millionths of one percent: 4 % is 4 000 000. */
export type Percent = number & { readonly [unit]: 'percent' };
