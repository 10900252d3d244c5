import type { Task } from '@yosegi/contract';
import { dayOf } from '@yosegi/core/days';
import { labourCost } from '@yosegi/core/definitions';
import { ZERO } from '@yosegi/core/number';
import { Refusal } from '@yosegi/core/refusal';
import { isOver } from '@yosegi/core/tasks';
import { refuseUnkept } from '../command/amounts.ts';
import { type BodyOf, type Doing, found, required } from '../command/doing.ts';
import type { Row } from '../db/models/index.ts';
import { requireActive } from '../db/people.ts';
import { updateVersioned } from '../db/versions.ts';
import { nextPosition, type TaskRecord, taskRecord, toTask } from './sql.ts';

type Change = BodyOf<'changeTasks'>['change'];

/**
 * Changes one task or many at once, all or none of them.
 * @throws Refusal `unknown-choice`, `task-over` where the build is over, `invalid` for skipping without a reason
 */
export async function changeTasks(doing: Doing, { tasks, change }: BodyOf<'changeTasks'>): Promise<{ tasks: Task[] }> {
  const { tx, now } = doing;
  const today = dayOf(now);
  await refuseUnknown(doing, change);
  for (const [index, { id, version }] of tasks.entries()) {
    const task = found(await taskRecord(tx, id));
    if (task.build_state !== 'planned' && task.build_state !== 'on-bench')
      throw new Refusal('task-over', {}, `tasks.${index}.id`);
    const values = valuesOf(doing, task, change);
    await updateVersioned(tx, 'task', id, version, values, async () => toTask(found(await taskRecord(tx, id)), today));
    if (values.state && isOver(values.state)) await tx.models.clock.destroy({ where: { task_id: id } });
  }
  doing.changed('builds');
  const after: Task[] = [];
  for (const { id } of tasks) after.push(toTask(found(await taskRecord(tx, id)), today));
  return { tasks: after };
}

async function refuseUnknown({ tx }: Doing, { personId, supplierId, state, because }: Change): Promise<void> {
  await requireActive(tx, personId, 'change.personId');
  if (supplierId && !(await tx.models.supplier.findByPk(supplierId)))
    throw new Refusal('unknown-choice', {}, 'change.supplierId');
  if (state === 'skipped' && because === undefined)
    throw new Refusal('invalid', { message: 'Enter why it is skipped.' }, 'change.because');
}

function valuesOf({ now, person }: Doing, task: TaskRecord, change: Change): Partial<Row<'task'>> {
  const { personId, due, state, because, price, supplierId, expectedOn } = change;
  const ended =
    state === 'done' ? { done_at: now.toISOString(), done_by: person.id } : { done_at: null, done_by: null };
  return {
    ...(personId === undefined ? {} : { person_id: personId }),
    ...(due === undefined ? {} : { due }),
    ...(price === undefined || task.kind !== 'charge' ? {} : { price }),
    ...(supplierId === undefined ? {} : { supplier_id: supplierId }),
    ...(expectedOn === undefined ? {} : { expected_on: expectedOn }),
    ...(state === undefined
      ? {}
      : { state, skipped_because: state === 'skipped' ? (because ?? null) : null, ...ended }),
  };
}

/** Adds a task to a build: a line of its own, which its finish books like the others. */
export async function addTask(doing: Doing, buildId: number, input: BodyOf<'addTask'>): Promise<Task> {
  const { tx, person } = doing;
  const build = required(await tx.models.build.findByPk(buildId));
  if (build.state !== 'planned' && build.state !== 'on-bench') throw new Refusal('task-over', {});
  await requireActive(tx, input.personId, 'personId');
  const rate = input.kind === 'labour' && input.rateId ? await tx.models.rate.findByPk(input.rateId) : null;
  if (input.kind === 'labour' && input.rateId && !rate) throw new Refusal('unknown-choice', {}, 'rateId');
  refuseUnkept(() => labourCost(input.amount, rate?.per_hour ?? ZERO), 'amount');
  const { id } = await tx.models.build_line.create({
    build_id: buildId,
    position: await nextPosition(tx, buildId),
    kind: input.kind,
    text: input.text,
    basis: 'per-run',
    amount: input.amount,
    rate_per_hour: input.kind === 'labour' ? (rate?.per_hour ?? ZERO) : null,
    added_by: person.id,
    added_because: input.because,
  });
  await tx.models.task.create({ id, person_id: input.personId, state: 'open' });
  doing.changed('builds');
  return toTask(found(await taskRecord(tx, id)), dayOf(doing.now));
}
