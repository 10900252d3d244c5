import type { Quantity } from '@yosegi/core/number';
import type { Writer } from '../db/database.ts';
import { type BuildLineRecord, type BuildRecord, openOf } from './store.ts';

/** What a posting changed on one line of a build. */
export interface LineChange {
  readonly onBench: number;
  readonly used: number;
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
        on_bench: line.on_bench + (change?.onBench ?? 0),
        used: line.used + (change?.used ?? 0),
      };
      const open: Quantity = openOf(build, after);
      return [line.id, after.on_bench, after.used, open];
    });
  await tx.run(
    `UPDATE build_line SET on_bench = v.value ->> 1, used = v.value ->> 2, open = v.value ->> 3
     FROM json_each($1) v WHERE build_line.id = v.value ->> 0`,
    [JSON.stringify(kept)],
  );
}
