import { readFileSync } from 'node:fs';
import { analyse, type Design, readDesignText, SAMPLE_TYPES, scheduleOf } from '@bastion/core';
import fc from 'fast-check';
import { expect, it } from 'vitest';

/** A sample job of the product, parsed anew: nothing is known of it yet. */
function sample(name: string): Design {
  const url = new URL(`../../examples/${name}.json`, import.meta.url);
  const read = readDesignText(readFileSync(url, 'utf8'), SAMPLE_TYPES);
  if (!read.ok) throw new Error(read.problems[0]?.message);
  return read.value;
}

/** The same with its circuits several times over: as many as are summed in chunks. */
function large(name: string): Design {
  const design = sample(name);
  const circuits = [0, 1, 2, 3, 4].flatMap((time) =>
    design.circuits.map((one) => ({ ...one, id: `${one.id}-${time}`, name: `${one.name} ${time}` })),
  );
  return { ...design, circuits };
}

type Change = (design: Design, pick: number) => Design;

type Circuit = Design['circuits'][number];

/** Changes one circuit. */
const ofOne =
  (change: (circuit: Circuit, pick: number) => Circuit): Change =>
  (design, pick) => ({
    ...design,
    circuits: design.circuits.map((one, at) =>
      at === (7 * pick) % design.circuits.length ? change(one, pick) : one,
    ),
  });

type Item = Circuit['items'][number];

/** Changes the items of one circuit. */
const ofItems = (change: (item: Item, pick: number) => Partial<Item>): Change =>
  ofOne((one, pick) => ({ ...one, items: one.items.map((item) => ({ ...item, ...change(item, pick) })) }));

const VOLTAGE: Change = (design, pick) => ({
  ...design,
  site: { ...design.site, lineVoltageV: 220 + (pick % 20) },
});

/** A long thin service: whether the grid opens the devices of circuits for certain hangs on it. */
const SERVICE: Change = (design, pick) => ({
  ...design,
  wiring: {
    ...design.wiring,
    cables: [
      { id: 's', lineId: 'grid supply to service-board bus', lengthM: 1 + 25 * (pick % 30), areaMm2: 6 },
    ],
  },
});

/** Changes as the pages make them: what they do not touch stays the same object. */
const CHANGES: readonly Change[] = [
  // The start of a motor by its plate follows the voltage.
  (design) => ({
    ...design,
    circuits: design.circuits.map((one) => ({
      ...one,
      items: one.items.map((item) => ({ ...item, lockedRotorA: 30 })),
    })),
  }),
  ofItems((item, pick) => ({ runningW: (item.runningW ?? 10) + pick })),
  ofItems((_, pick) => ({ runsFromH: pick % 24, runsToH: (pick + 7) % 24, hoursPerDay: 3 })),
  ofItems((_, pick) => ({ longestInterruptionMs: pick })),
  ofItems(() => ({ importance: 'must' })),
  ofItems((_, pick) => ({ startClass: pick % 2 === 0 ? 'deep-pump' : 'star-delta' })),
  ofItems((item, pick) => ({ quantity: (item.quantity ?? 1) + (pick % 3) })),
  ofOne((one, pick) => ({ ...one, startDelayS: pick })),
  ofOne((one, pick) => ({
    ...one,
    clampReadings: [
      {
        id: 'k',
        line: one.lines?.[0] ?? 'L1',
        currentA: pick,
        takenAt: '2026-01-01T00:00:00Z',
        by: 'A. Designer',
      },
    ],
  })),
  ofOne(({ lines: _, ...one }) => one),
  ofOne((one) => ({ ...one, items: [] })),
  (design, pick) => ({
    ...design,
    circuits: design.circuits.map((one, at) =>
      at === pick % design.circuits.length
        ? { ...one, partitionId: design.partitions[pick % design.partitions.length]?.id }
        : one,
    ),
  }),
  (design, pick) => ({
    ...design,
    circuits: design.circuits.filter((_, at) => at !== pick % design.circuits.length),
  }),
  VOLTAGE,
  SERVICE,
  ofOne(({ partitionId: _, ...one }) => one),
  (design, pick) => ({ ...design, site: { ...design.site, equipmentHighestC: 25 + (pick % 20) } }),
  (design) => ({
    ...design,
    stacks: design.stacks.map((one) =>
      one.units.length > 1 ? { ...one, units: one.units.slice(0, -1) } : one,
    ),
  }),
  (design) => ({ ...design, devices: design.devices.slice(1) }),
  (design, pick) => ({ ...design, site: { ...design.site, prospectiveFaultA: 2000 + 100 * pick } }),
  (design, pick) => ({
    ...design,
    wiring: { ...design.wiring, laying: { ambientC: 30 + (pick % 20), grouped: 2 } },
  }),
  (design, pick) => ({
    ...design,
    wiring: {
      ...design.wiring,
      cables: [
        {
          id: 'w',
          lineId: `circuit ${design.circuits[0]?.id ?? ''}`,
          grouped: 1 + (pick % 9),
          dropLimit: 0.04,
        },
      ],
    },
  }),
  (design, pick) => ({
    ...design,
    circuits: design.circuits.map((one, at) =>
      at === pick % design.circuits.length
        ? { ...one, cable: { areaMm2: 2.5, lengthM: 1 + pick }, device: { ratedA: 16 } }
        : one,
    ),
  }),
  (design, pick) => ({
    ...design,
    defaults: [{ id: 'dropOther', value: 0.01 + pick / 1000, reason: 'for this test' }],
  }),
  (design) => ({ ...design, earthPoints: [] }),
  // What a licensed person puts in place of a table.
  (design, pick) => ({
    ...design,
    tableValues: [
      {
        id: 'v',
        table: 'grouping',
        upTo: 1 + (pick % 4),
        value: 0.5,
        by: 'A. Approver',
        reason: 'for this test',
        at: '2026-01-01T00:00:00Z',
      },
    ],
  }),
  // Another cable into the first conduit.
  (design, pick) => ({
    ...design,
    wiring: {
      ...design.wiring,
      passages: design.wiring?.passages?.map((one, at) =>
        at === 0
          ? {
              ...one,
              lineIds: [
                ...one.lineIds,
                `circuit ${design.circuits[pick % design.circuits.length]?.id ?? ''}`,
              ],
            }
          : one,
      ),
    },
  }),
  (design, pick) => ({
    ...design,
    partitions: design.partitions.map((one, at) =>
      at === pick % design.partitions.length
        ? { ...one, neutralEarthLink: pick % 2 === 0 ? 'yes' : 'none' }
        : one,
    ),
  }),
];

it.each([
  { name: 'fernhollow', open: () => sample('fernhollow') },
  { name: 'tern-rock', open: () => sample('tern-rock') },
  { name: 'quillback', open: () => sample('quillback') },
  { name: 'fernhollow five times over', open: () => large('fernhollow') },
])(
  '$name: what is kept from before an edit is what is worked out anew after it, to the last bit',
  ({ open }) => {
    const change = fc.tuple(fc.nat({ max: CHANGES.length - 1 }), fc.nat({ max: 40 }));
    fc.assert(
      fc.property(fc.array(change, { minLength: 1, maxLength: 4 }), (steps) => {
        let design = open();
        analyse(design, SAMPLE_TYPES);
        for (const [which, pick] of steps) {
          design = CHANGES[which]?.(design, pick) ?? design;
          const kept = analyse(design, SAMPLE_TYPES);
          const anew = analyse(JSON.parse(JSON.stringify(design)) as Design, SAMPLE_TYPES);
          expect(JSON.stringify(kept.installation)).toBe(JSON.stringify(anew.installation));
          expect(JSON.stringify(kept.findings)).toBe(JSON.stringify(anew.findings));
          for (const kind of ['conductors', 'devices'] as const) {
            const rows = ({ installation }: typeof kept): string =>
              JSON.stringify(scheduleOf(kind, { design, catalogue: SAMPLE_TYPES, installation }).rows);
            expect(rows(kept)).toBe(rows(anew));
          }
        }
      }),
      // The first of the changes gives motors a plate: their start follows the voltage.
      {
        numRuns: 24,
        examples: [
          [
            [
              [0, 0],
              [CHANGES.indexOf(VOLTAGE), 5],
            ],
          ],
          [
            [
              [CHANGES.indexOf(SERVICE), 0],
              [CHANGES.indexOf(SERVICE), 29],
            ],
          ],
        ],
      },
    );
  },
);
