import { defineConfig } from 'vitest/config';

/**
 * The core's own tests alone, for letting mutants loose on it (`npm run mutants`), but for the one that takes half a minute:
 * thousands of mutants run what covers them, and what only that one notices has no test that says why.
 */
export default defineConfig({
  test: {
    include: ['core/src/**/*.test.ts'],
    exclude: ['core/src/stock/long.test.ts'],
    environment: 'node',
  },
});
