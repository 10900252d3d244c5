import { relative } from 'node:path';
import fc from 'fast-check';
import { expect } from 'vitest';

const { REPLAY_SEED } = process.env;
fc.configureGlobal({
  // The sum at the end of a run prints messages and no causes: a property that failed says there what it failed by.
  includeErrorInReport: true,
  ...(REPLAY_SEED ? { seed: Number(REPLAY_SEED) } : {}),
  reporter: (run) => {
    if (!run.failed) return;
    const file = relative(process.cwd(), expect.getState().testPath ?? '');
    const again = `The same once more: npm run replay -- ${file} ${run.seed}`;
    throw new Error(`${fc.defaultReportMessage(run)}\n${again}`, { cause: run.errorInstance });
  },
});

// What is awaited on a page comes when the machine gets to it. Where most of it never comes, one asks not to wait so long.
if (typeof document !== 'undefined') {
  const { configure } = await import('@testing-library/dom');
  configure({ asyncUtilTimeout: Number(process.env.PAGE_PATIENCE ?? 60_000) });
}
