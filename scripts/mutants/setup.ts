import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { afterAll, expect, inject } from 'vitest';

/** What the instrumented sources share: the mutant that is awake, and which of them were met. */
interface Field {
  activeMutant?: string;
  mutantCoverage?: { static: Record<string, number>; perTest: Record<string, Record<string, number>> };
}

const { mutant, met } = inject('field' as never) as { mutant: string; met: string };
const global = globalThis as { __stryker__?: Field };
global.__stryker__ ??= {};
const field = global.__stryker__;
field.activeMutant = mutant;
// Threads and programs that a test starts look for it here.
process.env.__STRYKER_ACTIVE_MUTANT__ = mutant;
if (met !== '') {
  field.mutantCoverage ??= { static: {}, perTest: {} };
  const coverage = field.mutantCoverage;
  coverage.static = {};
  afterAll(() => {
    mkdirSync(met, { recursive: true });
    const path = expect.getState().testPath ?? '';
    writeFileSync(join(met, `${path.replaceAll('/', '~')}.json`), JSON.stringify(Object.keys(coverage.static)));
  });
}
