import { minus, type Quantity, SCALE, ZERO } from '../number/index.ts';

/** What a scale shows: a load, less what was tared away. Both in millionths of a kilogram. */
export interface OnScale {
  readonly load: Quantity;
  readonly tare: Quantity;
}
/** Steps of a bench scale. */
const STEP = SCALE / 1000;
export const MOST_KILOS = 60;

/** The net weight that a scale sends, to its step of a gram. */
export const netOf = ({ load, tare }: OnScale): Quantity => (Math.round(minus(load, tare) / STEP) * STEP) as Quantity;

/** Takes what stands on it for the tare, like a jar before it is filled. */
export const tared = ({ load }: OnScale): OnScale => ({ load, tare: load });
export const EMPTY_SCALE: OnScale = { load: ZERO, tare: ZERO };
