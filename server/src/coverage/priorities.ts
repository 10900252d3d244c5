import { Refusal } from '@yosegi/core/refusal';
import type { BodyOf, Doing } from '../command/doing.ts';
import { isOrderOpen } from './sql.ts';

/**
 * Says who goes before all others, who waits until they have theirs, and who is in turn again.
 * @returns the same as it was before, to be sent back by whoever takes it back
 * @throws Refusal `unknown-line` for what is not open, `priority-changed` where it is not as the person saw it, each at its line
 */
export async function setPriorities({ tx, person, now, changed }: Doing, { lines }: BodyOf<'setPriorities'>) {
  const before: BodyOf<'setPriorities'>['lines'] = [];
  for (const [index, { kind, id, was, rank, reason }] of lines.entries()) {
    const source = kind === 'order' ? await tx.models.sales_order.findByPk(id) : await tx.models.build.findByPk(id);
    const isOpen =
      kind === 'order' ? await isOrderOpen(tx, id) : source?.state === 'planned' || source?.state === 'on-bench';
    // What is not open any more can still be put back in turn: it needs nothing.
    if (!source || (!isOpen && rank !== null)) throw new Refusal('unknown-line', {}, `lines.${index}.id`);
    const known = await tx.models.priority.findOne({ where: { kind, source_id: id } });
    if ((known?.rank ?? null) !== was) {
      const by = known ? await tx.models.person.findByPk(known.set_by) : null;
      throw new Refusal('priority-changed', { number: source.number, by: by?.name }, `lines.${index}.was`);
    }
    before.push({ kind, id, was: rank, rank: was, reason: known?.reason ?? '' });
    const set = { reason, set_at: now.toISOString(), set_by: person.id };
    if (rank === null) await known?.destroy();
    else if (known) await known.update({ rank, ...set });
    else await tx.models.priority.create({ kind, source_id: id, rank, ...set });
  }
  changed('orders', 'builds', 'stock');
  return { before };
}
