/** What is known of a kind of document before there is one. */
export interface DocumentKindFacts {
  /** Of its numbers, like RC in RC-0042. */
  readonly prefix: string;
  /** As people call it. */
  readonly name: string;
  /** Why it cannot be undone, with the way out; null when it can. */
  readonly final: string | null;
  /** The right that posting it needs, and so undoing it; whether there is such a right, the contract knows. */
  readonly right: string;
}

export const ledgerKinds = {
  undo: {
    prefix: 'UN',
    name: 'Undo',
    final: 'This undid another document, so it cannot be undone itself. Post that one again instead.',
    right: 'look',
  },
} as const satisfies Record<string, DocumentKindFacts>;
