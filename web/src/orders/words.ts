import type { OrderRow } from '@yosegi/contract';
import { daysBetween } from '@yosegi/core/days';
import type { Format } from '../ui/format.ts';
import { today } from '../ui/today.ts';

type Ahead = Pick<OrderRow, 'outlook' | 'completeOn' | 'wantedOn' | 'standing' | 'canLeave'>;

export const standingWords: Record<OrderRow['standing'], string> = {
  quote: 'quote',
  open: 'confirmed',
  'partly-shipped': 'partly shipped',
  shipped: 'shipped',
  cancelled: 'cancelled',
};

const days = (n: number) => (n === 1 ? '1 day' : `${n} days`);

/** When an order is whole, beside the day it is wanted: the sentence that its sheet begins with. */
export function outlookWords({ outlook, completeOn, wantedOn, standing, canLeave }: Ahead, format: Format): string {
  if (standing === 'quote') return 'Quote: nothing is promised until it is confirmed.';
  if (standing === 'shipped') return 'Everything has been shipped.';
  if (standing === 'cancelled') return 'Cancelled.';
  if (outlook === 'ready') return 'Everything is here. Ready to ship.';
  if (canLeave && outlook === 'late') {
    const late = wantedOn === null ? '' : `, ${days(daysBetween(wantedOn, completeOn || today()))} late`;
    return completeOn
      ? `Everything is here. Sent today, it arrives ${format.day(completeOn)}${late}.`
      : `Everything is here. Ready to ship${late}.`;
  }
  if (completeOn === null) return 'No completion date yet.';
  const whole = `Complete on ${format.day(completeOn)}`;
  if (wantedOn === null) return `${whole}.`;
  const early = daysBetween(completeOn, wantedOn);
  if (early === 0) return `${whole}, on the wanted date.`;
  return early > 0 ? `${whole}, ${days(early)} early.` : `${whole}, ${days(-early)} late.`;
}

/** The same in a list, in two or three words. */
export function outlookShort({ outlook, completeOn, wantedOn, canLeave }: Ahead, format: Format): string {
  if (canLeave && outlook === 'late' && completeOn)
    return `wanted ${format.day(wantedOn ?? '')}, arrives ${format.day(completeOn)}`;
  if (outlook === 'late' && completeOn)
    return `wanted ${format.day(wantedOn ?? '')}, complete ${format.day(completeOn)}`;
  return wantedOn ? `wanted ${format.day(wantedOn)}` : 'no date';
}

/** When a line or one of its parts is there. */
export function whenThere(completeOn: string | null, format: Format): string {
  if (completeOn === null) return 'no date yet';
  return completeOn === '' ? 'now' : format.day(completeOn);
}

/** Whom an order would delay and by how much: "O-0133, 2 days later". */
export function delayWords({
  number,
  before,
  after,
}: {
  number: string;
  before: string | null;
  after: string | null;
}): string {
  if (after === null) return `${number} would have no date`;
  const from = before || today();
  const later = daysBetween(from, after || today());
  return later > 0 ? `${number} would be ${days(later)} later` : number;
}

/** What became of one item of an order. */
export function changeWords(name: string, before: string, after: string, amount: (quantity: string) => string): string {
  if (before === '0') return `${amount(after)} ${name} added`;
  if (after === '0') return `${amount(before)} ${name} taken off`;
  return `${name}: ${amount(after)} instead of ${amount(before)}`;
}
