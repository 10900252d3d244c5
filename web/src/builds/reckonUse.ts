import type { BuildDetail, BuildLine } from '@yosegi/contract';
import { entryFault, wordsOf } from '@yosegi/contract/problems';
import {
  type BuildNeed,
  extraLeft,
  finishCost,
  labourPortion,
  type OutWay,
  type Progress,
  plannedUse,
  rejectedCost,
  type UsedLine,
  worthOut,
} from '@yosegi/core/builds';
import {
  add,
  formatDecimal,
  fromZero,
  type Money,
  minus,
  type Percent,
  parsePercent,
  parseQuantity,
  type Quantity,
  readExact,
  SCALE,
  unitCostOf,
  ZERO,
} from '@yosegi/core/number';
import { type Spent, spentOn } from '@yosegi/core/tasks';
import { readSerials } from '@yosegi/core/tracking';
import { readTyped } from '../ui/measuring.ts';

/** What is finished besides the good ones. */
interface Portion {
  readonly isClosing?: boolean;
  readonly rejectedText?: string;
  readonly isWrittenOff?: boolean;
  /** What came out of the unit that is reworked, with shares of what it is worth as typed. */
  readonly out?: readonly { readonly went: OutWay; readonly share: string }[];
  /** Serials as they were typed, by line. */
  readonly tracks?: ReadonlyMap<number, { readonly serials: string }>;
}

/** What of a build is neither finished nor rejected. */
export const leftOf = ({ quantity, finished, rejected }: Pick<BuildDetail, 'quantity' | 'finished' | 'rejected'>) =>
  (readExact(quantity) - readExact(finished) - readExact(rejected)) as Quantity;

/** How far a build has come. */
export const progressOf = ({ quantity, finished, rejected, outputQuantity }: BuildDetail): Progress => ({
  quantity: readExact(quantity) as Quantity,
  finished: add(readExact(finished) as Quantity, readExact(rejected) as Quantity),
  outputQuantity: readExact(outputQuantity) as Quantity,
});

/** What a line of a build needs; nothing where it is no part. */
export const needOf = (line: BuildLine): BuildNeed | null => (line.item ? needOfPart(line, line.item.decimals) : null);

const needOfPart = (line: BuildLine, decimals: number): BuildNeed => ({
  instead: line.instead === '0' ? undefined : (readExact(line.instead) as Quantity),
  basis: line.basis,
  quantity: readExact(line.amount) as Quantity,
  waste: readExact(line.waste) as Percent,
  decimals,
  extra: line.added ? extraLeft(readExact(line.amount) as Quantity, readExact(line.used) as Quantity) : undefined,
});

/**
 * Cost and differences of what is typed; what was not typed is as its task says, else as planned for the good quantity.
 */
export function reckonUse(
  build: BuildDetail,
  goodText: string,
  typed: ReadonlyMap<number, string>,
  { isClosing = false, rejectedText = '', isWrittenOff = false, out = [], tracks }: Portion = {},
) {
  const faults = new Map<string, string>();
  const read = <T extends number>(field: string, parse: () => T): T => {
    try {
      return fromZero(parse());
    } catch (error) {
      faults.set(field, entryFault(error));
      return 0 as T;
    }
  };
  const good = read('good', () => parseQuantity(goodText, build.decimals));
  const rejected =
    rejectedText.trim() === '' ? ZERO : read('rejected', () => parseQuantity(rejectedText, build.decimals));
  const portion = add(good, rejected);
  const left = leftOf(build);
  if (portion === 0 && !faults.has('good')) faults.set('good', 'Enter how many are good.');
  if (good === 0 && rejected > 0 && !isWrittenOff)
    faults.set('rejectCost', 'There are no good units to absorb the cost of the rejects. Write it off.');
  if (portion > left && good <= left) faults.set('rejected', `Only ${formatDecimal(left)} left in total.`);
  if (good > left) faults.set('good', `Only ${formatDecimal(left)} left. Plan another build for more.`);
  const progress = progressOf(build);
  const closes = isClosing || portion === left;
  const spent = spentByTask(build);
  const actuals = new Map<number, Quantity>();
  const lines = build.lines.flatMap((line): UsedLine[] => {
    const { id: lineId, basis } = line;
    const said = typed.get(lineId);
    if (line.kind === 'part' && line.item) {
      const { item } = line;
      const need = needOfPart(line, item.decimals);
      const actual =
        said === undefined ? plannedUse(need, progress, portion) : read(`line${lineId}`, () => readTyped(said, item));
      actuals.set(lineId, actual);
      return [
        {
          ...need,
          kind: 'part',
          lineId,
          itemId: line.item.id,
          actual,
          unitCost: readExact(line.item.averageCost) as Money,
          worth: worthOfUnits(line, actual, tracks?.get(lineId)?.serials ?? ''),
        },
      ];
    }
    if (line.kind === 'labour') {
      const minutes = readExact(line.amount) as Quantity;
      const expected = labourPortion({ basis, minutes, spent: spent.get(lineId) }, progress, portion, closes);
      const actual = said === undefined ? expected : read(`line${lineId}`, () => parseQuantity(said || '0', 2));
      actuals.set(lineId, actual);
      return [
        { kind: 'labour', lineId, basis, minutes, ratePerHour: readExact(line.ratePerHour ?? '0') as Money, actual },
      ];
    }
    return line.kind === 'charge'
      ? [{ kind: 'charge', lineId, basis, amount: readExact(line.amount) as Money, spent: spent.get(lineId) }]
      : [];
  });
  try {
    const cost = finishCost(lines, progress, portion, closes);
    const itself = lines.flatMap((line) => (line.kind === 'part' && line.itemId === build.itemId ? line.lineId : []));
    const unit = cost.lines.filter(({ lineId }) => itself.includes(lineId)).map((use) => use.cost);
    const gone = read('out', () => outWorth(add<Money>(ZERO, ...unit), out));
    const most = good === 0 ? cost.actual : isWrittenOff ? rejectedCost(cost.planned, rejected, good) : ZERO;
    const writtenOff = Math.min(cost.actual, most) as Money;
    return { faults, actuals, cost, writtenOff, unitCost: unitCostOf(minus(cost.actual, add(writtenOff, gone)), good) };
  } catch (error) {
    faults.set('good', wordsOf(error) ?? 'This cost can’t be calculated.');
    return {
      faults,
      actuals,
      cost: finishCost([], progress, portion),
      writtenOff: ZERO as Money,
      unitCost: ZERO as Money,
    };
  }
}

/** What the very units are worth that are used: those that were typed, or all that stand on the bench; undefined for any others. */
function worthOfUnits(line: BuildLine, actual: Quantity, typed: string): Money | undefined {
  if (line.item?.tracking !== 'serial' || actual === 0) return undefined;
  const worths = new Map(
    [...line.pieces, ...line.bins.flatMap(({ pieces }) => pieces)].flatMap(({ serial, value }) =>
      serial === null || value === null ? [] : [[serial.toLowerCase(), readExact(value) as Money] as const],
    ),
  );
  const codes = typed.trim() === '' ? line.pieces.flatMap(({ serial }) => serial ?? []) : serialsIn(typed);
  const known = codes.flatMap((code) => worths.get(code.toLowerCase()) ?? []);
  return known.length * SCALE === actual ? add<Money>(ZERO, ...known) : undefined;
}

function serialsIn(typed: string): string[] {
  try {
    return readSerials(typed);
  } catch {
    return [];
  }
}

/** What parts that came out take with them of what the unit is worth. @throws Refusal `shares-over`, and as {@link parsePercent} */
const outWorth = (unit: Money, out: NonNullable<Portion['out']>): Money =>
  add<Money>(
    ZERO,
    ...worthOut(
      unit,
      out.map(({ went, share }) => ({ went, share: parsePercent(share.trim() || '0') })),
    ),
  );

/** What was spent on each task; those that are as planned are left out. */
const spentByTask = ({ tasks }: BuildDetail): ReadonlyMap<number, Spent<number>> =>
  new Map(
    tasks.flatMap(({ id, kind, state, taken, price, booked, added, planned }) => {
      const facts = {
        kind,
        state,
        taken: readExact(taken) as Quantity,
        booked: readExact(booked),
        added: added && readExact(planned),
      };
      const spent = spentOn({ ...facts, price: price === null ? null : (readExact(price) as Money) });
      return spent ? [[id, spent] as const] : [];
    }),
  );
