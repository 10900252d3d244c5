import type { CoverItem } from '@yosegi/contract';
import { entryFault } from '@yosegi/contract/problems';
import type { Aside, Change, Wanted } from '@yosegi/core/coverage';
import { positive } from '@yosegi/core/number';
import { readTyped } from '../ui/measuring.ts';
import { caseOf } from './cases.ts';

/** One line of the question as typed. */
export interface Want {
  readonly itemId: number;
  readonly quantity: string;
}

/** The question in the address, like "12x24,15x10": item × quantity. */
export const wantsOf = (text: string): Want[] =>
  text.split(',').flatMap((part) => {
    const match = /^(\d+)x(.*)$/.exec(part);
    return match ? [{ itemId: Number(match[1]), quantity: withCommas(match[2] ?? '') }] : [];
  });

export const wantText = (wants: readonly Want[]) =>
  wants.map(({ itemId, quantity }) => `${itemId}x${withoutCommas(quantity)}`).join(',');

/** A comma parts the wants, and is also typed in quantities ("1,000" is not "1000" everywhere). */
const withoutCommas = (quantity: string) => quantity.replace(/[%,]/g, encodeURIComponent);
const withCommas = (text: string) => text.replace(/%25|%2C/g, decodeURIComponent);

/** The address of Cover with this question. */
export const coverOf = (wants: readonly Want[]) => `/cover?${new URLSearchParams({ want: wantText(wants) })}`;

/** A line of the question as it was read: what is wanted, or what is wrong with it. */
export interface ReadWant {
  readonly wanted: Wanted | null;
  readonly error?: string;
}

/** @param isWhole whether every item there is would be among those that are named */
export function readWant(want: Want, items: ReadonlyMap<number, CoverItem>, isWhole: boolean): ReadWant {
  const item = items.get(want.itemId);
  if (!item) return isWhole ? { wanted: null, error: 'This item does not exist.' } : { wanted: null };
  try {
    return { wanted: { itemId: item.id, quantity: positive(readTyped(want.quantity, item)) } };
  } catch (error) {
    return { wanted: null, error: entryFault(error) };
  }
}

/** What is asked besides products, as the address has it. */
export interface Terms {
  /** ISO day, or ''. */
  readonly by: string;
  /** Stores by id; null for all. */
  readonly stores: readonly number[] | null;
  readonly finishedFirst: boolean;
  readonly drafts: boolean;
  readonly aside: Aside | null;
  /** What is otherwise than it stands. */
  readonly changes: readonly Change[];
}

/** What stands after the question mark, read. */
export function termsOf(search: URLSearchParams): Terms {
  const stores = (search.get('stores') ?? '').split(',').map(Number).filter(Boolean);
  const aside = search.get('aside');
  return {
    by: search.get('by') ?? '',
    stores: stores.length > 0 ? stores : null,
    finishedFirst: search.get('finished') === '1',
    drafts: search.get('drafts') === '1',
    aside: aside === 'orders' || aside === 'builds' ? aside : null,
    changes: caseOf(search.get('if') ?? ''),
  };
}
