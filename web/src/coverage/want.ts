import type { Snapshot } from '@yosegi/contract';

export type SnapshotItem = Snapshot['items'][number];

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
