import { dayNumber, dayOfNumber, workedOff } from '../days/index.ts';
import { groupBy } from '../lists/index.ts';
import { add, type Quantity, ZERO } from '../number/index.ts';

/** A build as the board places it: by whom and on which day it is taken up. */
export interface BoardBuild {
  readonly id: number;
  readonly personId: number | null;
  /** ISO day; null where nobody said and it is due on no day. */
  readonly day: string | null;
}

/** What is to be done on a build. */
export interface BoardTask {
  readonly id: number;
  readonly buildId: number;
  /** Of its own; null to go with its build. */
  readonly personId: number | null;
  readonly day: string | null;
  /** Minutes that it still takes, in millionths; none for what is done elsewhere. */
  readonly left: Quantity;
}

/** What one person does on one day of one build. */
export interface BoardCard {
  readonly buildId: number;
  readonly personId: number | null;
  readonly day: string | null;
  readonly taskIds: readonly number[];
  readonly left: Quantity;
  /** The build itself stands here, and moves with it. */
  readonly isWhole: boolean;
}

/**
 * Places builds and their open tasks: a task goes with its build unless it has a person or a day of its own. A build
 * stands where it is planned unless all its open tasks are elsewhere.
 */
export function placeWork(builds: readonly BoardBuild[], tasks: readonly BoardTask[]): BoardCard[] {
  const byBuild = groupBy(tasks, ({ buildId }) => buildId);
  return builds.flatMap((build) => {
    const own = byBuild.get(build.id) ?? [];
    const placed = groupBy(own, (task) => `${task.personId ?? build.personId ?? ''}|${task.day ?? build.day ?? ''}`);
    const home = `${build.personId ?? ''}|${build.day ?? ''}`;
    const all = own.length === 0 ? [[home, own] as const] : [...placed];
    return all.map(([key, here]): BoardCard => {
      const [person = '', day = ''] = key.split('|');
      return {
        buildId: build.id,
        personId: person === '' ? null : Number(person),
        day: day || null,
        taskIds: here.map(({ id }) => id),
        left: add(ZERO, ...here.map(({ left }) => left)),
        isWhole: key === home,
      };
    });
  });
}

/** The next working days from today on, today among them where it is one. */
export function daysAhead(today: string, workDays: ReadonlySet<number>, count: number): string[] {
  const days: string[] = [];
  for (let day = dayNumber(today); days.length < count; day += 1) {
    day = workedOff(day, 1, workDays);
    days.push(dayOfNumber(day));
  }
  return days;
}
