import { defineConfig } from 'vitest/config';

export default defineConfig({
  resolve: { tsconfigPaths: true },
  test: {
    setupFiles: ['reflect-metadata'],
    projects: [
      {
        extends: true,
        test: {
          name: 'unit',
          include: ['src/**/*.test.ts', 'practice/**/*.test.ts', 'tests/standards/**/*.test.ts'],
        },
      },
      {
        extends: true,
        test: {
          name: 'database',
          include: ['tests/database/**/*.test.ts'],
          globalSetup: ['tests/database/setup.ts'],
          fileParallelism: false,
          testTimeout: 60_000,
          hookTimeout: 60_000,
        },
      },
      {
        extends: true,
        test: {
          name: 'browser',
          include: ['tests/browser/**/*.test.ts'],
          globalSetup: ['tests/browser/setup.ts'],
          fileParallelism: false,
          testTimeout: 90_000,
          hookTimeout: 120_000,
        },
      },
      ...(process.env.BENCH
        ? [
            {
              extends: true as const,
              test: {
                name: 'bench',
                include: ['tests/bench/**/*.bench.ts'],
                globalSetup: ['tests/browser/setup.ts'],
                testTimeout: 120_000,
                hookTimeout: 120_000,
              },
            },
          ]
        : []),
    ],
  },
});
