import type { Refused } from '@yosegi/core/refusal';

/** Why a cell cannot be read, and its index in its row. */
export type CellFault = Refused & { readonly at: number };

/** A file as rows of text, before anything is known of what they mean. */
export interface Table {
  /** How it was understood, for the person to check. */
  readonly format: string;
  readonly rows: { readonly row: number; readonly cells: string[]; readonly faults: readonly CellFault[] }[];
}
