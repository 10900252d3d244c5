import type { ApartPlan } from '@yosegi/contract';
import { Refusal } from '@yosegi/core/refusal';
import type { Reader } from '../db/database.ts';
import { type RevisionRow, revisionInUse, revisionRow } from '../definitions/index.ts';
import type { ItemRow } from '../items/index.ts';
import { reworkSince } from './as-built.sql.ts';

/** The units of a product that are taken apart, as far as they are named. */
export interface Units {
  readonly lot: string | null;
  readonly serials: readonly string[];
  readonly buildId: number | null;
}

type MadeBy = ApartPlan['madeBy'][number] & { readonly revisionId: number };

/** The most builds to choose from. */
const MOST = 50;

/** The builds that made these units, the newest first; while no unit is named, the newest builds of the product. */
export async function buildsThatMade(db: Reader, itemId: number, units: Units): Promise<MadeBy[]> {
  return db.all<MadeBy>(
    `SELECT b.id AS buildId, b.number AS build, b.revision_id AS revisionId, r.number AS revision, max(d.at) AS at
     FROM finish f JOIN document d ON d.id = f.document_id JOIN build b ON b.id = f.build_id
     JOIN revision r ON r.id = b.revision_id JOIN definition n ON n.id = r.definition_id AND n.purpose = 'build'
     WHERE b.item_id = $1 AND NOT EXISTS (SELECT 1 FROM document u WHERE u.reverses_id = d.id)
       AND ($2 IS NULL AND $3 = '[]' OR EXISTS (SELECT 1 FROM movement o
         WHERE o.document_id = d.id AND o.item_id = $1 AND o.quantity > 0
           AND (o.lot_id IN (SELECT id FROM lot WHERE item_id = $1 AND code = $2)
             OR o.serial_id IN (SELECT id FROM serial WHERE item_id = $1 AND code IN (SELECT value FROM json_each($3))))))
     GROUP BY b.id ORDER BY max(d.id) DESC LIMIT ${MOST}`,
    [itemId, units.lot, JSON.stringify(units.serials)],
  );
}

/**
 * The revision that units were made from: that of the build that is named, else of the one that made the named lot or
 * serials; else the one in use, unless builds are known and none of them was made by it: then that of the newest of them.
 * @throws Refusal `no-definition-in-use`
 */
export async function revisionOfUnits(
  db: Reader,
  item: Pick<ItemRow, 'id' | 'name'>,
  units: Units,
): Promise<{ readonly revision: RevisionRow; readonly build: MadeBy | null; readonly madeBy: readonly MadeBy[] }> {
  const madeBy = await buildsThatMade(db, item.id, units);
  const isNamed = units.lot !== null || units.serials.length > 0;
  const named = madeBy.find(({ buildId }) => buildId === units.buildId);
  const build = named ?? (isNamed ? madeBy[0] : undefined) ?? null;
  const inUse = await revisionInUse(db, item.id);
  const [newest] = madeBy;
  const known = build ?? (newest && !madeBy.some(({ revisionId }) => revisionId === inUse?.id) ? newest : undefined);
  const revision = known ? await revisionRow(db, known.revisionId) : inUse;
  if (!revision) throw new Refusal('no-definition-in-use', { name: item.name }, 'itemId');
  return { revision, build, madeBy };
}

/**
 * Refuses to take units apart by a revision that they are known not to be made from.
 * @returns the build that made them, where it is known
 * @throws Refusal `not-made-by`, `made-differently` for serials of several revisions, `made-otherwise`, `reworked-since`
 */
export async function refuseOtherRevision(
  db: Reader,
  item: Pick<ItemRow, 'id' | 'name'>,
  units: Units,
  revisionId: number,
): Promise<MadeBy | null> {
  const { revision, build, madeBy } = await revisionOfUnits(db, item, units);
  if (units.buildId !== null && build?.buildId !== units.buildId)
    throw new Refusal('not-made-by', { name: item.name }, 'buildId');
  if (units.serials.length > 0 && new Set(madeBy.map((made) => made.revisionId)).size > 1)
    throw new Refusal('made-differently', { builds: madeBy.map((made) => made.build) }, 'serials');
  const since = units.buildId === null ? undefined : await reworkSince(db, item.id, units.serials);
  if (since) throw new Refusal('reworked-since', { code: since.code, rework: since.number }, 'buildId');
  if (build === null || revision.id === revisionId) return build;
  // A lot may hold what several builds made; which of them this is only a person can tell.
  if (units.buildId === null && units.serials.length === 0 && madeBy.some((made) => made.revisionId === revisionId))
    return build;
  throw new Refusal('made-otherwise', { build: build.build, revision: revision.number }, 'revisionId');
}
