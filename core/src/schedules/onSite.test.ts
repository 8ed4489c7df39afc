import { describe, expect, it } from 'vitest';
import { SAMPLE_TYPES } from '../catalogue/samples.ts';
import { analyse } from '../checks/analyse.ts';
import { figuresToAccept } from '../checks/accepted.ts';
import { coreOfPin } from '../codes/pairColours.ts';
import { applyEdits } from '../design/applyEdits.ts';
import { invertEdits } from '../design/edits.ts';
import { readDesign } from '../design/read.ts';
import type { Design } from '../design/schema.ts';
import { compile } from '../installation/compile.ts';
import { baseDesign, bank1, circuit1, stack1 } from '../testkit/designs.ts';
import { closedLoop, withMeters, withStrings } from '../testkit/wired.ts';
import { asBuiltEdits, asBuiltId, asBuiltSchedule } from './asBuilt.ts';
import { commsSchedule, linkTickId } from './comms.ts';
import { conductorSchedule } from './conductors.ts';
import { isAsWanted } from './readBack.ts';
import { settingId, settingSchedule } from './settings.ts';

describe('what a display shows against what is wanted', () => {
  it.each([
    ['230 V', '230', true],
    ['230 V', '230.0 v', true],
    ['230 V', '229', false],
    ['50 Hz', '50 V', false],
    ['0,5 %', '0.5', true],
    [6, '6', true],
    ['on, line L1', 'On,  line L1', true],
    ['on', 'off', false],
    ['-5 °C', '−5', true],
  ])('%s read as %s: %s', (wanted, read, is) => expect(isAsWanted(wanted, read)).toBe(is));
});

describe('cores of network cables', () => {
  it.each([
    ['A', '1', 'white-green'],
    ['A', '6', 'orange'],
    ['B', '1', 'white-orange'],
    ['B', '6', 'green'],
    ['B', '4', 'blue'],
    ['B', '8', 'brown'],
    ['B', 'A', undefined],
    ['B', '9', undefined],
  ] as const)('order %s, pin %s: %s', (order, pin, core) => expect(coreOfPin(order, pin)).toBe(core));
});

const tick = (id: string, read: string) => ({ id, read, state: 'ready' as const, by: 'Femi' });
const rowOf = <R extends { readonly id: string }>(rows: readonly R[], id: string): R => {
  const row = rows.find((one) => one.id === id);
  if (row === undefined) throw new Error(`There is no row "${id}".`);
  return row;
};

describe('read on site', () => {
  it('judges a setting by what is read back, before what the survey said', () => {
    const design = baseDesign();
    Object.assign(stack1(design).units[0] ?? {}, { frequencyHz: 50 });
    const id = 's/u1 frequency';
    const states = [undefined, '50', '60 Hz'].map((read) => {
      const ticks = read === undefined ? [] : [tick(settingId(id), read)];
      return rowOf(settingSchedule(compile(design, SAMPLE_TYPES), ticks).rows, id).state;
    });
    expect(states).toEqual(['within', 'within', 'over']);
  });

  it('judges the idle voltage of a pair by the window of the type', () => {
    const design = baseDesign();
    closedLoop(design);
    const id = 'battery-bus s l1';
    const states = ['4.2 V', '3,2', 'none'].map(
      (read) =>
        rowOf(commsSchedule(compile(design, SAMPLE_TYPES), [tick(linkTickId(id), read)]).rows, id).state,
    );
    expect(states).toEqual(['within', 'over', undefined]);
  });

  it('tells where two cables share one terminal, and where a straight cable does not do', () => {
    const design = baseDesign();
    withMeters(design);
    bank1(design).batteryTypeId = 'lfp-51v-280ah';
    closedLoop(design);
    for (const link of bank1(design).comms?.links ?? [])
      Object.assign(link, { toPort: 'IN', fromPort: link.from === 'host' ? 'BAT' : 'OUT' });
    const { rows } = commsSchedule(compile(design, SAMPLE_TYPES));
    expect(rowOf(rows, 'controller c – meter c/m1').cells.note).toMatch(
      /crimp their cores together.*at most 200 m/,
    );
    expect(rowOf(rows, 'battery-bus s l1').cells.note).toMatch(/\+ and − lie crosswise/);
    expect(rowOf(rows, 'battery-bus s l2').cells.note).not.toMatch(/crosswise/);
  });
});

describe('as built', () => {
  /** Three metres to one module instead of one, 4 mm² to the heater instead of 2.5, and a serial nobody had. */
  function built(): { readonly design: Design; readonly delivery: Design['delivery'] } {
    const design = baseDesign();
    withStrings(design, 9);
    circuit1(design).cable = { lengthM: 12, areaMm2: 2.5 };
    const delivery = [
      tick(asBuiltId('bank s lead of module 2 length'), '3 m'),
      tick(asBuiltId('bank s lead of module 2 size'), '35'),
      tick(asBuiltId('circuit c1 size'), '4'),
      tick(asBuiltId('circuit c1 length'), '12.0'),
      tick(asBuiltId('unit s/u1 serial'), 'SN 77'),
      tick(asBuiltId('string a/p polarity'), 'reversed'),
    ];
    return { design, delivery };
  }

  it('judges each figure against the design', () => {
    const { design, delivery } = built();
    const { rows } = asBuiltSchedule(compile(design, SAMPLE_TYPES), delivery);
    expect(
      ['bank s lead of module 2 length', 'circuit c1 length', 'unit s/u1 serial', 'string a/p polarity'].map(
        (id) => rowOf(rows, id).state,
      ),
    ).toEqual(['tight', 'within', 'within', 'over']);
    expect(rowOf(rows, 'bank s lead of module 2 length').cells.verdict).toBe('differs from the design');
    expect(rowOf(rows, 'circuit c1 size').cells.verdict).toBe('differs from the design: taken as 4 mm²');
  });

  it('makes edits that touch the one that differs and leave its fellows', () => {
    const { design, delivery } = built();
    const edits = asBuiltEdits(compile(design, SAMPLE_TYPES), delivery);
    const applied = applyEdits(design, edits);
    const read = applied.ok ? readDesign(applied.value, SAMPLE_TYPES) : applied;
    if (!read.ok) throw new Error(read.problems[0]?.message);
    expect(bank1(read.value).lead).toEqual({ lengthM: 1, areaMm2: 50 });
    expect(bank1(read.value).modules.map(({ lead }) => lead)).toEqual([
      undefined,
      { lengthM: 3, areaMm2: 35 },
      undefined,
      undefined,
    ]);
    expect(circuit1(read.value).cable).toEqual({ lengthM: 12, areaMm2: 4 });
    expect(stack1(read.value).units[0]?.serial).toBe('SN 77');
    // Taken back, the design is what it was.
    const back = applyEdits(read.value, invertEdits(edits));
    expect(back.ok && back.value).toEqual(JSON.parse(JSON.stringify(design)));
    // With them there is nothing left that differs.
    expect(asBuiltEdits(compile(read.value, SAMPLE_TYPES), delivery)).toEqual([]);
  });
});

describe('what a licensed person has overridden', () => {
  it('is marked on its cable for as long as its figures are no worse', () => {
    const design = baseDesign();
    // 20 m of 1.5 mm² for 10 A, clipped direct: the breaker of 32 A is above what it carries.
    circuit1(design).cable = { lengthM: 20, areaMm2: 1.5 };
    circuit1(design).device = { ratedA: 32, curve: 'B' };
    const analysis = analyse(design, SAMPLE_TYPES);
    const finding = analysis.findings.find(({ check }) => check === 'wiring.protection');
    if (finding === undefined) throw new Error('The breaker is above its cable.');
    design.accepted.push({
      id: 'a',
      check: finding.check,
      subject: { kind: finding.subject.kind, id: finding.subject.id },
      state: 'over',
      ...figuresToAccept([finding]),
      missing: [],
      reason: 'Fixed load, overload cannot arise',
      by: 'Lena Ortiz',
      at: '2026-11-20T10:00:00Z',
    });
    const words = (d: Design): unknown =>
      rowOf(conductorSchedule(compile(d, SAMPLE_TYPES)).rows, 'circuit c1').cells.override;
    expect(words(design)).toBe(
      'devices protect their conductors overridden by Lena Ortiz: Fixed load, overload cannot arise',
    );
    const circuits = [{ ...circuit1(design), device: { ratedA: 40, curve: 'B' as const } }];
    expect(words({ ...design, circuits })).toBe('');
  });

  it('is marked on an earth as well', () => {
    const design = baseDesign();
    design.earthPoints = [{ id: 'e', name: 'Bar', joins: ['grid-earth', 'chassis'], areaMm2: 10 }];
    design.wiring = { cables: [{ id: 'k', lineId: 'grid supply to service-board bus', areaMm2: 25 }] };
    const finding = analyse(design, SAMPLE_TYPES).findings.find(({ check }) => check === 'wiring.earthing');
    if (finding?.state !== 'over') throw new Error('10 mm² is below the 16 mm² by table.');
    design.accepted.push({
      id: 'a',
      check: finding.check,
      subject: { kind: finding.subject.kind, id: finding.subject.id },
      state: 'over',
      ...figuresToAccept([finding]),
      missing: [],
      reason: 'In steel conduit, which is bonded',
      by: 'Lena Ortiz',
      at: '2026-11-20T10:00:00Z',
    });
    const { rows } = conductorSchedule(compile(design, SAMPLE_TYPES));
    expect(rowOf(rows, finding.subject.id).cells.override).toContain('overridden by Lena Ortiz');
  });
});
