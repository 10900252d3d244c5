import type { Basis } from '@yosegi/core/definitions';
import { type Percent, type Quantity, ZERO } from '@yosegi/core/number';
import { asBuilt, expectedBack } from '@yosegi/core/takeapart';
import { found } from '../command/doing.ts';
import type { Reader } from '../db/database.ts';
import { balancedShares, type RevisionRow, revisionLines } from '../definitions/index.ts';
import { type ItemRow, itemRows } from '../items/index.ts';
import { type Built, builtAs } from './as-built.sql.ts';
import type { Units } from './made-by.sql.ts';

/** A line that comes back: so much of a part for so many units. */
export interface BackLine {
  readonly lineId: number;
  readonly part: ItemRow;
  readonly share: Percent;
  readonly basis: Basis;
  readonly quantity: Quantity;
  readonly output: Quantity;
}

export interface Back {
  readonly lines: readonly BackLine[];
  /** By what really went in; null for by what the revision says. */
  readonly built: Built | null;
}

/** What comes back of units: by what really went into them where that is known, else by their revision. */
export async function linesBack(
  db: Reader,
  itemId: number,
  revision: RevisionRow,
  units: Units,
  buildId: number | null,
): Promise<Back> {
  const built = await builtAs(db, itemId, units, buildId);
  return built ? { built, lines: await linesBuilt(db, built) } : { built, lines: await linesOf(db, revision) };
}

async function linesBuilt(db: Reader, built: Built): Promise<BackLine[]> {
  const lines = asBuilt(built.wentIn, built.tookOut, built.isReworked);
  const parts = await itemRows(
    db,
    lines.map(({ itemId }) => itemId),
  );
  return lines.map(({ lineId, itemId, weighed, used, output }) => ({
    lineId,
    part: found(parts.get(itemId)),
    share: weighed,
    basis: 'per-output',
    quantity: used,
    output,
  }));
}

async function linesOf(db: Reader, revision: RevisionRow): Promise<BackLine[]> {
  const lines = await revisionLines(db, revision.id);
  const parts = await itemRows(
    db,
    lines.flatMap((line) => line.item_id ?? []),
  );
  const shares = balancedShares(revision, lines, parts);
  return lines.flatMap((line, index) =>
    line.kind === 'part' && line.comes_back === 1
      ? [
          {
            lineId: line.id,
            part: found(parts.get(line.item_id ?? 0)),
            share: shares[index] ?? ZERO,
            basis: line.basis,
            quantity: line.amount as Quantity,
            output: revision.output_quantity,
          },
        ]
      : [],
  );
}

/** What should come back of a line when so many are taken apart. */
export const expectedOf = ({ basis, quantity, part, output }: BackLine, units: Quantity): Quantity =>
  expectedBack({ basis, quantity, decimals: part.decimals }, units, output);
