import type { Topic, trackedRoutes } from '@yosegi/contract';
import { dayOf } from '@yosegi/core/days';
import { Refusal } from '@yosegi/core/refusal';
import { type LotAttributes, withAttributes } from '@yosegi/core/tracking';
import { type Doing, found, type HandlersOf, required } from '../command/doing.ts';
import type { Writer } from '../db/database.ts';
import { itemRow } from '../items/index.ts';
import { listLots, listSerials, passDays, stoppedBy } from './lots.sql.ts';
import { clashesOf, nextFree } from './sql.ts';
import { DAY_PASSED } from './tracked.ts';
import { listUnits, readUnit, unitCounts } from './units.sql.ts';

export const trackedHandlers: HandlersOf<typeof trackedRoutes> = {
  async checkSerials({ db, params, body }) {
    const item = found(await itemRow(db, params.id));
    const clashes = await clashesOf(db, item.id, body.codes);
    return {
      clashes: clashes
        .filter(({ inStock, inRepair, wasHere }) => inStock || inRepair || wasHere)
        .map(({ code, says }) => ({ code, says })),
      nextFree: await nextFree(db, item, body.count),
    };
  },
  lots: ({ db, query }) => listLots(db, query),
  serials: ({ db, params, query }) => listSerials(db, params.id, query),
  serialUnits: ({ db, query }) => listUnits(db, query),
  unitCounts: ({ db, query }) => unitCounts(db, query.itemId),
  serialUnit: ({ db, params }) => readUnit(db, params.id),
  describeLot: (command) => describeLot(command, command.params.id, command.body.attributes),
  hold: (command) => hold(command, command.body),
  release: (command) => release(command, command.body),
};

/** Writes something else down of a lot; what is typed empty is taken out. @throws Refusal `not-found`, `unknown-choice` */
async function describeLot(doing: Doing, id: number, typed: LotAttributes): Promise<{ id: number }> {
  const lot = required(await doing.tx.models.lot.findByPk(id));
  const item = found(await itemRow(doing.tx, lot.item_id));
  const names = JSON.parse(item.lot_fields) as string[];
  const kept = Object.entries(JSON.parse(lot.attributes) as LotAttributes).filter(([name]) => !(name in typed));
  const attributes = withAttributes(Object.fromEntries(kept), typed, names, 'attributes');
  await lot.update({ attributes: JSON.stringify(attributes) });
  doing.changed('stock', 'picks');
  return { id };
}

interface Chosen {
  readonly lotIds: readonly number[];
  readonly serialIds: readonly number[];
}

/** Keeps lots and serials from being used, wherever they stand, until an owner releases them. */
async function hold(doing: Doing, input: Chosen & { reasonId: number; remark: string }) {
  const { tx, person, now } = doing;
  const reason = await tx.models.reason.findOne({ where: { id: input.reasonId, used_for: 'hold' } });
  if (!reason) throw new Refusal('unknown-choice', {}, 'reasonId');
  const words = input.remark ? `${reason.name}: ${input.remark}` : reason.name;
  const held = await setHeld(doing, input, [words, now.toISOString(), person.id]);
  return { held, stops: await stoppedBy(tx, input) };
}

const release = async (doing: Doing, input: Chosen) => ({
  released: await setHeld(doing, input, [null, null, null]),
});

async function setHeld(
  { tx, changed }: Doing,
  { lotIds, serialIds }: Chosen,
  [held, held_at, held_by]: [string | null, string | null, number | null],
): Promise<number> {
  const values = { held, held_at, held_by };
  const [lots] = await tx.models.lot.update(values, { where: { id: [...lotIds] } });
  const [serials] = await tx.models.serial.update(values, { where: { id: [...serialIds] } });
  if (lots < new Set(lotIds).size || serials < new Set(serialIds).size) throw new Refusal('not-found');
  if (lots + serials === 0) throw new Refusal('not-found');
  changed('stock', 'items', 'builds', 'orders');
  return lots + serials;
}

/** Holds lots whose day has passed; one that an owner released after that stays released. @returns the topics it changed */
export async function holdPassed(tx: Writer, now: Date): Promise<readonly Topic[]> {
  const passed = await passDays(tx, DAY_PASSED, now.toISOString(), dayOf(now));
  return passed > 0 ? ['items', 'stock', 'builds', 'orders'] : [];
}
