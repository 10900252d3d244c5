import { isDay } from '@yosegi/core/days';
import { isSeen, isVisible } from '@yosegi/core/text';
import { z } from 'zod';
import type { Right } from './rights.ts';
import './said.ts';

/** A plain decimal as text, so that no float ever carries an amount. How many decimals are allowed is the core's to say. */
export const Decimal = z.string().min(1).max(40);
export const Id = z.number().int().positive();
/** An ISO day without a time, in the company's own zone. */
export const Day = z.iso.date().refine(isDay, 'Enter a date between 1900 and 2999.');
export const Version = z.number().int().nonnegative();
export const Name = z.string().trim().min(1).max(120).refine(isSeen, 'Enter a name with visible characters.');
/** Letters and digits that look the same are the same: full-width ones become plain, invisible ones are refused. */
const PlainCode = z.string().normalize('NFKC').trim();
const SHOWN = 'No spaces and no invisible characters.';
export const Code = PlainCode.min(1)
  .max(40)
  .regex(/^[^\s/]+$/, 'No spaces or slashes.')
  .refine(isVisible, SHOWN);
/** A lot's code or a serial number, as printed: what GS1 elements 10 and 21 can carry and a person can type. */
export const Printed = PlainCode.min(1)
  .max(40)
  .regex(/^[^\s,;]+$/, 'No spaces, commas or semicolons.')
  .refine(isVisible, SHOWN);
/** A word or a few: a name of somebody, a reference, a phone number. */
export const ShortText = z.string().trim().max(120);
/** A word under which orders, builds, repairs, purchases and adjustments are booked together. */
export const JobTag = z.string().trim().max(60).default('');
export const Remark = z.string().trim().max(2000);

/** What a command answers of the record it made or changed: enough to name it and to change it again. */
export const Saved = z.object({ id: Id, version: Version });
export type Saved = z.infer<typeof Saved>;
/** The same of a record that people call by its number. */
export const Numbered = Saved.extend({ number: z.string() });
export type Numbered = z.infer<typeof Numbered>;

export const IdParams = z.object({ id: z.coerce.number().int().positive() });
export type IdParams = z.infer<typeof IdParams>;

export const PageQuery = z.object({
  cursor: z.string().max(200).optional(),
  limit: z.coerce.number().int().min(1).max(500).default(100),
});

/** One page of a list; `next` is the cursor of the following page, null at the end. */
export const pageOf = <T extends z.ZodType>(row: T) => z.object({ rows: z.array(row), next: z.string().nullable() });

/** RFC 9457 problem details, with the field it concerns and the facts a screen needs to show the ways out. */
export const Problem = z.object({
  type: z.string(),
  title: z.string(),
  status: z.number(),
  code: z.string(),
  detail: z.string(),
  field: z.string().optional(),
  facts: z.record(z.string(), z.unknown()).optional(),
  requestId: z.string().optional(),
});
export type Problem = z.infer<typeof Problem>;

export interface Route {
  readonly method: 'GET' | 'POST' | 'PUT' | 'DELETE';
  readonly path: string;
  readonly summary: string;
  readonly tag: string;
  /** A POST that only asks, because the question is too long for an address: it changes nothing and needs no key. */
  readonly asks?: true;
  /** What whoever calls it must be allowed. */
  readonly right: Right;
  readonly params?: z.ZodType;
  readonly query?: z.ZodType;
  readonly body?: z.ZodType;
  readonly response: z.ZodType;
}

export const route = <const R extends Route>(definition: R) => definition;

/** The item that a line of an answer is about, as screens name it and measure it. */
export const OfItem = {
  itemId: Id,
  code: z.string(),
  name: z.string(),
  unit: z.string(),
  /** Digits after the point that its unit is counted in. */
  decimals: z.number().int(),
};
