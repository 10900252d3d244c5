import { defineConfig } from 'vitest/config';

/**
 * The core's own tests alone, for letting mutants loose on it (`npm run mutants`). Thousands of mutants run what covers
 * them, so the long history is a short one here.
 */
export default defineConfig({
  test: {
    include: ['core/src/**/*.test.ts'],
    env: { HISTORY_STEPS: '600' },
    environment: 'node',
  },
});
