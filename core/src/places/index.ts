/** What a bin is for. */
export const binKinds = ['shelf', 'bench', 'quarantine', 'customers'] as const;
export type BinKind = (typeof binKinds)[number];

/** Whether goods of ours are put there by hand: a bench holds what stands for builds, a customers' bin what is not ours. */
export const isForGoods = (kind: BinKind) => kind === 'shelf' || kind === 'quarantine';
