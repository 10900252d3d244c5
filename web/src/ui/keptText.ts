import { z } from 'zod';

/** The name under which an object says what it really is. */
const IS = '~is';

/** Any value of a screen as text: maps and sets too, wherever they stand in it. */
export const toText = (value: unknown): string =>
  JSON.stringify(value, (_, one: unknown) => {
    if (one instanceof Map) return { [IS]: 'map', of: [...one] };
    return one instanceof Set ? { [IS]: 'set', of: [...one] } : one;
  });

/** The value that {@link toText} made a text of. @throws SyntaxError for any other text */
export const fromText = (text: string): unknown =>
  JSON.parse(text, (_, one: { [IS]?: string; of?: unknown } | null) => {
    if (one === null || typeof one !== 'object' || !Array.isArray(one.of)) return one;
    if (one[IS] === 'map') return new Map(one.of as [unknown, unknown][]);
    return one[IS] === 'set' ? new Set(one.of) : one;
  });

/**
 * What something must look like to be taken for the same as an example: of the same kind in every place that the example
 * has, where nothing may stand for anything.
 */
export function like<T>(example: T): z.ZodType<T> {
  return likeness(example) as unknown as z.ZodType<T>;
}

function likeness(example: unknown): z.ZodType {
  if (typeof example === 'string') return z.string().nullish();
  if (typeof example === 'number') return z.number().nullish();
  if (typeof example === 'boolean') return z.boolean().nullish();
  if (example instanceof Map) return z.map(z.any(), z.any());
  if (example instanceof Set) return z.set(z.any());
  if (Array.isArray(example)) return z.array(example.length > 0 ? likeness(example[0]) : z.any());
  if (example !== null && typeof example === 'object')
    return z.looseObject(Object.fromEntries(Object.entries(example).map(([name, one]) => [name, likeness(one)])));
  return z.any();
}
