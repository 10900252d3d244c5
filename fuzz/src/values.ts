import type { Dice } from './dice.ts';

/** A part of JSON Schema: what Zod makes of the contract's schemas. */
export interface Shape {
  readonly type?: string | readonly string[];
  readonly properties?: Readonly<Record<string, Shape>>;
  readonly required?: readonly string[];
  readonly items?: Shape;
  readonly anyOf?: readonly Shape[];
  readonly oneOf?: readonly Shape[];
  readonly allOf?: readonly Shape[];
  readonly enum?: readonly unknown[];
  readonly const?: unknown;
  readonly default?: unknown;
  readonly format?: string;
  readonly minItems?: number;
}

/** Ids that really exist, by the name of the field that takes one. */
export type Known = ReadonlyMap<string, readonly (number | string)[]>;

const HOSTILE_TEXTS = [
  '',
  ' ',
  '\u0000',
  'a\u0000b',
  '\ud800',
  '\u200b',
  '＝1+1',
  '=HYPERLINK("http://x","y")',
  "'; DROP TABLE item; --",
  '" OR 1=1 --',
  '%_\\',
  '../../../../etc/passwd',
  '<script>alert(1)</script>',
  '<img src=x onerror=alert(1)>',
  '{{7*7}}#{7*7}',
  '__proto__',
  'constructor',
  'null',
  'NaN',
  'Infinity',
  '1e9',
  '0x10',
  '-0',
  '٣',
  '½',
  '1,5',
  '1.2.3',
  '999999999',
  '999999999.999999',
  '1000000000',
  '9007199254740993',
  '-999999999',
  '0.0000001',
  '0.000001',
  '1/3',
  '1/0',
  '5 box',
  '2026-02-30',
  '0000-00-00',
  '9999-12-31',
  '2026-99-99',
  'SC-0001..999999999',
  ',',
  ';',
  '\n',
  '\r\n\t',
  '👩‍👩‍👧‍👦',
  'ﷺ'.repeat(30),
  'x'.repeat(41),
  'y'.repeat(2001),
  'z'.repeat(20_000),
];
const HOSTILE_NUMBERS = [0, -1, 1, 2, 9999, 2 ** 31, 2 ** 53, -(2 ** 53), 1.5, 1e308, Number.MAX_SAFE_INTEGER];
const DECIMALS = ['0', '1', '2', '3', '0.5', '1.25', '7', '10', '12', '40', '100', '2.999', '0.001', '999999999'];
const DAYS = ['2026-11-25', '2026-12-24', '2025-01-31', '2024-02-29', '2999-12-31'];
const WORDS = ['Oak', 'Pine 4 mm', 'Zoë', 'a', 'Long name of a thing that somebody typed', 'Recalled', 'Q-7'];

/** A value as it can stand in an address or a file: whole characters only, or it could not be sent. */
export const asText = (value: unknown): string =>
  (typeof value === 'string' ? value : (JSON.stringify(value) ?? '')).replace(
    /[\ud800-\udbff](?![\udc00-\udfff])|(?<![\ud800-\udbff])[\udc00-\udfff]/g,
    '\ufffd',
  );

/** Anything at all, whatever a field asks for. */
export function anything(dice: Dice): unknown {
  return dice.of<() => unknown>([
    () => dice.of(HOSTILE_TEXTS),
    () => dice.of(HOSTILE_TEXTS),
    () => dice.of(HOSTILE_NUMBERS),
    () => null,
    () => true,
    () => [],
    () => ({}),
    () => [null],
    () => ({ toString: 'x', constructor: { name: 'y' } }),
    () => Array.from({ length: 3000 }, () => 1),
    () => JSON.parse(`${'['.repeat(200)}${']'.repeat(200)}`),
  ])();
}

const DECIMAL_NAMES =
  /quantity|cost|price|amount|change|good|damaged|actual|counted|minutes|waste|share|ratio|discount|perHour|one|pack|minimum|reorderPoint/i;

/** A value that fits a shape; with `spoil` one in so many fields is something else. */
export function valueFor(shape: Shape, name: string, known: Known, dice: Dice, spoil: number): unknown {
  if (dice.chance(spoil)) return anything(dice);
  if (shape.const !== undefined) return shape.const;
  if (shape.enum) return dice.of(shape.enum);
  const choices = shape.anyOf ?? shape.oneOf;
  if (choices) return valueFor(dice.of(choices), name, known, dice, spoil);
  if (shape.allOf?.[0]) return valueFor(shape.allOf[0], name, known, dice, spoil);
  const type = Array.isArray(shape.type) ? dice.of(shape.type as string[]) : (shape.type as string | undefined);
  switch (type) {
    case 'object':
      return objectOf(shape, known, dice, spoil);
    case 'array': {
      const length = dice.chance(0.03) ? 40 : Math.max(shape.minItems ?? 0, dice.upTo(2));
      const entries = Array.from({ length }, () => valueFor(shape.items ?? {}, name, known, dice, spoil));
      // The same thing twice is what a hurried hand sends.
      return entries.length > 0 && dice.chance(0.1) ? [...entries, entries[0]] : entries;
    }
    case 'integer':
    case 'number':
      return idOf(name, known, dice) ?? dice.upTo(name === 'version' ? 3 : 5);
    case 'boolean':
      return dice.chance(0.5);
    case 'null':
      return null;
    case 'string':
      return textOf(shape, name, known, dice);
    default:
      return anything(dice);
  }
}

function objectOf(shape: Shape, known: Known, dice: Dice, spoil: number): Record<string, unknown> {
  const entries = Object.entries(shape.properties ?? {}).flatMap(([name, own]) => {
    const isNeeded = shape.required?.includes(name) && own.default === undefined;
    if (!isNeeded && dice.chance(0.4)) return [];
    return [[name, valueFor(own, name, known, dice, spoil)] as const];
  });
  if (dice.chance(spoil)) entries.push(['surplus', anything(dice)]);
  return Object.fromEntries(entries);
}

function idOf(name: string, known: Known, dice: Dice): number | undefined {
  const ids = known.get(name) ?? known.get(name.replace(/s$/, ''));
  return ids && ids.length > 0 ? Number(dice.of(ids)) : undefined;
}

function textOf(shape: Shape, name: string, known: Known, dice: Dice): string {
  if (shape.format === 'date') return dice.of(DAYS);
  if (shape.format === 'email') return 'a@example.example';
  const own = known.get(name);
  if (own && own.length > 0 && dice.chance(0.6)) return String(dice.of(own));
  if (DECIMAL_NAMES.test(name)) return dice.of(DECIMALS);
  if (name === 'code') return `F-${dice.upTo(9999)}`;
  return dice.of(WORDS);
}
