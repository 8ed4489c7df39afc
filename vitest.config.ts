import { defineConfig } from 'vitest/config';

export default defineConfig({
  resolve: {
    alias: [
      {
        find: /^@bastion\/core\/testkit$/,
        replacement: new URL('./core/src/testkit/index.ts', import.meta.url).pathname,
      },
      {
        find: /^@bastion\/core\/dxf$/,
        replacement: new URL('./core/src/formats/dxf.ts', import.meta.url).pathname,
      },
      { find: /^@bastion\/core$/, replacement: new URL('./core/src/index.ts', import.meta.url).pathname },
    ],
  },
  test: {
    testTimeout: 60_000,
    hookTimeout: 60_000,
    maxWorkers: 2,
    projects: [
      {
        extends: true,
        test: {
          name: 'pure',
          include: ['core/src/**/*.test.ts'],
          // Nothing in the core remembers what would change an answer: its files share what they load.
          isolate: false,
        },
      },
      {
        extends: true,
        test: {
          name: 'running',
          include: [
            'cli/src/**/*.test.ts',
            'site-sim/src/**/*.test.ts',
            'server/src/**/*.test.ts',
            'web/src/**/*.test.ts',
          ],
        },
      },
      {
        extends: true,
        test: {
          name: 'trials',
          include: ['trials/*.test.ts'],
          // They load the machine, and ask who has to wait meanwhile: nothing else runs beside them.
          maxWorkers: 1,
          sequence: { groupOrder: 1 },
        },
      },
    ],
  },
});
