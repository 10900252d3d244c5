import { join } from 'node:path';
import { createVitest, type TestModule } from 'vitest/node';

/**
 * Runs test files of the mutated copy, asked by a message, in a process of its own: a mutant may never end.
 * `node bed-process.ts <folder of the copy> [together]`: with `together`, files share what they import.
 */
export interface Ask {
  /** The mutant that is awake; none when it is empty. */
  readonly mutant: string;
  /** Folder to write down in what each file meets; nothing is written when it is empty. */
  readonly met: string;
  /** Test files in the order they run, from the project's root. */
  readonly files: readonly string[];
}

export interface Answer {
  /** What went wrong outside of any test. */
  readonly faults: readonly string[];
  readonly files: readonly { readonly path: string; readonly passed: boolean; readonly seconds: number }[];
}

type Diagnostic = ReturnType<TestModule['diagnostic']>;

/** How long a file takes, with what it is prepared by. */
const secondsOf = (took: Diagnostic) =>
  (took.environmentSetupDuration + took.prepareDuration + took.collectDuration + took.setupDuration + took.duration) /
  1000;

const work = process.argv[2] ?? '';
process.chdir(work);
// As Vitest's own command line sets it; libraries ask for it.
process.env.NODE_ENV = 'test';
class InOrder {
  shard<Files>(files: Files): Files {
    return files;
  }
  sort<Files>(files: Files): Files {
    return files;
  }
}
const vitest = await createVitest('test', {
  root: process.cwd(),
  config: false,
  watch: false,
  include: ['**/*.test.{ts,tsx}'],
  setupFiles: ['./vitest.setup.ts', './scripts/mutants/setup.ts'],
  sequence: { sequencer: InOrder as never },
  env: { HISTORY_STEPS: '600', PAGE_PATIENCE: '8000' },
  isolate: process.argv[3] !== 'together',
  fileParallelism: false,
  maxWorkers: 1,
  testTimeout: 120_000,
  hookTimeout: 120_000,
  reporters: [{}],
  silent: true,
});
await vitest.standalone();
process.on('message', async ({ mutant, met, files }: Ask) => {
  // One that fails ends the run, unless it is asked what each of them meets.
  for (const project of vitest.projects) project.config.bail = met === '' ? 1 : 0;
  vitest.config.bail = met === '' ? 1 : 0;
  vitest.provide('field' as never, { mutant, met } as never);
  const specifications = files.flatMap((path) => vitest.getModuleSpecifications(join(process.cwd(), path)));
  // What it remembers of earlier runs would be answered again.
  vitest.state.filesMap.clear();
  const { testModules, unhandledErrors } = await vitest.runTestSpecifications(specifications);
  const answer: Answer = {
    faults: unhandledErrors.map((error) => (error instanceof Error ? error.message : 'an error outside of tests')),
    files: testModules.map((module) => ({
      path: module.relativeModuleId,
      passed: module.state() !== 'failed',
      seconds: secondsOf(module.diagnostic()),
    })),
  };
  process.send?.(answer);
});
process.on('disconnect', () => process.exit());
process.send?.('ready');
