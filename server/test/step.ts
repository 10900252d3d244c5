import fc from 'fast-check';
import type { Step, World } from './days.ts';
import type { Said } from './slow-books.ts';

// What the steps of a random day are made of.

export const nat = (max: number) => fc.integer({ min: 0, max });
export const from1 = (max: number) => fc.integer({ min: 1, max });

/** The one at a place counted round and round; undefined of none. */
export const pickFrom = <T>(all: readonly T[], at: number): T | undefined => all[at % Math.max(1, all.length)];

/** @param act says what a document does not show of itself, if there is such a thing */
export const step = <T>(
  from: fc.Arbitrary<T>,
  act: (world: World, drawn: T) => Promise<Said | undefined> | Promise<void>,
) =>
  from.map((drawn): Step => {
    const go: Step = async (world) => (await act(world, drawn)) ?? undefined;
    // A day that fails is told by what was drawn.
    return Object.assign(go, { [fc.toStringMethod]: () => JSON.stringify(drawn) });
  });
