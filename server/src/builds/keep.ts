import { add, type Quantity, ZERO } from '@yosegi/core/number';
import type { Writer } from '../db/database.ts';
import { setLines } from './lines.sql.ts';
import { type BuildLineRecord, type BuildRecord, openOf } from './sql.ts';

/** What a posting changed on one line of a build. */
export interface LineChange {
  readonly onBench: Quantity;
  readonly used: Quantity;
}

/** Keeps each line's figures after its build or its parts have moved, and with them what the build has promised. */
export async function keepLines(
  tx: Writer,
  build: BuildRecord,
  lines: readonly BuildLineRecord[],
  changes: ReadonlyMap<number, LineChange> = new Map(),
): Promise<void> {
  const kept = lines
    .filter((line) => line.kind === 'part' || line.kind === 'labour')
    .map((line) => {
      const change = changes.get(line.id);
      const after = {
        ...line,
        on_bench: add(line.on_bench, change?.onBench ?? ZERO),
        used: add(line.used, change?.used ?? ZERO),
      };
      const open: Quantity = openOf(build, after);
      return [line.id, after.on_bench, after.used, open] as const;
    });
  await setLines(tx, kept);
}
