// `npm run screenshots`: makes the pictures of docs/screenshots/ from a fresh sample world.
import { mkdirSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { ensureBuilt } from './lib/build.mjs';
import { checkNode, ensureChromium, ensurePackages } from './lib/packages.mjs';
import { anyFreePort } from './lib/ports.mjs';
import { root } from './lib/run.mjs';
import { runMain } from './lib/sentence.mjs';

const DESK = { width: 1280, height: 800 };
const PHONE = { width: 390, height: 844 };

/** Takes the gates as done, and what is over as accepted in writing: later steps open only after that. */
const passGates = async (page) => {
  const [started] = await (await page.request.get('/api/jobs/1/runs')).json();
  const run = await (await page.request.get(`/api/runs/${started.id}`)).json();
  for (const step of run.procedure.steps.filter(({ section }) => section === 'gates'))
    for (const { id, kind, nominal, expected } of step.readings)
      await page.request.post(`/api/runs/${run.id}/readings`, {
        data: {
          stepId: step.id,
          readingId: id,
          attempt: 1,
          value: kind === 'confirmation' || id === 'limits-open' ? 1 : (nominal ?? expected?.low ?? 1),
          ...(id === 'limits-open' ? { note: 'Accepted in writing for this test' } : {}),
        },
      });
  await page.reload();
};

const startTest = async (page) => {
  await page.getByRole('button', { name: 'Start a run' }).click();
  await page.getByText(/Run \d+, running/).waitFor();
  await passGates(page);
  await page.getByRole('button', { name: /island with no load/ }).click();
  for (const [label, value] of [
    ['Transfer time', '9'],
    ['Voltage L1 to neutral', '229'],
    ['Voltage L2 to neutral', '247'],
  ]) {
    await page.getByLabel(label).fill(value);
    await page.getByLabel(label).press('Enter');
  }
  await page.getByText('Outside what is expected').waitFor();
};

const pickNeutral = async (page) => {
  await page
    .getByRole('row', { name: /^Generator by transfer switch/ })
    .getByRole('button', { name: 'floats' })
    .click();
  await page.getByRole('group', { name: /^Single line/ }).waitFor();
};
/** An empty job with a few circuits, at the step that sets up boards and stack. */
async function setUpHouse(page) {
  await page.getByLabel('Name of a new job').fill('Pebble House');
  await page.getByLabel('Supply and sizes').selectOption({ index: 1 });
  await page.getByRole('button', { name: 'Start empty' }).click();
  const stages = page.getByRole('navigation', { name: 'Stages' });
  await stages.getByRole('link', { name: /Loads/ }).click();
  await page.getByLabel('New circuit').click();
  for (const name of ['Fridge', 'Router', 'Lights', 'Gas boiler']) {
    await page.keyboard.type(name);
    await page.keyboard.press('Enter');
  }
  await stages.getByRole('link', { name: /Stack/ }).click();
  await page.getByLabel('Inverter type').selectOption('Sample hybrid 5 kVA single-phase');
  await page.getByLabel('Units').fill('2');
  await page.getByLabel('Battery type').selectOption('Sample 51.2 V 100 Ah rack module');
  await page.getByLabel('Modules').fill('4');
}

async function invite(page) {
  const form = page.getByRole('form', { name: 'Invite somebody' });
  await form.getByLabel('Name').fill('Rui Costa');
  await form.getByLabel('Email').fill('rui@demo.invalid');
  await form.getByRole('button', { name: 'Make the link' }).click();
  await page.getByRole('status', { name: 'One-time link' }).waitFor();
}

const openCable = async (page) => {
  await page.getByRole('searchbox', { name: 'Filter Conductors' }).fill('c');
  await page.getByRole('button', { name: 'Working of Car charger' }).click();
  await page.getByRole('tab', { name: 'Conductors' }).evaluate((tab) => tab.scrollIntoView());
  await page.getByRole('searchbox', { name: 'Filter Conductors' }).fill('car charger');
};

const playLong = async (page) => {
  await page.getByLabel('Lasts, h').fill('30');
  await page.getByText(/Dark after/).waitFor();
};

const takeVariant = async (page) => {
  await page.getByRole('button', { name: /^Variant/ }).click();
  await page.getByRole('menuitem', { name: 'Take a variant…' }).click();
  await page.getByLabel('Name of the variant').fill('Whole building');
  await page.getByRole('button', { name: 'Take the variant' }).click();
  await page.getByRole('button', { name: 'Variant: Whole building' }).waitFor();
  await page
    .getByRole('navigation', { name: 'Stages' })
    .getByRole('link', { name: /Partitions/ })
    .click();
  await page.getByRole('button', { name: 'Back up the whole building…' }).click();
  await page.getByRole('button', { name: 'Accept', exact: true }).click();
  await page.getByText('Saved', { exact: true }).waitFor();
  await page.getByRole('button', { name: 'Variant: Whole building' }).click();
  await page.getByRole('menuitem', { name: 'Compare side by side' }).click();
  await page.getByRole('columnheader', { name: 'Main' }).waitFor();
};

/** A site that has lost its grid and carries its loads, with a module that has aged. */
const runSite = async (page) => {
  await page.getByRole('button', { name: 'Open the site' }).click();
  await page.getByRole('button', { name: 'Bring everything up' }).click();
  await page.getByRole('switch', { name: /^Grid/ }).click();
  await page.getByLabel('Load bank on L1').fill('1800');
  await page.getByLabel('Load bank on L1').press('Enter');
  await page.getByLabel('What is wrong').selectOption({ label: 'A module has aged' });
  await page.getByLabel('Where').selectOption({ label: 'module 2' });
  await page.getByRole('button', { name: 'Plant it' }).click();
  await page.getByText('A module has aged: module 2').waitFor();
};

/** A made-up capture: the grid until 205 ms, nothing for 23 ms, then the inverter with a little overshoot and a load behind it. */
const openCapture = async (page) => {
  const rows = Array.from({ length: 6000 }, (_, at) => {
    const ms = at / 10;
    const wave = Math.SQRT2 * Math.sin((2 * Math.PI * 50 * ms) / 1000);
    const isLive = ms < 205 || ms >= 228;
    const volts = isLive ? 230 * (ms >= 228 && ms < 250 ? 1.08 : 1) * wave : 0;
    const amperes = isLive ? (ms < 205 ? 6 : 6 + 24 * Math.exp((228 - ms) / 90)) * wave : 0;
    return `${ms.toFixed(1)},${volts.toFixed(2)},${amperes.toFixed(3)}`;
  });
  await page.locator('input[accept*=cff]').setInputFiles({
    name: 'transfer.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from(`t [ms],Output (V),Output current (A)\n${rows.join('\n')}\n`),
  });
  await page.getByText('Gap without voltage').waitFor();
};

const VIEWS = [
  { name: 'jobs', path: '/' },
  { name: 'site', path: '/jobs/1/site' },
  { name: 'wall', path: '/jobs/1/site/wall' },
  { name: 'loads', path: '/jobs/1/loads' },
  { name: 'partitions', path: '/jobs/1/partitions' },
  { name: 'compare', path: '/jobs/1/compare', act: takeVariant },
  { name: 'stack', path: '/jobs/1/stack' },
  { name: 'wiring', path: '/jobs/2/wiring', act: pickNeutral },
  { name: 'schedules', path: '/jobs/1/wiring', act: openCable },
  { name: 'rehearse', path: '/jobs/3/rehearse', act: playLong },
  { name: 'capture', path: '/jobs/2/test/capture', act: openCapture },
  { name: 'simulated-site', path: '/jobs/2/test/site', act: runSite },
  { name: 'catalogue', path: '/catalogue/hybrid-5k-1ph' },
  { name: 'limits', path: '/jobs/1/limits' },
  { name: 'limits-dark', path: '/jobs/3/limits', theme: 'dark' },
  { name: 'set-up', path: '/', act: setUpHouse },
  { name: 'people', path: '/people', as: 'Noor', act: invite },
  { name: 'test', path: '/jobs/1/test', act: startTest },
  { name: 'test-phone', path: '/jobs/1/test?run=1', size: PHONE },
];

await runMain(async () => {
  checkNode();
  ensurePackages();
  const executablePath = ensureChromium();
  ensureBuilt();
  const { startDatabase } = await import('./lib/database.mjs');
  const { startServer } = await import('./lib/server.mjs');
  const { startSite } = await import('./lib/site.mjs');
  const { chromium } = await import('@playwright/test');
  const scratch = join(root, '.test', 'screenshots');
  rmSync(scratch, { recursive: true, force: true });
  const folder = join(root, 'docs', 'screenshots');
  mkdirSync(folder, { recursive: true });
  const database = await startDatabase(scratch);
  const site = await startSite({ port: await anyFreePort() });
  const server = await startServer({ port: await anyFreePort(), databaseUrl: database.url, env: site.env });
  const browser = await chromium.launch({
    executablePath,
    args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking', '--disable-quic'],
  });
  const page = await browser.newPage({ viewport: DESK, baseURL: server.address });
  await page.goto(server.address);
  await page.getByRole('button', { name: /Continue as Dana/ }).click();
  await page.getByRole('heading', { name: 'Jobs' }).waitFor();
  let now = 'Dana';
  for (const { name, path, theme = 'light', size = DESK, act, as = 'Dana' } of VIEWS) {
    if (as !== now) {
      await page.context().clearCookies();
      await page.goto(server.address);
      await page.getByRole('button', { name: new RegExp(`Continue as ${as}`) }).click();
      await page.getByRole('heading', { name: 'Jobs' }).waitFor();
      now = as;
    }
    await page.evaluate((wanted) => localStorage.setItem('bastion.theme', wanted), theme);
    await page.setViewportSize(size);
    await page.goto(server.address + path);
    await page.locator('main h2, main tbody tr').first().waitFor();
    await page.evaluate(() => document.fonts.ready);
    await act?.(page);
    // The last transition is over after this; nothing on these pages moves by itself.
    await page.waitForTimeout(400);
    await page.screenshot({ path: join(folder, `${name}.png`) });
  }
  await browser.close();
  await server.stop();
  await site.stop();
  await database.stop();
});
