import type { BuildDetail } from '@yosegi/contract';
import { wordsOf } from '@yosegi/contract/problems';
import { finishCost, labourPortion, plannedUse, type UsedLine } from '@yosegi/core/builds';
import {
  formatDecimal,
  fromZero,
  type Money,
  type Percent,
  parseQuantity,
  type Quantity,
  readExact,
} from '@yosegi/core/number';
import { type Spent, spentOn } from '@yosegi/core/tasks';
import { readTyped } from '../ui/measuring.ts';

/**
 * Cost and differences of what is typed; what was not typed is as its task says, else as planned for the good quantity.
 */
export function reckonUse(
  build: BuildDetail,
  goodText: string,
  typed: ReadonlyMap<number, string>,
  isClosing: boolean,
) {
  const faults = new Map<string, string>();
  const read = <T extends number>(field: string, parse: () => T): T => {
    try {
      return fromZero(parse());
    } catch (error) {
      faults.set(field, wordsOf(error) ?? 'This cannot be read.');
      return 0 as T;
    }
  };
  const good = read('good', () => parseQuantity(goodText, build.decimals));
  const left = readExact(build.quantity) - readExact(build.finished);
  if (good === 0 && !faults.has('good')) faults.set('good', 'Type how many are good.');
  if (good > left) faults.set('good', `Only ${formatDecimal(left)} left. Plan another build for more.`);
  const progress = {
    quantity: readExact(build.quantity) as Quantity,
    finished: readExact(build.finished) as Quantity,
    outputQuantity: readExact(build.outputQuantity) as Quantity,
  };
  const closes = isClosing || good === left;
  const spent = spentByTask(build);
  const actuals = new Map<number, Quantity>();
  const lines = build.lines.flatMap((line): UsedLine[] => {
    const { id: lineId, basis } = line;
    const said = typed.get(lineId);
    if (line.kind === 'part' && line.item) {
      const { item } = line;
      const need = {
        basis,
        quantity: readExact(line.amount) as Quantity,
        waste: readExact(line.waste) as Percent,
        decimals: item.decimals,
      };
      const actual =
        said === undefined ? plannedUse(need, progress, good) : read(`line${lineId}`, () => readTyped(said, item));
      actuals.set(lineId, actual);
      return [
        {
          ...need,
          kind: 'part',
          lineId,
          itemId: line.item.id,
          actual,
          unitCost: readExact(line.item.averageCost) as Money,
        },
      ];
    }
    if (line.kind === 'labour') {
      const minutes = readExact(line.amount) as Quantity;
      const expected = labourPortion({ basis, minutes, spent: spent.get(lineId) }, progress, good, closes);
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
    return { faults, actuals, cost: finishCost(lines, progress, good, closes) };
  } catch (error) {
    faults.set('good', wordsOf(error) ?? 'What this costs cannot be worked out.');
    return { faults, actuals, cost: finishCost([], progress, good) };
  }
}

/** What was spent on each task; those that are as planned are left out. */
const spentByTask = ({ tasks }: BuildDetail): ReadonlyMap<number, Spent<number>> =>
  new Map(
    tasks.flatMap(({ id, kind, state, taken, price, booked }) => {
      const facts = { kind, state, taken: readExact(taken) as Quantity, booked: readExact(booked) };
      const spent = spentOn({ ...facts, price: price === null ? null : (readExact(price) as Money) });
      return spent ? [[id, spent] as const] : [];
    }),
  );
