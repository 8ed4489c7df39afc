import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { SAMPLE_TYPES } from '../catalogue/samples.ts';
import type { Design } from '../design/schema.ts';
import { baseDesign, heater } from '../testkit/designs.ts';
import { SOUND, soundDesign } from '../testkit/sound.ts';
import { analyse } from './analyse.ts';
import { causesOf } from './causes.ts';
import { compareFindings, subjectKey } from './finding.ts';
import { sentenceOf } from './sentence.ts';

function withOpen(edit: (design: Design) => void): ReturnType<typeof analyse> {
  const design = baseDesign();
  edit(design);
  return analyse(design, SAMPLE_TYPES);
}

const stateOf = (analysis: ReturnType<typeof analyse>, check: string, mode = 'island'): string | undefined =>
  analysis.findings.find((one) => one.check === check && one.mode === mode)?.state;

const open = (design: Design, runningW: number | undefined): void => {
  design.circuits.push({
    id: 'c2',
    name: 'Oven',
    lines: ['L1'],
    items: [heater('i2', runningW === undefined ? {} : { runningW })],
  });
  if (runningW === undefined) delete design.circuits[1]?.items[0]?.runningW;
};

describe('a circuit without a place', () => {
  it.each([
    // 2300 W stand on the output; 5000 W are allowed.
    ['of 200 W leaves 2500 of 5000 W within', 200, 'within'],
    ['of 2600 W leaves 4900 W close, and close is no failure', 2600, 'within'],
    ['of 2800 W would make 5100 W: it is not known', 2800, 'unknown'],
    ['of unknown power may be anything', undefined, 'unknown'],
  ] as const)('%s', (_, runningW, state) => {
    expect(
      stateOf(
        withOpen((d) => open(d, runningW)),
        'load.power',
      ),
    ).toBe(state);
  });

  it('is one question, told with its name', () => {
    const analysis = withOpen((d) => open(d, 2800));
    const held = analysis.findings.filter((one) =>
      one.missing.some((path) => path.join('/') === 'circuits/c2/partitionId'),
    );
    expect(held.length).toBeGreaterThan(3);
    const asked = causesOf(analysis.installation, analysis.findings).filter(({ findings }) =>
      findings.some((one) => held.includes(one)),
    );
    expect(asked.map(({ title }) => title)).toEqual(['Partition of Oven is not known']);
    const power = held.find(({ check }) => check === 'load.power');
    expect(power?.value).toBe(2300);
    expect(power === undefined ? '' : sentenceOf(analysis.installation, power)).toContain(
      'partition of Oven',
    );
  });

  it('stands among the findings where what is not known stands', () => {
    const { findings } = withOpen((d) => open(d, 2800));
    expect(findings).toEqual([...findings].sort(compareFindings));
  });

  it('changes nothing that does not depend on loads', () => {
    const kept = ({ findings }: ReturnType<typeof analyse>): unknown =>
      findings.filter(({ check }) =>
        /^(?:bonding|place|wiring\.bus|stack\.(?:arrangement|settings))/.test(check),
      );
    expect(kept(withOpen((d) => open(d, 20_000)))).toEqual(kept(withOpen(() => undefined)));
  });

  it('that starts hard asks about a start where none was to look at', () => {
    const withPump = (place: Partial<Design['circuits'][number]>): string | undefined =>
      stateOf(
        withOpen((d) => {
          open(d, 4000);
          Object.assign(d.circuits[1] ?? {}, place);
          Object.assign(d.circuits[1]?.items[0] ?? {}, { startClass: 'deep-pump', powerFactor: 0.7 });
        }),
        'surge.largest-start',
      );
    expect([withPump({ partitionId: 'b' }), withPump({}), withPump({ partitionId: 'g' })]).toEqual([
      'over',
      'unknown',
      undefined,
    ]);
  });

  it('on a line that had nothing to look at is a question there too', () => {
    const threeLines = (place: Partial<Design['circuits'][number]>): ReturnType<typeof analyse> => {
      const design = baseDesign();
      design.site.supply = 'three-phase';
      Object.assign(design.stacks[0]?.units[0] ?? {}, { line: 'L1' });
      design.circuits.push({ id: 'c2', name: 'Oven', lines: ['L2'], items: [heater('i2')], ...place });
      return analyse(design, SAMPLE_TYPES);
    };
    expect(stateOf(threeLines({ partitionId: 'b' }), 'load.dark-line')).toBe('over');
    expect(stateOf(threeLines({}), 'load.dark-line')).toBe('unknown');
    expect(stateOf(threeLines({ partitionId: 'g' }), 'load.dark-line')).not.toBe('unknown');
  });
});

describe('a set that has no board yet', () => {
  const bare = (runningW: number) =>
    withOpen((d) => {
      d.partitions = [];
      const [circuit] = d.circuits;
      if (circuit !== undefined) delete circuit.partitionId;
      Object.assign(circuit?.items[0] ?? {}, { runningW });
    });

  it('does not pass a load of nothing while circuits may come to it', () => {
    expect(stateOf(bare(2300), 'load.power')).toBe('within');
    expect(stateOf(bare(9000), 'load.power')).toBe('unknown');
    expect(stateOf(bare(9000), 'bank.autonomy')).toBe('unknown');
  });

  it('is asked nothing about a board that nobody has planned', () => {
    const subjects = (analysis: ReturnType<typeof analyse>) =>
      new Set(analysis.findings.map(({ check, subject }) => `${check} ${subjectKey(subject)}`));
    expect(subjects(bare(9000))).toEqual(subjects(bare(1)));
  });
});

describe('a partition behind a set that none feeds', () => {
  it.each(['backup', 'shed', 'locked-out'] as const)('%s: what hangs on it may come to the set', (kind) => {
    const analysis = withOpen((d) => {
      open(d, 13_000);
      d.partitions.push({ id: 'p', name: 'Kitchen', kind });
      Object.assign(d.circuits[1] ?? {}, { partitionId: 'p' });
    });
    // Locked out in island, it still draws through the set while the grid is there: 15.3 kW of 60 A · 230 V.
    expect(
      kind === 'locked-out'
        ? stateOf(analysis, 'grid.pass-through', 'on-grid')
        : stateOf(analysis, 'load.power'),
    ).toBe('unknown');
  });
});

/**
 * The law behind it: a limit that a design passes while some circuits have no place is passed wherever on one output they all are put.
 */
describe.each(SOUND.map((spec) => [spec.name, spec] as const))('%s with circuits taken off', (_, spec) => {
  it('passes nothing that it would not pass with them', () => {
    fc.assert(
      fc.property(fc.infiniteStream(fc.boolean()), fc.constantFrom(1, 3), (coin, times) => {
        const placed = soundDesign(spec);
        for (const { items } of placed.circuits)
          for (const one of items) one.runningW = (one.runningW ?? 0) * times;
        const outputs = new Set(
          placed.partitions.filter(({ kind }) => kind === 'backup').map(({ id }) => id),
        );
        if (outputs.size > 1) return;
        const some: Design = {
          ...placed,
          circuits: placed.circuits.map(({ partitionId, ...rest }) =>
            outputs.has(partitionId ?? '') && coin.next().value ? rest : { ...rest, partitionId },
          ),
        };
        const there = new Map(
          analyse(placed, SAMPLE_TYPES).findings.map((one) => [
            `${one.check} ${one.mode} ${subjectKey(one.subject)}`,
            one,
          ]),
        );
        for (const { check, mode, subject, state } of analyse(some, SAMPLE_TYPES).findings) {
          if (state !== 'within' && state !== 'tight') continue;
          expect(there.get(`${check} ${mode} ${subjectKey(subject)}`)?.state ?? state).not.toBe('over');
        }
      }),
      { numRuns: 6, seed: 5 },
    );
  });
});
