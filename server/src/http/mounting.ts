import type { Calendar } from '../command/calendar.ts';
import type { Carrier } from '../command/carryout.ts';

/** What routes are mounted on. */
export interface Mounting extends Carrier {
  readonly calendar: Calendar;
}
