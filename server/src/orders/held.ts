import { latest, type Pegged } from '@yosegi/core/demand';
import { minus, worthForText } from '@yosegi/core/number';
import { found } from '../command/doing.ts';
import type { Reader } from '../db/database.ts';
import { itemRows } from '../items/index.ts';
import { linesOfParts } from './sql.ts';

/** Something that open orders wait for. */
export interface HeldUp {
  readonly itemId: number;
  readonly code: string;
  readonly name: string;
  readonly unit: string;
  /** What of it is not on shelves for them, in millionths. */
  readonly short: bigint;
  readonly comesOn: string | null;
  readonly isComing: boolean;
  readonly orderIds: ReadonlySet<number>;
  /** What the lines come to that cannot be sent whole without it. */
  readonly worth: bigint;
}

/** What open orders wait for, item by item, with what the lines are worth that wait for it. */
export async function ordersHeldUp(db: Reader, pegging: readonly Pegged[]): Promise<HeldUp[]> {
  const waiting = pegging.filter(
    ({ demand, now }) => demand.source.kind === 'order' && demand.lineId !== null && now < demand.quantity,
  );
  const lines = await linesOfParts(
    db,
    waiting.flatMap(({ demand }) => demand.lineId ?? []),
  );
  const items = await itemRows(
    db,
    waiting.map(({ demand }) => demand.itemId),
  );
  return [...new Set(waiting.map(({ demand }) => demand.itemId))].map((itemId) => {
    const own = waiting.filter(({ demand }) => demand.itemId === itemId);
    const { code, name, unit } = found(items.get(itemId));
    const partIds = new Set(own.map(({ demand }) => demand.lineId));
    // A line counts once, however many of its parts are the same item.
    const held = new Map(lines.filter(({ part_id }) => partIds.has(part_id)).map((line) => [line.id, line]));
    return {
      itemId,
      code,
      name,
      unit,
      short: own.reduce((sum, { demand, now }) => sum + BigInt(demand.quantity - now), 0n),
      comesOn: latest(own.map(({ completeOn }) => completeOn)),
      isComing: own.some(({ coming }) => coming > 0),
      orderIds: new Set(own.map(({ demand }) => demand.source.id)),
      worth: [...held.values()].reduce(
        (sum, line) => sum + worthForText(minus(minus(line.quantity, line.dropped), line.shipped), line.price),
        0n,
      ),
    };
  });
}
