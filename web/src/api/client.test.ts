import { expect, it } from 'vitest';
import { isAmong } from './client.ts';

it('a field is known by its path, a star standing for one step of it', () => {
  const shown = ['remark', 'lines.*.quantity'];
  expect(['remark', 'lines.0.quantity', 'lines.12.quantity'].map((field) => isAmong(field, shown))).toEqual([
    true,
    true,
    true,
  ]);
  const others = [undefined, '', 'lines', 'lines.0', 'lines.0.lot', 'lines.0.needs.1.quantity', 'remarks'];
  expect(others.filter((field) => isAmong(field, shown))).toEqual([]);
});
