import { revaluedBy } from '@yosegi/core/ledger';
import type { Money, Quantity } from '@yosegi/core/number';
import { expect, it } from 'vitest';
import { ownOf } from './own.ts';

it('what is revalued is on shelves and benches, not what is held in returns', () => {
  const own = ownOf({ onHand: '12', onBench: '3', returned: '5', value: '45', returnedValue: '25' });
  expect(own).toEqual({ quantity: 10_000_000 as Quantity, value: 20_000_000 as Money });
  expect(revaluedBy(own, 3_000_000 as Money)).toBe(10_000_000);
});
