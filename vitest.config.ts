import { defineConfig } from 'vitest/config';

const node = (name: string, include: string[]) => ({ test: { name, include, environment: 'node' as const } });

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
      ]),
      {
        // Each has a server and a real file of its own: a slow disk is no fault of theirs. Reading the server's sources
        // anew for every file would take a third of the time.
        test: {
          ...node('server', ['server/**/*.test.ts', 'demo/**/*.test.ts']).test,
          isolate: false,
          testTimeout: 60_000,
          hookTimeout: 60_000,
        },
      },
      node('fuzz', ['fuzz/**/*.test.ts']),
    ],
  },
});
