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
    include: [
      'core/src/**/*.test.ts',
      'cli/src/**/*.test.ts',
      'site-sim/src/**/*.test.ts',
      'server/src/**/*.test.ts',
      'web/src/**/*.test.ts',
      'trials/*.test.ts',
    ],
    testTimeout: 60_000,
    hookTimeout: 60_000,
  },
});
