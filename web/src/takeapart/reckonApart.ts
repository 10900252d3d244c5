import type { ApartPlan } from '@yosegi/contract';
import { entryFault, wordsOf } from '@yosegi/contract/problems';
import { balanceShares } from '@yosegi/core/definitions';
import {
  fromZero,
  type Money,
  mulDiv,
  ONE,
  type Percent,
  parsePercent,
  percentTo,
  type Quantity,
  readExact,
  SCALE,
  ZERO,
} from '@yosegi/core/number';
import { expectedBack, type Leftover, takeApart } from '@yosegi/core/takeapart';
import { readSerials, writeSerials } from '@yosegi/core/tracking';
import { z } from 'zod';
import { NOTHING_TYPED, TypedTrack } from '../lines/typed.ts';
import { readTyped } from '../ui/measuring.ts';

/** What somebody typed of one line; nothing of what they left as it is expected. */
export const Typed = z.object({
  good: z.string().exactOptional(),
  damaged: z.string().exactOptional(),
  /** A share for this once, in percent. */
  share: z.string().exactOptional(),
  binId: z.string().exactOptional(),
  track: TypedTrack.exactOptional(),
});
export type Typed = Readonly<z.infer<typeof Typed>>;

/** Serials of the address while they are whole; what is half typed asks nothing yet. */
export function readable(serials: string | null): string | undefined {
  try {
    return serials && readSerials(serials).length > 0 ? serials : undefined;
  } catch {
    return undefined;
  }
}

/** What of a line the fields for lots and serials need. */
export const partOf = (line: ApartPlan['lines'][number]) => ({
  id: line.itemId,
  name: line.name,
  tracking: line.tracking,
});

/** The lot or the serials that went into the unit, as many as are good. */
export function asWentIn(line: ApartPlan['lines'][number], good: Quantity): TypedTrack {
  const codes = line.wentIn.flatMap((piece) => piece.serial ?? []).slice(0, good / SCALE);
  return { ...NOTHING_TYPED, lot: line.wentIn[0]?.lot ?? '', serials: writeSerials(codes) };
}

function expectedOrFault(
  need: Parameters<typeof expectedBack>[0],
  quantity: Quantity,
  output: Quantity,
  faults: Map<string, string>,
): Quantity {
  try {
    return expectedBack(need, quantity, output);
  } catch (error) {
    faults.set('quantity', wordsOf(error) ?? 'This can’t be calculated.');
    return 0 as Quantity;
  }
}

/** What so many of what came back are worth: their part of it. */
function pieceWorth({ waiting, value }: NonNullable<ApartPlan['piece']>, quantity: Quantity): number {
  const all = readExact(waiting);
  return all === 0 ? 0 : Number(mulDiv(readExact(value), Math.min(quantity, all), all, 'nearest'));
}

function readPercent(text: string, field: string, faults: Map<string, string>): Percent | null {
  if (text.trim() === '') return null;
  try {
    return percentTo(parsePercent(text), 100);
  } catch (error) {
    faults.set(field, entryFault(error));
    return null;
  }
}

/** Shares as they are typed for this once; those that are not typed part what is left as the plan has them. */
function sharesOf(
  plan: ApartPlan,
  typed: ReadonlyMap<number, Typed>,
  writeOff: Percent,
  faults: Map<string, string>,
): Percent[] {
  const own = plan.lines.map((line) => readExact(line.share) as Percent);
  const said = plan.lines.map((line, index) =>
    readPercent(typed.get(line.lineId)?.share ?? '', `lines.${index}.share`, faults),
  );
  if (said.every((share) => share === null) && writeOff === 0) return own;
  const lines = said.map((share, index) => ({ typed: share, cost: own[index] ?? 0, comesBack: true }));
  try {
    return balanceShares([...lines, { typed: writeOff, cost: 0, comesBack: true }]).slice(0, own.length);
  } catch (error) {
    const first = said.findIndex((share) => share !== null);
    faults.set(first < 0 ? 'writeOff' : `lines.${first}.share`, wordsOf(error) ?? 'Shares must add up to 100%.');
    return own;
  }
}

/** What comes back and what it is worth, at every key press. Expected parts count as good until said otherwise. */
export function reckonApart(
  plan: ApartPlan,
  quantityText: string,
  typed: ReadonlyMap<number, Typed>,
  leftover: Leftover,
  writeOffText = '',
) {
  const faults = new Map<string, string>();
  const read = (field: string, text: string, item: Pick<ApartPlan, 'unit' | 'decimals' | 'measures'>): Quantity => {
    try {
      return fromZero(readTyped(text, item));
    } catch (error) {
      faults.set(field, entryFault(error));
      return 0 as Quantity;
    }
  };
  const quantity = read('quantity', quantityText, plan);
  if (quantity === 0 && !faults.has('quantity')) faults.set('quantity', 'Enter how many.');
  const stock = { quantity: readExact(plan.stockQuantity), value: readExact(plan.stockValue) };
  const value = (
    plan.piece !== null
      ? pieceWorth(plan.piece, quantity)
      : plan.ownValue !== null
        ? readExact(plan.ownValue)
        : stock.quantity > 0
          ? mulDiv(stock.value, Math.min(quantity, stock.quantity), stock.quantity, 'nearest')
          : 0
  ) as Money;
  const writeOff = readPercent(writeOffText, 'writeOff', faults) ?? ZERO;
  const shares = sharesOf(plan, typed, writeOff, faults);
  const rows = plan.lines.map((line, index) => {
    const need = { basis: line.basis, quantity: readExact(line.quantity) as Quantity, decimals: line.decimals };
    const expected = expectedOrFault(need, quantity, readExact(line.output) as Quantity, faults);
    const said = typed.get(line.lineId);
    const damaged = said?.damaged === undefined ? (0 as Quantity) : read(`lines.${index}.damaged`, said.damaged, line);
    const good =
      said?.good === undefined
        ? (Math.max(0, expected - damaged) as Quantity)
        : read(`lines.${index}.good`, said.good, line);
    return { line, share: shares[index] ?? (readExact(line.share) as Percent), expected, good, damaged };
  });
  try {
    const never = { share: writeOff, expected: ONE, good: ZERO, damaged: ZERO };
    const split = takeApart(value, writeOff > 0 ? [...rows, never] : rows, leftover);
    return {
      faults,
      value,
      writtenOff: split.writtenOff,
      rows: rows.map((row, index) => ({
        ...row,
        missing: split.lines[index]?.missing ?? 0,
        value: split.lines[index]?.value ?? 0,
      })),
    };
  } catch (error) {
    const field = (error as { field?: string }).field ?? 'quantity';
    faults.set(field, wordsOf(error) ?? 'Check this entry.');
    return { faults, value, writtenOff: value, rows: rows.map((row) => ({ ...row, missing: 0, value: 0 })) };
  }
}
