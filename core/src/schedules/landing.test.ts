import { describe, expect, it } from 'vitest';
import { variantOf } from '../testkit/bonding.ts';
import { SAMPLE_TYPES } from '../catalogue/samples.ts';
import { readDesign } from '../design/read.ts';
import type { Design } from '../design/schema.ts';
import { addLoad, bank1, baseDesign, circuit1, stack1 } from '../testkit/designs.ts';
import { withStrings } from '../testkit/wired.ts';
import { cellsOf, rowsOf, scheduleWith } from '../testkit/schedules.ts';
import { inRegion } from './inRegion.ts';

describe('terminations', () => {
  it('take end, strip, torque, tool and pull from type and size', () => {
    const rows = rowsOf('terminations', (d) => {
      const type = variantOf('inverter', 'hybrid-5k-1ph', {
        terminals: [
          {
            port: 'battery',
            minMm2: 25,
            maxMm2: 70,
            stripMm: 18,
            torqueNm: 12,
            ends: ['ring'],
            mostConductors: 1,
            coverTorqueNm: 2,
          },
          {
            port: 'backup',
            minMm2: 2.5,
            maxMm2: 6,
            ends: ['ferrule', 'bare'],
            earthFirst: 'yes',
            ferrite: 'yes',
          },
          { port: 'pv', minMm2: 4, maxMm2: 6, stripMm: 7, ends: ['plug'] },
          { port: 'grid', minMm2: 2.5, maxMm2: 10, stripMm: 9, ends: ['pin'], mostConductors: 1 },
        ],
      });
      d.types.push(type);
      stack1(d).inverterTypeId = type.id;
      withStrings(d, 8);
      Object.assign(stack1(d).units[0] ?? {}, { acLead: { lengthM: 2, areaMm2: 10 } });
    });
    expect(cellsOf(rows, { port: 'battery port', terminal: 'DC+' })).toMatchObject({
      size: '70 mm²',
      end: 'ring',
      strip: 18,
      torque: 12,
      tool: 'hydraulic press, die for the size',
      pull: 285,
      note: 'cover back on with 2 Nm',
    });
    const backup = rows.filter(
      ({ cells }) => cells.port === 'backup output' && cells.part === 'unit 1, backup output',
    );
    expect(backup.map(({ state }) => state)).toEqual(['over', 'over', 'over']);
    expect(cellsOf(backup, { terminal: 'PE' }).note).toBe(
      'too thick: it takes 6 mm² at most; land this one first; ferrite core over the conductors',
    );
    expect(cellsOf(backup, { terminal: 'L1' }).dead).toContain('grid');
    // What clicks in has no torque, and its row lacks none.
    const clicked = rows.filter(({ cells }) => cells.torque === '');
    expect(
      clicked.map(({ cells, state }) => [cells.port, cells.terminal, cells.end, cells.pull, state]),
    ).toEqual(
      expect.arrayContaining([
        ['PV input 1', 'DC+', 'plug of +', '', 'within'],
        ['PV input 1', 'DC−', 'plug of −', '', 'within'],
        ['grid port', 'PE', 'pin contact', '', 'within'],
      ]),
    );
    expect(cellsOf(clicked, { terminal: 'DC+' }).note).toBe(
      'only with a counterpart of the same make and kind; push until it clicks, then tug by hand',
    );
  });

  it('counts what shares a terminal', () => {
    const rows = rowsOf('terminations', (d) => {
      const type = variantOf('combiner-bar', 'bar-400a-8', {});
      d.types.push(type);
      bank1(d).barTypeId = type.id;
    });
    // Four modules and an inverter on one bar, drawn as one terminal each pole; a place takes one.
    expect(cellsOf(rows, { part: 'battery bars', terminal: 'DC+' }).shared).toBe('with 4 others');
  });
});

describe('cuts', () => {
  it('cover the van first and say what cannot be cut', () => {
    const { rows, totals } = scheduleWith('cuts', (d) => {
      addLoad(d, 'far', ['L1']);
      circuit1(d).cable = { lengthM: 12, areaMm2: 2.5 };
      Object.assign(d.circuits[1] ?? {}, { cable: { lengthM: 130, areaMm2: 2.5 } });
      d.wiring = {
        remnants: [
          { id: 'r1', areaMm2: 2.5, lengthM: 15, make: 'cable', cores: 3 },
          { id: 'r2', areaMm2: 2.5, lengthM: 2, make: 'cable', cores: 3 },
        ],
        stock: [{ id: 's1', lengthM: 50 }],
      };
    });
    const cable = rows.filter(({ cells }) => cells.conductor === 'cable of 3 cores, 2.5 mm²');
    expect(cable.map(({ cells }) => [cells.from, cells.length, cells.left])).toEqual([
      ['from the van', 15, 3],
      ['no length is long enough', null, null],
    ]);
    // 12 of 142 m come out of the van, and of the 15 m there 3 are left; nothing is bought that could hold 130 m.
    expect(totals?.rows.find(({ id }) => id === 'cable of 3 cores, 2.5 mm²')).toMatchObject({
      state: 'over',
      cells: { pieces: 2, needed: 142, van: 12, buy: 0, stock: 50, least: 0, left: 3 },
    });
    // 3.28084 ft to the metre.
    const feet = totals && inRegion({ ...totals, totals }, 'ft').totals;
    expect(feet?.rows.find(({ id }) => id === 'cable of 3 cores, 2.5 mm²')?.cells.needed).toBe(465.9);
  });

  it('cut what is left at the ends with the length between them, of all cables but leads of the battery', () => {
    const rows = rowsOf('cuts', (d) => {
      addLoad(d, 'far', ['L1']);
      circuit1(d).cable = { lengthM: 12, areaMm2: 2.5 };
      Object.assign(d.circuits[1] ?? {}, { cable: { lengthM: 20, areaMm2: 2.5 } });
      d.wiring = {
        laying: { serviceLoopM: 0.5 },
        cables: [{ id: 'k', lineId: 'circuit c1', serviceLoopM: 2 }],
      };
    });
    const cable = rows.find(({ cells }) => cells.conductor === 'cable of 3 cores, 2.5 mm²');
    // 12 + 2 and 20 + 0.5 of 100 m
    expect(cable?.cells).toMatchObject({ left: 65.5 });
    expect(rows.find(({ cells }) => cells.conductor === 'flexible lead, 50 mm², red')?.cells.left).toBe(96);
  });

  it('cut each pole of a lead by its colour', () => {
    const rows = rowsOf('cuts').filter(({ cells }) => String(cells.conductor).startsWith('flexible'));
    expect(rows.map(({ cells }) => cells.conductor)).toEqual([
      'flexible lead, 50 mm², black',
      'flexible lead, 50 mm², red',
      'flexible lead, 70 mm², black',
      'flexible lead, 70 mm², red',
    ]);
    // Four module leads of 1 m out of 100 m.
    expect(rows[0]?.cells).toMatchObject({ length: 100, left: 96 });
  });
});

describe('terminals of devices', () => {
  const typed = (d: Design): void => {
    circuit1(d).device = { typeId: 'breaker-b10-1p' };
    circuit1(d).cable = { lengthM: 5, areaMm2: 2.5 };
    d.devices.push({ id: 'd1', role: 'unit-output', stackId: 's', unitId: 'u1', typeId: 'breaker-c25-2p' });
    Object.assign(stack1(d).units[0] ?? {}, { acLead: { lengthM: 2, areaMm2: 10 } });
  };

  it('stand in the line with both sides; the earth passes them by, and the neutral one that has no pole for it', () => {
    const rows = rowsOf('terminations', typed);
    const at = (part: string): string[] =>
      rows.filter(({ cells }) => cells.part === part).map(({ cells }) => `${cells.port} ${cells.terminal}`);
    expect(at('output device of unit 1')).toEqual(['in L1', 'in N', 'out L1', 'out N']);
    expect(at('device of Heat')).toEqual(['load side L1']);
    expect(cellsOf(rows, { part: 'output device of unit 1', port: 'out', terminal: 'N' })).toMatchObject({
      size: '10 mm²',
      strip: 13,
      torque: 2.4,
      shared: 'alone',
    });
  });

  it('of one that nobody has stated are left out, and counted', () => {
    const { rows, notes } = scheduleWith('terminations', (d) => {
      typed(d);
      d.devices = [];
    });
    expect(rows.some(({ cells }) => cells.part === 'output device of unit 1')).toBe(false);
    expect(notes.join(' ')).toMatch(/Left out: the terminals of \d+ devices of which nobody has said/);
  });

  it('count as what a cable has to fit', () => {
    // A breaker to 63 A takes 35 mm² at most: a circuit of 50 mm² is too thick for it.
    const rows = rowsOf('terminations', (d) => {
      typed(d);
      circuit1(d).cable = { lengthM: 5, areaMm2: 50 };
    });
    expect(rows.find(({ cells }) => cells.part === 'device of Heat')?.state).toBe('over');
  });
});

describe('what is read off a terminal', () => {
  const read = (over: object) => (d: Design) => {
    d.wiring = { terminals: [{ id: 'e1', portId: 'grid supply', ...over }] };
  };
  const whole = { minMm2: 4, maxMm2: 35, stripMm: 20, torqueNm: 6, ends: ['bare'] };

  it('fills a place that has no type, once its range is whole', () => {
    const rows = rowsOf('terminations', read(whole));
    expect(cellsOf(rows, { part: 'grid', terminal: 'L1' })).toMatchObject({
      strip: 20,
      torque: 6,
      end: 'bare',
    });
    const open = rowsOf('terminations', read({ torqueNm: 6 }));
    expect(cellsOf(open, { part: 'grid', terminal: 'L1' })).toMatchObject({
      torque: null,
      note: 'nothing is known of this terminal: read it off the thing and type it here',
    });
  });

  it('gives way to what the type states, and fills what it leaves open', () => {
    const rows = rowsOf('terminations', (d) => {
      d.types.push(
        variantOf('inverter', 'hybrid-5k-1ph', {
          terminals: [{ port: 'grid', minMm2: 2.5, maxMm2: 10, torqueNm: 1.2, ends: ['ferrule'] }],
        }),
      );
      stack1(d).inverterTypeId = 'hybrid-5k-1ph-own';
      d.wiring = { terminals: [{ id: 'e1', portId: 'unit s/u1 grid', stripMm: 9, torqueNm: 5 }] };
    });
    expect(cellsOf(rows, { port: 'grid port', terminal: 'L1' })).toMatchObject({ strip: 9, torque: 1.2 });
  });

  it('tells what was read of a port that is not there', () =>
    expect(
      scheduleWith('terminations', (d) => {
        d.wiring = { terminals: [{ id: 'e1', portId: 'gone in' }] };
      }).notes,
    ).toContain('Something is stated of a terminal that is not there any more: gone in.'));

  it('has the thinner end of its range below the thicker', () => {
    const design = baseDesign();
    read({ minMm2: 10, maxMm2: 4 })(design);
    const found = readDesign(design, SAMPLE_TYPES);
    expect(found.ok ? '' : found.problems[0]?.message).toBe('needs its smallest conductor below its largest');
  });
});

it('an earth with a terminal of its own is held against that', () => {
  const rows = rowsOf('terminations', (d) => {
    d.types.push(
      variantOf('inverter', 'hybrid-5k-1ph', {
        terminals: [
          {
            port: 'backup',
            minMm2: 6,
            maxMm2: 16,
            stripMm: 12,
            torqueNm: 2,
            ends: ['bare'],
            earthMinMm2: 1.5,
            earthMaxMm2: 6,
            earthTorqueNm: 1.1,
          },
        ],
      }),
    );
    stack1(d).inverterTypeId = 'hybrid-5k-1ph-own';
    Object.assign(stack1(d).units[0] ?? {}, { acLead: { lengthM: 2, areaMm2: 6 } });
  });
  const port = rows.filter(({ cells }) => cells.part === 'unit 1, backup output');
  expect(port.map(({ cells, state }) => [cells.terminal, cells.torque, state])).toEqual([
    ['L1', 2, 'within'],
    ['N', 2, 'within'],
    ['PE', 1.1, 'within'],
  ]);
});
