import {
  type CaseOutcome,
  type Change,
  changed,
  deliveriesOf,
  type ItemOverTime,
  outcomeOf,
  overTime,
  type Standing,
  type Stretch,
  shortStretches,
  standings,
  type World,
} from '@yosegi/core/coverage';
import { latest, peg, type WhenThere } from '@yosegi/core/demand';

/** An item over time, as it stands and in cases beside it. */
export interface TimeAsk {
  readonly itemId: number;
  readonly cases: readonly (readonly Change[])[];
  readonly drafts: boolean;
  readonly aside: null;
}

export interface CaseAnswer {
  readonly time: ItemOverTime;
  readonly short: readonly Stretch[];
  /** When everybody who wants the item has it. */
  readonly completeOn: WhenThere;
  readonly outcome: CaseOutcome;
  /** Lines of orders to suppliers that it expects on other days. */
  readonly deliveries: readonly { readonly lineId: number; readonly on: string }[];
}

export interface TimeAnswer {
  /** As it stands first, then the cases. */
  readonly cases: readonly CaseAnswer[];
  /** What may stand in for the item somewhere. */
  readonly alternates: readonly number[];
  /** Whether it can be built. */
  readonly isMade: boolean;
}

const known = new WeakMap<World, readonly Standing[]>();

function standingsOf(world: World): readonly Standing[] {
  const before = known.get(world);
  if (before) return before;
  const now = standings(world);
  known.set(world, now);
  return now;
}

export function timeAnswer(world: World, { itemId, cases }: TimeAsk): TimeAnswer {
  const before = standingsOf(world);
  const { today } = world.known.calendar;
  const alternates = world.demandsFor(itemId).flatMap((demand) => demand.alternates.map((one) => one.itemId));
  return {
    alternates: [...new Set(alternates)],
    isMade: world.known.definitions.has(itemId),
    cases: [[], ...cases].map((changes): CaseAnswer => {
      const other = changed(world, changes);
      const time = overTime(other, itemId);
      const own = peg(other.picture()).pegged.filter(({ demand }) => demand.itemId === itemId);
      return {
        time,
        short: shortStretches(time),
        completeOn: latest(own.map(({ completeOn }) => completeOn)),
        deliveries: deliveriesOf(world, other),
        outcome: outcomeOf(before, other === world ? before : standings(other), today),
      };
    }),
  };
}
