import { Posting } from '@yosegi/core/ledger';
import { countedIn, ZERO } from '@yosegi/core/number';
import { Refusal } from '@yosegi/core/refusal';
import { buildLines, buildRecord, keepLines, planBuilds, startBuild } from '../builds/index.ts';
import { type BodyOf, type Doing, found } from '../command/doing.ts';
import { readStock, withNames, writeDocument } from '../ledger/index.ts';
import { benchBinOf } from '../places/index.ts';
import { spotsOf, worthOf, writeOutcomes } from './settle.ts';
import { piecesById } from './sql.ts';

/**
 * Opens a rework that refreshes what came back: the unit goes straight from the returns bin to its bench. The work begins
 * as far as the other parts are there; else it is planned, and waits for them with its unit.
 * @throws Refusal `not-found`, `cannot-refresh`, `more-than-waiting`
 */
export async function reworkReturn(doing: Doing, pieceId: number, input: BodyOf<'reworkReturn'>) {
  const { tx } = doing;
  const piece = found((await piecesById(tx, [pieceId]))[0]);
  if (piece.can_rework === 0) throw new Refusal('cannot-refresh', { name: piece.name });
  const quantity = countedIn(input.quantity, piece.decimals, 'quantity');
  const value = worthOf(piece, quantity, 'quantity');
  const plan = { itemId: piece.item_id, purpose: 'rework' as const, quantity, due: input.due, remark: '' };
  const build = found((await planBuilds(doing, [plan]))[0]);
  const lines = await buildLines(tx, build.id);
  const line = found(lines.find(({ kind, item_id }) => kind === 'part' && item_id === piece.item_id));
  const posting = new Posting(await readStock(tx, [piece.item_id]));
  const spot = found((await spotsOf(tx, piece.return_id))(piece));
  const bench = await benchBinOf(tx, spot.binId);
  const holder = { kind: 'build', id: build.id } as const;
  posting.takeOutAt(spot, quantity, value, line.id);
  posting.bringIn({ ...spot, binId: bench, holder }, quantity, value, line.id);
  const posted = await withNames(tx, () => posting.close());
  const subject = { kind: 'return', id: piece.return_id } as const;
  const start = { kind: 'return-settled', for: subject, remark: `Refreshed by ${build.number}` } as const;
  const document = await writeDocument(doing, start, posted);
  const outcome = { outcome: 'rework', bin_id: null, build_id: build.id, note: '' } as const;
  await writeOutcomes(doing, document.id, [{ position: 0, piece_id: pieceId, quantity, value, ...outcome }]);
  const planned = found(await buildRecord(tx, build.id));
  await keepLines(tx, planned, lines, new Map([[line.id, { onBench: quantity, used: ZERO }]]));
  try {
    await startBuild(doing, build.id, { version: planned.version });
  } catch (error) {
    if (!(error instanceof Refusal) || error.code !== 'parts-short') throw error;
  }
  return { buildId: build.id, build: build.number, documentId: document.id };
}
