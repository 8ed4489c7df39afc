// Ten thousand outages of 72 h for `npm run bench`, beside a plain scalar C loop of the same steps on the same figures.
import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { Worker } from 'node:worker_threads';
import { root } from './run.mjs';

const NIGHTS = 10_000;
const MINUTES = NIGHTS * 72 * 60;
/** The largest share by which sums may differ that were added in the same order by two compilers. */
const SAME = 1e-9;
const DAY = 1440;
const SEASONS = 73;

const coreFile = (name) => pathToFileURL(join(root, 'core', 'dist', name)).href;

function subject(core, file) {
  const { value: design } = core.readDesignText(
    readFileSync(join(root, 'examples', file), 'utf8'),
    core.SAMPLE_TYPES,
  );
  const installation = core.compile(design, core.SAMPLE_TYPES);
  const plant = core.plantsOf(installation)[0].plant.value;
  return {
    plant,
    once: core.outageRun(plant, installation, { hours: 72 }),
    run: core.nightsRun(plant, installation, { nights: NIGHTS, pattern: core.typedPattern([72]) }),
  };
}

/** Everything that the C loop reads, in its order. */
function figuresOf({ plant, run }, { boardBits, strainBy, nightRun, spread }) {
  const bits = boardBits(plant);
  const engine = plant.generator;
  const figures = [
    ...[plant.fullWh, plant.idleW, plant.mostDischargeW, plant.mostChargeW, plant.floorSoc],
    ...[plant.efficiency[0], spread, run.generatorFromSoc, run.generatorToSoc],
    ...[engine?.targetW ?? 0, engine?.chargeW ?? 0, engine?.idleLPerH ?? 0, engine?.lPerKwh ?? 0],
    Math.min(engine?.fuelL ?? 0, 1e300),
    engine === undefined ? 0 : engine.warmUpMin + (engine.start === 'two-wire' ? 0 : run.handMinutes),
    ...[engine === undefined ? 0 : 1, plant.acStaysWithGenerator ? 1 : 0],
    ...[plant.boards.length, bits.everything, bits.withoutEngine, bits.stageSoc.length],
  ];
  bits.stageSoc.forEach((level, at) => figures.push(level, bits.stageBit[at]));
  for (let season = 0; season < SEASONS; season += 1)
    for (const sun of [plant.sunDcW, plant.sunAcW]) figures.push(...(sun[season] ?? new Float64Array(DAY)));
  for (let live = 0; live < 1 << plant.boards.length; live += 1) {
    const strain = strainBy(plant, 0, live, undefined);
    for (const column of [strain.loadW, strain.most, strain.withEngine, strain.engineW])
      figures.push(...column);
  }
  figures.push(NIGHTS);
  for (let night = 0; night < NIGHTS; night += 1) {
    const one = nightRun(run, night);
    figures.push(one.season, one.startMinute, one.minutes, one.chance.state, one.startSoc, one.loadFactor);
    figures.push(one.clearness.length, ...one.clearness);
  }
  return figures.join('\n');
}

/** The loop in C: its sums, and the shortest of some runs, ms. Undefined where there is no compiler. */
function inC(input) {
  const folder = mkdtempSync(join(tmpdir(), 'bastion-bench-'));
  try {
    const made = spawnSync('cc', [
      '-O2',
      '-o',
      join(folder, 'outage'),
      join(root, 'scripts', 'bench', 'outage.c'),
    ]);
    if (made.status !== 0) return undefined;
    const runs = [1, 2, 3].map(() => {
      const { stdout } = spawnSync(join(folder, 'outage'), { input, encoding: 'utf8' });
      return stdout.trim().split(' ').map(Number);
    });
    return { ms: Math.min(...runs.map(([ns]) => ns)) / 1e6, sums: runs[0].slice(1, 7) };
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

/** What the program comes to, night by night in the same order. */
function sumsOf(core, { plant, run }, nightRun) {
  const sums = [0, 0, 0, 0, 0, 0];
  for (let night = 0; night < NIGHTS; night += 1) {
    const { energy, litres, lowestSoc, lastedMinutes } = core.runOutage(plant, nightRun(run, night));
    [energy.served, energy.generator, energy.battery, litres, lowestSoc, lastedMinutes].forEach(
      (one, at) => (sums[at] += one),
    );
  }
  return sums;
}

function timed(work) {
  const from = performance.now();
  work();
  return performance.now() - from;
}

const HALF = `
const { parentPort, workerData } = require('node:worker_threads');
Promise.all([import(workerData.core), import('node:fs')]).then(([core, fs]) => {
  const { value: design } = core.readDesignText(fs.readFileSync(workerData.file, 'utf8'), core.SAMPLE_TYPES);
  const installation = core.compile(design, core.SAMPLE_TYPES);
  const plant = core.plantsOf(installation)[0].plant.value;
  const run = core.nightsRun(plant, installation, { nights: workerData.nights, pattern: core.typedPattern([72]) });
  core.playNights(plant, run, core.nightColumns(plant, 500), 0, 500);
  parentPort.on('message', ([from, to]) => {
    core.playNights(plant, run, core.nightColumns(plant, to - from), from, to, from);
    parentPort.postMessage('done');
  });
  parentPort.postMessage('ready');
});`;

/** All nights on two threads that wait ready, ms. */
async function onTwo(file) {
  const heard = (worker) => new Promise((resolve) => worker.once('message', resolve));
  const workers = [0, 1].map(
    () =>
      new Worker(HALF, {
        eval: true,
        workerData: { core: coreFile('index.js'), file: join(root, 'examples', file), nights: NIGHTS },
      }),
  );
  await Promise.all(workers.map(heard));
  const times = [];
  for (let time = 0; time < 3; time += 1) {
    const from = performance.now();
    const done = workers.map(heard);
    workers.forEach((worker, at) => worker.postMessage([(at * NIGHTS) / 2, ((at + 1) * NIGHTS) / 2]));
    await Promise.all(done);
    times.push(performance.now() - from);
  }
  await Promise.all(workers.map((worker) => worker.terminate()));
  return Math.min(...times);
}

async function report(core, file) {
  const [{ boardBits }, { strainBy }, { nightRun }, { QUARTER_SPREAD: spread }] = await Promise.all(
    [
      'rehearse/boardBits.js',
      'rehearse/strain.js',
      'rehearse/nights.js',
      'figures/loads/rehearsedLoad.js',
    ].map((name) => import(coreFile(name))),
  );
  const one = subject(core, file);
  const play = () => core.playNights(one.plant, one.run, core.nightColumns(one.plant, NIGHTS), 0, NIGHTS);
  const single = Math.min(...[1, 2, 3].map(() => timed(play)));
  const double = await onTwo(file);
  const plain = inC(figuresOf(one, { boardBits, strainBy, nightRun, spread }));
  const perMinute = (ms) => `${((1e6 * ms) / MINUTES).toFixed(1)} ns a minute`;
  const first = timed(() => core.runOutage(one.plant, one.once));
  const words = [
    `10,000 outages of 72 h, ${one.plant.name}: ${single.toFixed(0)} ms, ${perMinute(single)}; one outage ${first.toFixed(1)} ms`,
  ];
  if (plain === undefined) words.push('no C compiler here: without its baseline');
  else {
    const off = sumsOf(core, one, nightRun).map(
      (sum, at) => Math.abs(sum - plain.sums[at]) / Math.max(1, Math.abs(sum)),
    );
    if (Math.max(...off) > SAME)
      throw new Error(`The C loop plays something else: its sums are off by ${off.join(', ')}.`);
    words.push(
      `the same steps in C ${plain.ms.toFixed(0)} ms (${perMinute(plain.ms)}): ${(single / plain.ms).toFixed(2)} of it on one thread (at most 1.5), ${(double / plain.ms).toFixed(2)} on two (at most 0.8)`,
    );
  }
  console.log(words.join('; '));
}

export async function reportOutages(core) {
  for (const file of ['fernhollow.json', 'quillback.json', 'tern-rock.json']) await report(core, file);
}
