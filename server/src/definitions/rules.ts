import { findCycle } from '@yosegi/core/definitions';
import { Refusal } from '@yosegi/core/refusal';
import type { Reader } from '../db/database.ts';
import { type ItemRow, itemRows } from '../items/index.ts';
import { linksBeside, packedAmong } from './around.sql.ts';
import type { RevisionRow } from './sql.ts';

interface PartOfLine {
  readonly item_id: number | null;
}

/**
 * What must hold of a definition's parts, whatever its revision's state.
 * @throws Refusal `contains-itself`, `part-is-packed`
 */
export async function refuseImpossibleParts(
  db: Reader,
  revision: Pick<RevisionRow, 'item_id' | 'purpose'>,
  rows: readonly PartOfLine[],
): Promise<void> {
  if (revision.purpose === 'build') await refuseCycle(db, revision.item_id, rows);
  if (revision.purpose === 'record') return;
  const packed = await packedAmong(
    db,
    rows.flatMap((row) => row.item_id ?? []),
  );
  if (!packed) return;
  const index = rows.findIndex((row) => row.item_id === packed.item_id);
  throw new Refusal('part-is-packed', { part: packed.code }, `lines.${index}.itemId`);
}

/** @throws Refusal `contains-itself` with the path by code when the product would be part of itself */
async function refuseCycle(db: Reader, productId: number, rows: readonly PartOfLine[]): Promise<void> {
  const links = await linksBeside(db, productId);
  const components = new Map<number, number[]>([[productId, rows.flatMap((row) => row.item_id ?? [])]]);
  for (const { item_id, part_id } of links) {
    const parts = components.get(item_id);
    if (parts) parts.push(part_id);
    else components.set(item_id, [part_id]);
  }
  const path = findCycle(productId, (id) => components.get(id) ?? []);
  if (!path) return;
  const names = await itemRows(db, path);
  const index = rows.findIndex((row) => row.item_id === path[1]);
  throw new Refusal('contains-itself', { path: path.map((id) => names.get(id)?.code ?? '') }, `lines.${index}.itemId`);
}

/** @throws Refusal `rework-without-itself`: a rework takes in the very thing that it gives back */
export function refuseEmptyRework(product: Pick<ItemRow, 'id'>, purpose: string, rows: readonly PartOfLine[]): void {
  if (purpose === 'rework' && !rows.some((row) => row.item_id === product.id))
    throw new Refusal('rework-without-itself');
}
