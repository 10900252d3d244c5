import type { Change } from '@yosegi/core/coverage';
import { isDay } from '@yosegi/core/days';
import { formatDecimal, parseDecimal, type Quantity } from '@yosegi/core/number';

/** The most cases that stand beside what is. */
export const MOST_CASES = 3;

/** A case in the address, like "day.purchase.12.2026-12-09~gone.build.4~missing.31.5". */
export const caseText = (changes: readonly Change[]): string => changes.map(changeText).join('~');

function changeText(change: Change): string {
  switch (change.what) {
    case 'day':
      return ['day', change.kind, change.id, change.on === null ? 'unknown' : change.on].join('.');
    case 'gone':
      return ['gone', change.kind, change.id].join('.');
    case 'late':
      return ['late', change.supplierId, change.days ?? 'unknown'].join('.');
    case 'build':
      return ['build', change.itemId, amountText(change.quantity), change.on ?? ''].join('.');
    case 'missing':
      return ['missing', change.itemId, amountText(change.quantity)].join('.');
    case 'instead':
      return ['instead', change.itemId, change.other, amountText(change.quantity)].join('.');
    case 'first':
    case 'last':
      return [change.what, change.source.kind, change.source.id].join('.');
  }
}

/** A point parts the words of a change, so an amount writes its own with a comma. */
const amountText = (quantity: Quantity) => formatDecimal(quantity).replace('.', ',');

/** What cannot be read is left out. */
export const caseOf = (text: string): Change[] => text.split('~').flatMap((part) => changeOf(part) ?? []);

function changeOf(text: string): Change | null {
  const [what, a = '', b = '', c = ''] = text.split('.');
  const kind = a === 'purchase' || a === 'build' ? a : null;
  if (what === 'day' && kind && idOf(b) && (c === 'unknown' || isDay(c)))
    return { what, kind, id: idOf(b), on: c === 'unknown' ? null : c };
  if (what === 'gone' && kind && idOf(b)) return { what, kind, id: idOf(b) };
  if (what === 'late' && idOf(a) && (b === 'unknown' || daysOf(b)))
    return { what, supplierId: idOf(a), days: b === 'unknown' ? null : daysOf(b) };
  if (what === 'build' && idOf(a) && (c === '' || isDay(c)))
    return withAmount(b, (quantity) => ({ what, itemId: idOf(a), quantity, on: c || null }));
  if (what === 'missing' && idOf(a)) return withAmount(b, (quantity) => ({ what, itemId: idOf(a), quantity }));
  if (what === 'instead' && idOf(a) && idOf(b))
    return withAmount(c, (quantity) => ({ what, itemId: idOf(a), other: idOf(b), quantity }));
  if ((what === 'first' || what === 'last') && (a === 'build' || a === 'order') && idOf(b))
    return { what, source: { kind: a, id: idOf(b) } };
  return null;
}

const idOf = (text: string) => (/^\d{1,15}$/.test(text) ? Number(text) : 0);

/** Days that something is late; 0 for what cannot be. */
export const daysOf = (text: string) => (/^\d{1,3}$/.test(text) && Number(text) <= MOST_DAYS ? Number(text) : 0);
export const MOST_DAYS = 366;

function withAmount(text: string, make: (quantity: Quantity) => Change): Change | null {
  try {
    const quantity = parseDecimal(text.replace(',', '.')) as Quantity;
    return quantity > 0 ? make(quantity) : null;
  } catch {
    return null;
  }
}

/** The changes with one more, in the place of one about the same thing. */
export function withChange(changes: readonly Change[], change: Change): Change[] {
  const key = aboutOf(change);
  const at = changes.findIndex((one) => aboutOf(one) === key);
  return at < 0 ? [...changes, change] : changes.with(at, change);
}

function aboutOf(change: Change): string {
  if (change.what === 'day' || change.what === 'gone') return `supply ${change.kind} ${change.id}`;
  if ('source' in change) return `turn ${change.source.kind} ${change.source.id}`;
  if (change.what === 'late') return `late ${change.supplierId}`;
  return `${change.what} ${change.itemId} ${change.what === 'instead' ? change.other : ''}`;
}
