import { defineConfig } from '@playwright/test';

const address = process.env.BASTION_ADDRESS;
if (address === undefined)
  throw new Error('BASTION_ADDRESS is not set: run the journeys through `npm test`.');

export default defineConfig({
  testDir: '.',
  outputDir: '../.test/journeys',
  timeout: 120_000,
  expect: { timeout: 15_000 },
  workers: 1,
  reporter: [['list'], ['json', { outputFile: process.env.BASTION_REPORT ?? '../.test/journeys.json' }]],
  use: {
    baseURL: address,
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
