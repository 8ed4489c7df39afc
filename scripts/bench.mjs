// `npm run bench`: compile and all checks in all modes, as a ratio to JSON.parse of the same document in the same run.
import { ensureBuilt } from './lib/build.mjs';
import { checkNode, ensurePackages } from './lib/packages.mjs';
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

/** A three-phase job of so many circuits with two items each, on six units. */
function designOf(circuits) {
  const starts = ['steady', 'electronic', 'compressor', 'deep-pump', 'split-phase-motor', 'star-delta'];
  return {
    format: 1,
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
    defaults: [],
    types: [],
  };
}

await runMain(async () => {
  checkNode();
  ensurePackages();
  ensureBuilt();
  const { analyse, readDesign, SAMPLE_TYPES } = await import('../core/dist/index.js');
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
});
