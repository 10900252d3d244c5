import fc from 'fast-check';
import { expect, it } from 'vitest';
import { fromText, like, toText } from './keptText.ts';

/** Whatever a screen may hold: texts, numbers, nothing, lists, objects, maps and sets, in one another. */
const anything = fc.letrec((tie) => ({
  value: fc.oneof(
    { depthSize: 'small', withCrossShrink: true },
    fc.string({ unit: 'binary' }),
    fc.integer(),
    fc.boolean(),
    fc.constant(null),
    fc.array(tie('value'), { maxLength: 4 }),
    fc.dictionary(fc.string({ maxLength: 5 }), tie('value'), { maxKeys: 4, noNullPrototype: true }),
    fc
      .array(fc.tuple(fc.oneof(fc.integer(), fc.string()), tie('value')), { maxLength: 4 })
      .map((rows) => new Map(rows)),
    fc.array(fc.oneof(fc.integer(), fc.string()), { maxLength: 4 }).map((all) => new Set(all)),
  ),
})).value;

it('keeps any value of a screen, maps and sets wherever they stand', () => {
  fc.assert(
    fc.property(anything, (value) => {
      expect(fromText(toText(value))).toEqual(value);
    }),
  );
});

it('takes nothing for alike that is of another kind where it matters', () => {
  const example = { good: '5', closes: false, lines: [{ id: 1, text: '' }], used: new Map([[1, '2']]) };
  const fits = (value: unknown) => like(example).safeParse(value).success;
  expect(fits({ ...example, good: null, more: 1, lines: [] })).toBe(true);
  for (const other of [
    null,
    'text',
    { ...example, used: {} },
    { ...example, lines: [{ id: 'one', text: '' }] },
    { ...example, good: 5 },
  ])
    expect(fits(other), JSON.stringify(other)).toBe(false);
});
