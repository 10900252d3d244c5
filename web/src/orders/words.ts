import type { OrderRow } from '@yosegi/contract';
import { daysBetween } from '@yosegi/core/days';
import type { Format } from '../ui/format.ts';
import { today } from '../ui/today.ts';

type Ahead = Pick<OrderRow, 'outlook' | 'wholeOn' | 'wantedOn' | 'standing' | 'canLeave'>;

export const standingWords: Record<OrderRow['standing'], string> = {
  quote: 'quote',
  open: 'confirmed',
  'partly-shipped': 'partly shipped',
  shipped: 'shipped',
  cancelled: 'cancelled',
};

const days = (n: number) => (n === 1 ? '1 day' : `${n} days`);

/** When an order is whole, beside the day it is wanted: the sentence that its sheet begins with. */
export function outlookWords({ outlook, wholeOn, wantedOn, standing, canLeave }: Ahead, format: Format): string {
  if (standing === 'quote') return 'A quote: nothing is promised to it until it is confirmed.';
  if (standing === 'shipped') return 'Everything has been shipped.';
  if (standing === 'cancelled') return 'Cancelled.';
  if (outlook === 'ready') return 'Everything is here. It can leave now.';
  if (canLeave && outlook === 'late') {
    const late = wantedOn === null ? '' : `, ${days(daysBetween(wantedOn, wholeOn || today()))} late`;
    return wholeOn
      ? `Everything is here. Sent today, it arrives ${format.day(wholeOn)}${late}.`
      : `Everything is here. It can leave now${late}.`;
  }
  if (wholeOn === null) return 'It is not known yet when it will be whole.';
  const whole = `Whole on ${format.day(wholeOn)}`;
  if (wantedOn === null) return `${whole}.`;
  const early = daysBetween(wholeOn, wantedOn);
  if (early === 0) return `${whole}, the day it is wanted.`;
  return early > 0 ? `${whole}, ${days(early)} before it is wanted.` : `${whole}, ${days(-early)} late.`;
}

/** The same in a list, in two or three words. */
export function outlookShort({ outlook, wholeOn, wantedOn, canLeave }: Ahead, format: Format): string {
  if (canLeave && outlook === 'late' && wholeOn)
    return `due ${format.day(wantedOn ?? '')}, arrives ${format.day(wholeOn)}`;
  if (outlook === 'late' && wholeOn) return `due ${format.day(wantedOn ?? '')}, whole ${format.day(wholeOn)}`;
  return wantedOn ? `due ${format.day(wantedOn)}` : 'no day set';
}

/** When a line or one of its parts is there. */
export function whenThere(wholeOn: string | null, format: Format): string {
  if (wholeOn === null) return 'no day yet';
  return wholeOn === '' ? 'now' : format.day(wholeOn);
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
  if (after === null) return `${number} would have no day`;
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
