import type { Quantity } from '@yosegi/core/number';
import { takeFrom } from '@yosegi/core/pick';
import { type Posting, placeOf } from '@yosegi/core/stock';
import type { Reader } from '../db/database.ts';
import { benchOf } from '../places/store.ts';
import { benchOfBuild, placeIn } from '../stock/standing.ts';
import type { BuildLineRecord, BuildRecord } from './store.ts';

/** What is left on the bench of a build and goes back to where it came from, lot by lot and serial by serial. */
export async function leftoversOf(db: Reader, build: Pick<BuildRecord, 'id' | 'output_bin_id'>) {
  const bench = await benchOf(db, build.output_bin_id);
  const standing = await benchOfBuild(db, build.id);
  const cameFrom = await lastPickedFrom(db, build.id);
  return {
    putBack(posting: Posting, line: Pick<BuildLineRecord, 'id' | 'item_id'>, quantity: Quantity): void {
      const itemId = line.item_id ?? 0;
      const places = standing.filter((row) => row.item_id === itemId).map(placeIn);
      const now = places.map((place) => ({ place, quantity: posting.at(place) }));
      const back = cameFrom.get(line.id) ?? build.output_bin_id;
      for (const taken of takeFrom(now, quantity, placeOf(itemId, bench, build.id)))
        posting.move(taken.place, { ...taken.place, binId: back, buildId: null }, taken.quantity, line.id);
    },
  };
}

/** The bin that each line of a build was last picked from: where what is left over goes back to. */
async function lastPickedFrom(db: Reader, buildId: number): Promise<Map<number, number>> {
  const rows = await db.all<{ build_line_id: number; bin_id: number }>(
    `SELECT m.build_line_id, m.bin_id FROM movement m JOIN document d ON d.id = m.document_id
     WHERE d.build_id = $1 AND d.kind = 'pick' AND m.quantity < 0 ORDER BY m.id`,
    [buildId],
  );
  return new Map(rows.map((row) => [row.build_line_id, row.bin_id]));
}
