// `npm run bench`: what the heavy parts cost, each beside a baseline taken in the same run.
import { rmSync } from 'node:fs';
import { join } from 'node:path';
import Papa from 'papaparse';
import { ensureBuilt } from './lib/build.mjs';
import { checkNode, ensureChromium, ensurePackages } from './lib/packages.mjs';
import { anyFreePort } from './lib/ports.mjs';
import { root } from './lib/run.mjs';
import { runMain } from './lib/sentence.mjs';

const ROUNDS = 25;
const median = (times) => [...times].sort((a, b) => a - b)[Math.floor(times.length / 2)];
function timed(work) {
  for (let warm = 0; warm < 5; warm += 1) work();
  return median(
    Array.from({ length: ROUNDS }, () => {
      const from = performance.now();
      work();
      return performance.now() - from;
    }),
  );
}

function timedOnce(work) {
  const from = performance.now();
  const value = work();
  return { value, ms: performance.now() - from };
}

/** A three-phase job of so many circuits with two items each, on six units. */
function designOf(circuits) {
  const starts = ['steady', 'electronic', 'compressor', 'deep-pump', 'split-phase-motor', 'star-delta'];
  return {
    format: 3,
    name: `${circuits} circuits`,
    site: {
      supply: 'three-phase',
      lineVoltageV: 230,
      frequencyHz: 50,
      serviceRatingA: 63,
      codeProfile: 'metric',
      equipmentLowestC: 5,
      equipmentHighestC: 35,
      highestC: 35,
      altitudeM: 100,
      targetAutonomyH: 4,
      maintenanceBypass: 'yes',
    },
    circuits: Array.from({ length: circuits }, (_, c) => ({
      id: `c${c}`,
      name: `Circuit ${c}`,
      lines: c % 7 === 0 ? ['L1', 'L2', 'L3'] : [`L${(c % 3) + 1}`],
      partitionId: c % 4 === 0 ? 'g' : 'b',
      items: [0, 1].map((i) => ({
        id: `i${c}-${i}`,
        name: `Item ${c}.${i}`,
        quantity: 1 + (c % 3),
        runningW: 5 + ((c * 37 + i * 11) % 90),
        powerFactor: 0.7 + ((c + i) % 30) / 100,
        startClass: starts[(c + i) % starts.length],
        demandFactor: 0.5,
        hoursPerDay: 6,
        importance: 'should',
        longestInterruptionMs: 1000,
      })),
    })),
    partitions: [
      { id: 'g', name: 'Grid', kind: 'grid' },
      { id: 'b', name: 'Backup', kind: 'backup', stackId: 's' },
    ],
    stacks: [
      {
        id: 's',
        name: 'Stack',
        inverterTypeId: 'hybrid-5k-1ph',
        arrangement: 'three-phase-from-single',
        units: [1, 2, 3, 4, 5, 6].map((n) => ({ id: `u${n}`, line: `L${Math.ceil(n / 2)}`, firmware: '1' })),
        chargeCurrentA: 50,
        gridChargeW: 1000,
        bank: {
          batteryTypeId: 'lfp-51v-100ah',
          modules: Array.from({ length: 8 }, (_, m) => ({ id: `m${m}` })),
          reserveSoc: 0.4,
          cutoffSoc: 0.1,
          breakerA: 400,
        },
      },
    ],
    generators: [
      { id: 'g1', name: 'Set', typeId: 'diesel-20k-3ph', connection: 'generator-port', stackId: 's' },
    ],
    arrays: [],
    startCases: [],
    meters: [],
    delivery: [],
    defaults: [],
    types: [],
  };
}

/** A balance problem of so many one-line circuits of uneven size. */
function balanceProblem(count) {
  const none = () => [0, 1, 2].map(() => ({ re: 0, im: 0 }));
  return {
    base: none(),
    baseHourly: Array.from({ length: 24 }, none),
    baseSurge: none(),
    weights: [1, 1, 1],
    loads: Array.from({ length: count }, (_, n) => {
      const re = 150 + ((n * 397) % 1900);
      const power = { re, im: re * (0.1 + (n % 5) / 12) };
      return {
        id: `c${n}`,
        line: n % 2,
        power,
        hourly: Array.from({ length: 24 }, (_, hour) => ((hour + n) % 3 === 0 ? { re: 0, im: 0 } : power)),
        surge: { re: 3 * re, im: re },
      };
    }),
  };
}

/** A year of quarter hours as a meter exports them. */
function yearOfReadings() {
  const rows = ['Time,Energy kWh'];
  for (let n = 0; n < 35_040; n += 1)
    rows.push(
      `${new Date(Date.UTC(2025, 0, 1) + n * 900_000).toISOString().slice(0, 16).replace('T', ' ')},${(0.2 + ((n * 7919) % 1000) / 800).toFixed(3)}`,
    );
  return rows.join('\n');
}

function reportChecks({ analyse, readDesign, SAMPLE_TYPES }) {
  console.log('circuits  findings  JSON.parse ms  compile+checks ms  ratio  ms per 1000 circuits');
  for (const circuits of [60, 600, 6000]) {
    const text = JSON.stringify(designOf(circuits));
    const read = readDesign(JSON.parse(text), SAMPLE_TYPES);
    if (!read.ok) throw new Error(read.problems[0].message);
    const parse = timed(() => JSON.parse(text));
    const work = timed(() => analyse(read.value, SAMPLE_TYPES));
    const { findings } = analyse(read.value, SAMPLE_TYPES);
    const cells = [
      circuits,
      findings.length,
      parse.toFixed(3),
      work.toFixed(3),
      (work / parse).toFixed(2),
      ((1000 * work) / circuits).toFixed(2),
    ];
    console.log(cells.map((cell, index) => String(cell).padStart([8, 8, 13, 17, 5, 20][index])).join('  '));
  }
}

async function reportBrowser() {
  const { startDatabase } = await import('./lib/database.mjs');
  const { startServer } = await import('./lib/server.mjs');
  const { chromium } = await import('@playwright/test');
  const scratch = join(root, '.test', 'bench');
  rmSync(scratch, { recursive: true, force: true });
  const database = await startDatabase(scratch);
  const server = await startServer({ port: await anyFreePort(), databaseUrl: database.url });
  const browser = await chromium.launch({
    executablePath: ensureChromium(),
    args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking', '--disable-quic'],
  });
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.goto(server.address);
  await page.getByRole('button', { name: /Continue as Dana/ }).click();
  await page.getByRole('heading', { name: 'Jobs' }).waitFor();
  const design = { ...designOf(300), name: 'Bench' };
  const made = await page.request.post(`${server.address}/api/jobs/import`, { data: design });
  const { id } = await made.json();

  // An empty frame beside each edit: what the browser takes for doing nothing.
  const measure = (script) => page.evaluate(script);
  await page.goto(`${server.address}/jobs/${id}/partitions`);
  await page.getByRole('complementary', { name: 'Headroom' }).waitFor();
  const edits = await measure(async () => {
    const frame = () => new Promise((resolve) => requestAnimationFrame(() => setTimeout(resolve, 0)));
    const times = [];
    const idle = [];
    const chips = [...document.querySelectorAll('[id^="chip-"]')].filter((one) =>
      / L[123], /.test(one.ariaLabel),
    );
    for (let n = 0; n < 24; n += 1) {
      const chip = document.getElementById(chips[n].id);
      chip.focus();
      const line = Number(/ L([123]), /.exec(chip.ariaLabel)[1]);
      await frame();
      let from = performance.now();
      await frame();
      idle.push(performance.now() - from);
      from = performance.now();
      chip.dispatchEvent(new KeyboardEvent('keydown', { key: String((line % 3) + 1), bubbles: true }));
      await frame();
      times.push(performance.now() - from);
      await new Promise((resolve) => setTimeout(resolve, 60));
    }
    return { times, idle };
  });
  console.log(
    `Edit to new strips, 300 circuits, Chromium: median ${median(edits.times).toFixed(1)} ms, worst ${Math.max(...edits.times).toFixed(1)} ms (an empty frame beside it: ${median(edits.idle).toFixed(1)} ms; wanted under 50)`,
  );

  await page.goto(`${server.address}/jobs/${id}/loads`);
  await page.getByRole('button', { name: 'Meter readings in' }).click();
  const dialog = page.getByRole('dialog');
  await dialog
    .getByLabel('Meter file')
    .setInputFiles({ name: 'year.csv', mimeType: 'text/csv', buffer: Buffer.from(yearOfReadings()) });
  await dialog.getByText('35040 readings').waitFor();
  const from = performance.now();
  await dialog.getByLabel('The time written is').selectOption('end');
  await dialog.getByText(/35040 readings/).waitFor();
  console.log(
    `Reading 35,040 rows again in the worker, Chromium: ${(performance.now() - from).toFixed(0)} ms`,
  );

  await page.goto(`${server.address}/jobs/1/partitions`);
  const asked = performance.now();
  await page.getByRole('button', { name: 'Balance the lines' }).click();
  await page.getByRole('table', { name: 'Most loaded line by number of moves' }).waitFor();
  console.log(
    `Balance of the Fernhollow sample in the worker, Chromium: ${(performance.now() - asked).toFixed(0)} ms`,
  );
  await browser.close();
  await server.stop();
  await database.stop();
}

await runMain(async () => {
  checkNode();
  ensurePackages();
  ensureBuilt();
  const core = await import('../core/dist/index.js');
  reportChecks(core);

  const problem = balanceProblem(24);
  const brute = timedOnce(() => core.balanceSearch(balanceProblem(10)));
  const balance = timedOnce(() => core.balanceSearch(problem));
  console.log(
    `Balance, 24 circuits on 3 lines, exact: ${balance.value.exact}: ${balance.ms.toFixed(0)} ms (10 circuits beside it: ${brute.ms.toFixed(1)} ms; wanted under 2000)`,
  );

  const text = yearOfReadings();
  const rows = Papa.parse(text).data;
  const columns = { time: 0, value: 1, unit: 'kWh', dateOrder: 'year-first', stamp: 'start' };
  const zone = () => 60;
  const parse = timedOnce(() => Papa.parse(text));
  const read = timedOnce(() => {
    const found = core.readIntervalRows(rows.slice(1), columns, zone, 2);
    return core.summariseIntervals(found.value, zone);
  });
  console.log(
    `A year of 15-minute readings: ${read.ms.toFixed(0)} ms to read and sum up, beside ${parse.ms.toFixed(0)} ms to split the CSV (wanted under 1000 together)`,
  );
  await reportBrowser();
});
