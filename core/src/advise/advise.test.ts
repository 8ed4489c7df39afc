import { describe, expect, it } from 'vitest';
import { analyse } from '../checks/analyse.ts';
import { SAMPLE_TYPES } from '../catalogue/samples.ts';
import { applyEdits } from '../design/applyEdits.ts';
import { readDesign } from '../design/read.ts';
import type { Circuit, Design } from '../design/schema.ts';
import { procedureFor } from '../procedure/generate.ts';
import { addLoad, baseDesign, circuit1, deepFreeze, forget, item1, threePhase } from '../testkit/designs.ts';
import { advise } from './advise.ts';
import { figuresOf } from './figures.ts';
import type { Proposal } from './proposal.ts';
import { adviseScope, scopeOf } from './scope.ts';

function designOf(edit: (design: Design) => void): Design {
  const design = baseDesign();
  edit(design);
  return deepFreeze(design);
}

/** The design after a proposal, read again as if it had come from outside. */
function accepted(design: Design, proposal: Proposal | undefined, parts = proposal?.parts): Design {
  const applied = applyEdits(
    design,
    parts === proposal?.parts ? (proposal?.edits ?? []) : (parts ?? []).flatMap((part) => part.edits),
  );
  const read = applied.ok ? readDesign(applied.value, SAMPLE_TYPES) : applied;
  if (!read.ok) throw new Error(read.problems[0]?.message);
  return read.value;
}
const figures = (design: Design) => figuresOf(analyse(design, SAMPLE_TYPES));
const lineOf = (design: Design, id: string): Circuit['lines'] =>
  design.circuits.find((circuit) => circuit.id === id)?.lines;

describe('balance', () => {
  const lopsided = designOf((d) => {
    threePhase(d, [1, 1, 1]);
    for (const id of ['c2', 'c3']) addLoad(d, id, ['L1'], { runningW: 1000 });
    addLoad(d, 'c4', ['L1', 'L2', 'L3'], { runningW: 900 });
  });

  it('moves what it says, to what it says: 4600 W on L1 becomes 2600, 1300, 1300', () => {
    const { proposals } = advise('balance', lopsided, SAMPLE_TYPES);
    const best = proposals.at(-1);
    expect(best?.before.worstLineVa).toBeCloseTo(4600, 6);
    expect(best?.after.worstLineVa).toBeCloseTo(2600, 6);
    expect(figures(accepted(lopsided, best))).toEqual(best?.after);
    expect(best?.parts.every((part) => part.edits.length === 1)).toBe(true);
  });

  it('can be accepted in part, and leaves fixed and multi-pole circuits alone', () => {
    const fixed = designOf((d) => {
      Object.assign(d, JSON.parse(JSON.stringify(lopsided)));
      d.circuits.forEach((circuit) => circuit.id === 'c2' && (circuit.lineFixed = 'yes'));
    });
    const { proposals } = advise('balance', fixed, SAMPLE_TYPES);
    for (const proposal of proposals) {
      expect(proposal.parts.map((part) => part.id)).not.toContain('c2');
      expect(proposal.parts.map((part) => part.id)).not.toContain('c4');
    }
    const [best] = proposals.slice(-1);
    const half = accepted(fixed, best, best?.parts.slice(0, 1));
    expect(lineOf(half, best?.parts[0]?.id ?? '')).not.toEqual(['L1']);
  });

  it('moves what hangs between two lines: 3000 W and 3000 W on L1+L2 spread over the pairs', () => {
    const paired = designOf((d) => {
      threePhase(d, [1, 1, 1]);
      d.circuits = [];
      for (const id of ['c2', 'c3', 'c4']) addLoad(d, id, ['L1', 'L2'], { runningW: 3000 });
    });
    const best = advise('balance', paired, SAMPLE_TYPES).proposals.at(-1);
    // 3000 W at √3 · 230 V are 7.53 A. All on one pair: 3 · 7.53 A · 230 V in L1. One on each pair: √3 · 7.53 A · 230 V = 3000 VA.
    expect(best?.before.worstLineVa).toBeCloseTo((3 * 3000) / Math.sqrt(3), 6);
    expect(best?.after.worstLineVa).toBeCloseTo(3000, 6);
    expect(best?.notes.join(' ')).toContain('every one has been accounted for');
    expect(figures(accepted(paired, best))).toEqual(best?.after);
    const places = accepted(paired, best).circuits.map(({ lines }) => lines?.join('+'));
    expect(places.sort()).toEqual(['L1+L2', 'L1+L3', 'L2+L3']);
  });

  it('balances on the service what no stack carries, and leaves there what a stack carries', () => {
    const both = designOf((d) => {
      Object.assign(d, JSON.parse(JSON.stringify(lopsided)));
      d.circuits.forEach((circuit) => (circuit.partitionId = circuit.id === 'c1' ? 'b' : 'g'));
    });
    const service = advise('balance', both, SAMPLE_TYPES).proposals.filter(({ title }) =>
      title.startsWith('Service'),
    );
    const best = service.at(-1);
    expect(best?.parts.map(({ id }) => id).sort()).toEqual(['c2', 'c3']);
    // 2300 + 1000 + 1000 + 300 on L1 becomes 2300 + 300.
    expect(best?.notes.join(' ')).toContain('Most loaded line of the service on grid: 4.6 kVA to 2.6 kVA.');
  });

  it('says why there is nothing to propose', () => {
    expect(
      advise(
        'balance',
        designOf(() => undefined),
        SAMPLE_TYPES,
      ).notes[0],
    ).toContain('single-phase');
    expect(
      advise(
        'balance',
        designOf((d) => forget(d.site, 'supply')),
        SAMPLE_TYPES,
      ).notes[0],
    ).toContain('not known');
  });
});

describe('partition', () => {
  const crowded = designOf((d) => {
    item1(d).importance = 'should';
    for (const [id, importance, partitionId] of [
      ['c2', 'must', 'g'],
      ['c3', 'could', 'b'],
      ['c4', 'leave-off', 'b'],
    ] as const) {
      addLoad(d, id, ['L1'], { importance, hoursPerDay: 1 });
      d.circuits.forEach((circuit) => circuit.id === id && (circuit.partitionId = partitionId));
    }
    item1(d).hoursPerDay = 1;
  });

  it('takes what matters most that 5 kVA can carry, and names the limit that stops the next', () => {
    const [proposal] = advise('partition', crowded, SAMPLE_TYPES).proposals;
    const after = accepted(crowded, proposal);
    const carried = after.circuits
      .filter((circuit) => circuit.partitionId === 'b')
      .map((circuit) => circuit.id);
    // 2300 + 2300 W fit 5000; a third heater does not.
    expect(carried).toEqual(['c1', 'c2']);
    expect(proposal?.notes.join(' ')).toContain('c3 is stopped by');
    expect(figures(after).findings.over).toBeLessThanOrEqual(figures(crowded).findings.over);
  });

  it('leaves circuits alone whose importance nobody has said', () => {
    const open = designOf((d) => forget(item1(d), 'importance'));
    const advice = advise('partition', open, SAMPLE_TYPES);
    expect(advice.proposals).toEqual([]);
    expect(advice.notes.join(' ')).toContain('without importance');
  });
});

describe('stagger', () => {
  const pump = { runningW: 400, powerFactor: 0.5, startClass: 'deep-pump', importance: 'must' } as const;
  const failing = designOf((d) => {
    item1(d).runningW = 1000;
    for (const id of ['c2', 'c3', 'c4']) addLoad(d, id, ['L1'], pump);
  });
  const island = (design: Design, check: string) =>
    analyse(design, SAMPLE_TYPES).findings.find((one) => one.check === check && one.mode === 'island');

  it('mends a cold pickup that fails, with the margin, and the delays reach the islanding test', () => {
    expect(island(failing, 'surge.cold-pickup')?.state).toBe('over');
    const [proposal] = advise('stagger', failing, SAMPLE_TYPES).proposals;
    const after = accepted(failing, proposal);
    expect(island(after, 'surge.staggered')?.state).toBe('within');
    expect(island(after, 'surge.staggered')?.margin ?? 0).toBeGreaterThanOrEqual(0.1);
    expect(proposal?.after.pickupMargin ?? 0).toBeGreaterThan(proposal?.before.pickupMargin ?? 0);
    const step = procedureFor(after, SAMPLE_TYPES).steps.find((one) => one.id === 'pickup-s');
    expect(
      step?.readings.filter((reading) => reading.unit === 's').map((reading) => reading.nominal),
    ).toEqual(after.circuits.flatMap((circuit) => circuit.startDelayS ?? []).sort((a, b) => a - b));
  });

  it('says so when no delay helps: one start alone is too much', () => {
    const hopeless = designOf((d) => addLoad(d, 'c2', ['L1'], { ...pump, runningW: 4000 }));
    expect(advise('stagger', hopeless, SAMPLE_TYPES).notes.join(' ')).toContain('finds no moment');
  });

  it('asks for nothing where nothing starts', () => {
    expect(
      advise(
        'stagger',
        designOf(() => undefined),
        SAMPLE_TYPES,
      ).notes[0],
    ).toContain('no delay is needed');
  });
});

describe('whole building or a part of it', () => {
  const part = designOf((d) => {
    addLoad(d, 'c2', ['L1'], { importance: 'could' });
    circuit1(d).partitionId = 'g';
  });

  it('moves everything there or what matters less back, with what follows from it', () => {
    expect(scopeOf(part)).toBe('partial');
    const [whole] = adviseScope(part, SAMPLE_TYPES, 'whole').proposals;
    const after = accepted(part, whole);
    expect(scopeOf(after)).toBe('whole');
    expect(whole?.after.backedUpCircuits).toBe(2);
    const [back] = adviseScope(after, SAMPLE_TYPES, 'partial').proposals;
    expect(back?.parts.map((one) => one.id)).toEqual(['c2']);
  });

  it('says what is missing', () => {
    const none = designOf(
      (d) => void (d.partitions = [{ id: 'b', name: 'B', kind: 'backup', stackId: 's' }]),
    );
    expect(adviseScope(none, SAMPLE_TYPES, 'partial').notes[0]).toContain('no grid side');
    expect(adviseScope(none, SAMPLE_TYPES, 'whole').notes[0]).toContain('already');
  });
});
