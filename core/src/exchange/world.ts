import type { Tracking } from '../items/index.ts';
import type { Measure } from '../number/index.ts';
import type { FileRecord } from './plan.ts';

/** What a file's rows may refer to. Codes are looked up in lower case. */
export interface ImportWorld {
  readonly units: ReadonlyMap<string, { readonly code: string; readonly decimals: number }>;
  /** By "store/bin", and by the bin alone: null where several stores have one of that code. */
  readonly bins: ReadonlyMap<string, string | null>;
  readonly suppliers: ReadonlyMap<string, { readonly code: string; readonly name: string }>;
  readonly rates: ReadonlyMap<string, string>;
  /** By code, and by name where no other has it. */
  readonly customers: ReadonlyMap<string, KnownCustomer>;
  readonly items: ReadonlyMap<string, KnownItem>;
  /** Barcode → code of its item. */
  readonly barcodes: ReadonlyMap<string, string>;
  /** Everything there is of the kind being imported, in the form its file has. */
  readonly existing: ReadonlyMap<string, readonly FileRecord[]>;
  /** Parts of every definition that is not retired, but record-only ones, by {@link definitionKey}. */
  readonly parts: ReadonlyMap<string, readonly string[]>;
}

export interface KnownCustomer {
  readonly code: string;
  readonly name: string;
  readonly archived: boolean;
}

export interface KnownItem {
  readonly code: string;
  readonly name: string;
  readonly unit: string;
  readonly decimals: number;
  readonly measures: readonly Measure[];
  readonly archived: boolean;
  readonly tracking: Tracking;
  /** Whether stock was counted, defined or planned in its unit. */
  readonly hasHistory: boolean;
  /** Whether its stock ever moved by anything but opening stock. */
  readonly hasMoved: boolean;
  readonly hasStock: boolean;
  /** Whether open builds still need it. */
  readonly isPromised: boolean;
  /** Whether it is a kit that is packed per order. */
  readonly isPacked: boolean;
  /** Whether it is only a parts list of something a customer owns. */
  readonly notForSale: boolean;
  /** Whether it sells at a price of its own or by its parts. */
  readonly hasPrice: boolean;
  /** Builds by its definition for building that are open. */
  readonly openBuilds: readonly string[];
  /** Purposes for which it has a draft that a file would overwrite: beside a revision in use, or waiting for its day. */
  readonly drafts: readonly string[];
}
