import { describe, expect, it } from 'vitest';
import { z } from 'zod';
import { Code, Day, Id, IdParams } from './index.ts';

const said = (schema: z.ZodType, value: unknown) =>
  schema.safeParse(value).error?.issues.map(({ message }) => message)[0];

describe('what a schema refuses is said in words for the person who typed it', () => {
  const cases: [string, z.ZodType, unknown, string][] = [
    ['nothing', Id, undefined, 'Fill this in.'],
    ['an empty text', z.string().min(1), '', 'Fill this in.'],
    ['an empty list', z.array(Id).min(1), [], 'Fill this in.'],
    ['a text for a number', Id, 'x', 'Enter a number.'],
    ['a word in an address', IdParams.shape.id, 'null', 'Enter a number.'],
    ['a fraction', Id, 1.5, 'Enter a number without decimals.'],
    ['nought', Id, 0, 'More than 0.'],
    ['a number for a text', z.string(), 5, 'Enter some text.'],
    ['too long', z.string().max(3), 'abcd', 'At most 3 characters.'],
    ['too many', z.array(Id).max(1), [1, 2], 'At most 1 entries.'],
    ['another word', z.enum(['day', 'week']), 'x', 'Choose one of these: day, week.'],
    ['a mail address', z.email(), 'x', 'Enter an email address, like anna@example.org.'],
    ['a code, in its own words', Code, 'a b', 'No spaces or slashes.'],
  ];
  it.each(cases)('%s', (_, schema, value, words) => expect(said(schema, value)).toBe(words));

  it('a day, whatever is wrong with it', () => {
    expect(said(Day, '2026-02-30')).toMatch(/^Enter a date/);
    expect(said(Day, '0000-00-00')).toMatch(/^Enter a date/);
  });
});
