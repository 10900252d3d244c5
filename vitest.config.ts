import { defineConfig } from 'vitest/config';

const node = (name: string, include: string[]) => ({ test: { name, include, environment: 'node' as const } });

export default defineConfig({
  test: {
    projects: [
      node('unit', ['core/**/*.test.ts', 'contract/**/*.test.ts', 'web/src/**/*.test.ts', 'devices/**/*.test.ts']),
      node('server', ['server/**/*.test.ts', 'demo/**/*.test.ts']),
      node('fuzz', ['fuzz/**/*.test.ts']),
      {
        test: {
          ...node('e2e', ['e2e/**/*.test.ts']).test,
          testTimeout: 90_000,
          hookTimeout: 90_000,
          fileParallelism: false,
        },
      },
    ],
  },
});
