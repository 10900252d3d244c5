import { defineConfig } from 'vitest/config';

// How fast the machine is must decide nothing: properties run hundreds of cases, and every server has a real file on a disk
// that others use too. What hangs is ended all the same.
const patience = { testTimeout: 240_000, hookTimeout: 240_000, setupFiles: ['./vitest.setup.ts'] };

const node = (name: string, include: string[]) => ({
  test: { name, include, environment: 'node' as const, ...patience },
});

export default defineConfig({
  test: {
    // Files know nothing of each other, and most of them wait for a server half of the time.
    maxWorkers: 2,
    projects: [
      node('unit', [
        'core/**/*.test.ts',
        'contract/**/*.test.ts',
        'web/src/**/*.test.{ts,tsx}',
        'devices/**/*.test.ts',
        'scripts/**/*.test.ts',
      ]),
      {
        // Reading the server's sources anew for every file would take a third of the time.
        test: {
          ...node('server', ['server/**/*.test.ts', 'demo/**/*.test.ts']).test,
          isolate: false,
        },
      },
      node('fuzz', ['fuzz/**/*.test.ts']),
    ],
  },
});
