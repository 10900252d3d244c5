/** What a bin is for. */
export const binKinds = ['shelf', 'bench', 'quarantine'] as const;
export type BinKind = (typeof binKinds)[number];
