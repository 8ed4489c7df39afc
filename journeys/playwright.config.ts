import { defineConfig } from '@playwright/test';
import { z } from 'zod';

const servers = z
  .array(z.record(z.string(), z.string()))
  .min(1)
  .safeParse(JSON.parse(process.env.BASTION_SERVERS ?? '[]'));
if (!servers.success) throw new Error('BASTION_SERVERS is not set: run the journeys through `npm test`.');

// Each worker has servers of its own: what one journey leaves behind is in nobody else's way.
const mine = servers.data[Number(process.env.TEST_PARALLEL_INDEX ?? 0)] ?? {};
Object.assign(process.env, mine);

export default defineConfig({
  testDir: '.',
  outputDir: '../.test/journeys',
  timeout: 180_000,
  expect: { timeout: 20_000 },
  workers: servers.data.length,
  reporter: [['list'], ['json', { outputFile: process.env.BASTION_REPORT ?? '../.test/journeys.json' }]],
  use: {
    ...(mine.BASTION_ADDRESS === undefined ? {} : { baseURL: mine.BASTION_ADDRESS }),
    viewport: { width: 1280, height: 800 },
    trace: 'retain-on-failure',
    launchOptions: {
      executablePath: process.env.BASTION_BROWSER ?? '/usr/bin/chromium',
      args: [
        '--no-sandbox',
        '--disable-gpu',
        '--disable-background-networking',
        '--disable-quic',
        '--disable-component-update',
        '--disable-sync',
      ],
    },
  },
});
