import { existsSync, statfsSync } from 'node:fs';
import { freemem } from 'node:os';
import { defineConfig } from 'vitest/config';

const GIB = 2 ** 30;
const MEMORY = '/dev/shm';

/** Whether what tests throw away has room in memory: hundreds of databases are copied, a thousand small files each, and as many browsers opened. */
function hasRoomInMemory(): boolean {
  if (!existsSync(MEMORY) || freemem() < 8 * GIB) return false;
  const { bavail, bsize } = statfsSync(MEMORY);
  return bavail * bsize >= 4 * GIB;
}

// What is measured beside a bare COPY stays on the disk, as people have it.
if (!process.env.EXTRA && !process.env.TMPDIR && hasRoomInMemory()) process.env.TMPDIR = MEMORY;

export default defineConfig({
  resolve: { tsconfigPaths: true },
  test: {
    setupFiles: ['reflect-metadata'],
    projects: [
      {
        extends: true,
        test: {
          name: 'unit',
          // What they share they only read: a fresh set of modules for every file would take longer than the tests.
          isolate: false,
          include: ['src/**/*.test.ts', 'practice/**/*.test.ts', 'bin/**/*.test.ts', 'tests/standards/**/*.test.ts'],
          // Laws are tried on many examples, and a machine may be busy with other things.
          testTimeout: 30_000,
        },
      },
      {
        extends: true,
        test: {
          name: 'database',
          isolate: false,
          include: ['tests/database/**/*.test.ts'],
          globalSetup: ['tests/database/setup.ts'],
          // One more than there are cores: partners that do not answer are waited for.
          maxWorkers: 3,
          sequence: { groupOrder: 1 },
          testTimeout: 60_000,
          hookTimeout: 60_000,
        },
      },
      {
        extends: true,
        test: {
          name: 'browser',
          isolate: false,
          include: ['tests/browser/**/*.test.ts'],
          globalSetup: ['tests/browser/setup.ts'],
          maxWorkers: 2,
          sequence: { groupOrder: 2 },
          // The program is started five times in one of them.
          testTimeout: 300_000,
          hookTimeout: 120_000,
        },
      },
      {
        extends: true,
        test: {
          name: 'attacks',
          isolate: false,
          include: ['tests/security/**/*.test.ts', 'tests/faults/**/*.test.ts'],
          globalSetup: ['tests/browser/setup.ts'],
          // They measure what is held up, and kill what runs: nothing else goes on beside them.
          maxWorkers: 1,
          sequence: { groupOrder: 3 },
          testTimeout: 60_000,
          hookTimeout: 120_000,
        },
      },
      // Not part of the tests: `npm run bench` and `npm run screenshots` ask for these by name.
      ...(process.env.EXTRA
        ? [
            { name: 'bench', include: ['tests/bench/**/*.bench.ts'] },
            { name: 'screenshots', include: ['tests/browser/screenshots.shots.ts'] },
          ].map((test) => ({
            extends: true as const,
            test: {
              ...test,
              globalSetup: ['tests/browser/setup.ts'],
              // As the program itself runs (`bin/support/app.ts`).
              execArgv: ['--max-semi-space-size=32', '--expose-gc'],
              testTimeout: 120_000,
              hookTimeout: 120_000,
            },
          }))
        : []),
    ],
  },
});
