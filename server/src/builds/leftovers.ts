import { type Posting, spotOf, takeFrom } from '@yosegi/core/ledger';
import type { Quantity } from '@yosegi/core/number';
import type { Reader } from '../db/database.ts';
import { type BalanceRow, heldFor, heldLast, spotIn } from '../ledger/index.ts';
import { benchBinOf } from '../places/index.ts';
import { lastPickedFrom } from './lines.sql.ts';
import type { BuildLineRecord, BuildRecord } from './sql.ts';

/** What is left on the bench of a build and goes back to where it came from, lot by lot and serial by serial. */
export async function leftoversOf(db: Reader, build: Pick<BuildRecord, 'id' | 'output_bin_id'>) {
  const bench = await benchBinOf(db, build.output_bin_id);
  const holder = { kind: 'build', id: build.id } as const;
  const standing = await heldFor(db, holder);
  const cameFrom = await lastPickedFrom(db, build.id);
  return {
    /** @param serials which ones, where that matters */
    putBack(
      posting: Posting,
      line: Pick<BuildLineRecord, 'id' | 'item_id'>,
      quantity: Quantity,
      serials: readonly string[] = [],
    ): void {
      const itemId = line.item_id ?? 0;
      const named = new Set(serials.map((code) => code.toLowerCase()));
      const isMeant = (row: BalanceRow) => named.size === 0 || named.has(row.serial?.toLowerCase() ?? '');
      // What is held can't be used anyhow, so it is the first to go back.
      const rows = heldLast(standing.filter((row) => row.item_id === itemId && isMeant(row))).reverse();
      const spots = rows.map(spotIn);
      const now = spots.map((spot) => ({ spot, quantity: posting.at(spot) }));
      const back = cameFrom.get(line.id) ?? build.output_bin_id;
      for (const taken of takeFrom(now, quantity, spotOf(itemId, bench, holder)))
        posting.move(taken.spot, { ...taken.spot, binId: back, holder: null }, taken.quantity, line.id);
    },
  };
}
