import type { Revision } from '../definitions/index.ts';
import type { Demand, Supply } from '../demand/index.ts';
import { type Quantity, ZERO } from '../number/index.ts';
import { type KnownDefinition, World } from './world.ts';

/** A world told in few words, for tests. */
export interface SmallWorld {
  readonly revisionOf: (itemId: number) => Revision | undefined;
  readonly stockOf: (itemId: number) => { readonly onHand: Quantity; readonly promised: Quantity } | undefined;
  readonly comingOf: (itemId: number) => readonly {
    readonly itemId: number;
    readonly quantity: Quantity;
    readonly date: string | null;
  }[];
  readonly decimalsOf: (itemId: number) => number;
  /** The items there are. */
  readonly items: readonly number[];
  readonly more?: { readonly demands?: readonly Demand[]; readonly supplies?: readonly Supply[] };
  readonly drafts?: boolean;
}

/** A Wednesday. */
export const calendar = { today: '2026-11-25', workDays: new Set([1, 2, 3, 4, 5]) };

/** What is promised is needed by one order, what comes is bought. */
export function smallWorld({ revisionOf, stockOf, comingOf, decimalsOf, items, more, drafts }: SmallWorld): World {
  const promised = items.flatMap((itemId): Demand[] => {
    const quantity = stockOf(itemId)?.promised ?? ZERO;
    const turn = { begun: false, priority: null, wantedOn: null, age: 1 };
    const source = { kind: 'order' as const, id: 1 };
    const decimals = decimalsOf(itemId);
    return quantity > 0
      ? [{ source, lineId: itemId, itemId, quantity, decimals, turn, stores: null, alternates: [] }]
      : [];
  });
  const coming = items.flatMap((itemId) =>
    comingOf(itemId).map(({ quantity, date }, at): Supply => {
      const from = { kind: 'purchase' as const, id: itemId * 100 + at };
      return { from, itemId, quantity, on: date, storeId: null, only: null };
    }),
  );
  const definitions = items.flatMap((itemId): KnownDefinition[] => {
    const revision = revisionOf(itemId);
    return revision ? [{ ...revision, itemId, isDraft: false, benchDays: null }] : [];
  });
  const known = {
    calendar,
    benchMinutes: 480,
    items: new Map(
      items.map((id) => {
        const onHand = stockOf(id)?.onHand ?? ZERO;
        const stock = new Map(onHand === 0 ? [] : [[1, onHand]]);
        return [id, { id, decimals: decimalsOf(id), averageCost: ZERO, stock }];
      }),
    ),
    definitions: new Map(definitions.map((definition) => [definition.itemId, definition])),
    demands: new Map([...promised, ...(more?.demands ?? [])].map((demand, at) => [String(at), demand])),
    supplies: new Map(
      [...coming, ...(more?.supplies ?? [])].map((supply, at) => [
        String(at),
        { ...supply, isDraft: false, isPlanned: supply.from.kind === 'build', supplierId: null },
      ]),
    ),
  };
  return new World(known, drafts);
}
