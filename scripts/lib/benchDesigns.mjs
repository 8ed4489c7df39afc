// Designs of any size for measuring.

/** A three-phase job of so many circuits with two items each, on six units. */
export function designOf(circuits) {
  const starts = ['steady', 'electronic', 'compressor', 'deep-pump', 'split-phase-motor', 'star-delta'];
  return {
    format: 4,
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
    controllers: [],
    startCases: [],
    meters: [],
    delivery: [],
    defaults: [],
    types: [],
  };
}
