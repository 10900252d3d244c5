import type { Change } from '@yosegi/core/coverage';
import type { Quantity } from '@yosegi/core/number';
import fc from 'fast-check';
import { expect, it } from 'vitest';
import { caseOf, caseText, withChange } from './cases.ts';

const id = fc.integer({ min: 1, max: 99_999 });
const kind = fc.constantFrom('purchase' as const, 'build' as const);
const quantity = fc.integer({ min: 1, max: 2_000_000_000 }).map((n) => n as Quantity);
const change: fc.Arbitrary<Change> = fc.oneof(
  fc.record({ what: fc.constant('day' as const), kind, id, on: fc.constantFrom('2026-12-09', null) }),
  fc.record({ what: fc.constant('gone' as const), kind, id }),
  fc.record({ what: fc.constant('late' as const), supplierId: id, days: fc.constantFrom(null, 1, 366) }),
  fc.record({ what: fc.constant('build' as const), itemId: id, quantity, on: fc.constantFrom('2026-12-09', null) }),
  fc.record({ what: fc.constant('missing' as const), itemId: id, quantity }),
  fc.record({ what: fc.constant('instead' as const), itemId: id, other: id, quantity }),
  fc.record({
    what: fc.constantFrom('first' as const, 'last' as const),
    source: fc.record({ kind: fc.constantFrom('build' as const, 'order' as const), id }),
  }),
);

it('a case in the address comes back as it went, and what nobody can read is left out', () => {
  fc.assert(
    fc.property(fc.array(change), (changes) => {
      expect(caseOf(caseText(changes))).toEqual(changes);
    }),
  );
  expect(
    caseOf(
      'day.purchase.1.never~gone.rabbit.4~missing.3.-2~missing.x.1~instead.1.2~first.task.9~late.3.0~late.3.999~build.0.4.~build.4.5.soon~~what',
    ),
  ).toEqual([]);
  fc.assert(fc.property(fc.string(), (text) => Array.isArray(caseOf(text))));
});

it('a case says one thing about each supply', () => {
  const late: Change = { what: 'day', kind: 'purchase', id: 4, on: '2026-12-09' };
  const gone: Change = { what: 'gone', kind: 'purchase', id: 4 };
  const other: Change = { what: 'gone', kind: 'build', id: 4 };
  expect(withChange([late, other], gone)).toEqual([gone, other]);
  expect(withChange([other], late)).toEqual([other, late]);
});
