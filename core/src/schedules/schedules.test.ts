import { describe, expect, it } from 'vitest';
import { SAMPLE_TYPES } from '../catalogue/samples.ts';
import type { Design } from '../design/schema.ts';
import { compile } from '../installation/compile.ts';
import { variantOf, withSwitchedSet } from '../testkit/bonding.ts';
import { bank1, baseDesign, circuit1, forget, stack1 } from '../testkit/designs.ts';
import { labelSheet } from '../formats/labelSheet.ts';
import { svgOf } from '../formats/svg.ts';
import { cellsOf, rowsOf } from '../testkit/schedules.ts';
import { closedLoop, withStrings } from '../testkit/wired.ts';
import { sheetLabels } from './labels.ts';
import { scheduleOf, scheduleSheet } from './scheduleOf.ts';
import { type Cell, type Row, SCHEDULE_KINDS, type ScheduleKind } from './table.ts';

it.each(SCHEDULE_KINDS)(
  '%s: every row has an id of its own and every cell of its columns, on any design',
  (kind) => {
    for (const edit of [
      () => undefined,
      (d: Design) => void (d.stacks = []),
      (d: Design) => withSwitchedSet(d, 'solid'),
    ]) {
      const design = baseDesign();
      edit(design);
      const schedule = scheduleOf(kind, {
        design,
        catalogue: SAMPLE_TYPES,
        installation: compile(design, SAMPLE_TYPES),
      });
      expect(new Set(schedule.rows.map(({ id }) => id)).size).toBe(schedule.rows.length);
      for (const { cells } of schedule.rows)
        for (const { key } of schedule.columns) expect(cells[key], `${kind} ${key}`).not.toBeUndefined();
      expect(scheduleSheet(schedule).flat().join(' ')).not.toMatch(/undefined|NaN|Infinity|\[object/);
    }
  },
);

describe('conductors', () => {
  it('names load, device, smallest size and what governs it', () => {
    const rows = rowsOf('conductors', (d) => {
      // 10 A over 60 m: 2.5 mm² loses 10.6 V = 4.6 %, 1.5 mm² 17.4 V = 7.6 %.
      circuit1(d).cable = { lengthM: 60 };
      circuit1(d).device = { ratedA: 10 };
    });
    expect(cellsOf(rows, { cable: 'Heat' })).toMatchObject({
      conductors: 'L1 N PE',
      load: 10,
      device: '10 A',
      smallest: '2.5 mm²',
      governs: 'voltage drop',
      size: null,
      drop: 4.63,
      protective: '2.5 mm²',
    });
  });

  it('does not promise a size for a load that nobody knows', () => {
    const rows = rowsOf('conductors', (d) => void (circuit1(d).items = []));
    expect(cellsOf(rows, { cable: 'Heat' })).toMatchObject({ load: null, smallest: null });
    expect(cellsOf(rows, { cable: 'Heat' }).verdict).toMatch(/^missing: /);
  });

  it('tells what was said of a cable that is not there', () => {
    const design = baseDesign();
    design.wiring = { cables: [{ id: 'w', lineId: 'circuit gone', lengthM: 3 }] };
    const installation = compile(design, SAMPLE_TYPES);
    expect(scheduleOf('conductors', { design, catalogue: [], installation }).notes.join()).toContain(
      'circuit gone',
    );
  });

  it('takes figures of a cable that has no other place', () => {
    const bare = rowsOf('conductors').find(({ cells }) => cells.cable === 'grid to service board');
    const rows = rowsOf('conductors', (d) => {
      d.wiring = { cables: [{ id: 'w', lineId: bare?.id ?? '', lengthM: 10, areaMm2: 16, method: 'A1' }] };
    });
    expect(cellsOf(rows, { cable: 'grid to service board' })).toMatchObject({
      size: '16 mm²',
      length: 10,
      laid: 'PVC70, method A1, 30 °C, by itself',
    });
  });
});

describe('settings', () => {
  it('follow from the design, and what is read there is held against them', () => {
    const rows = rowsOf('settings', (d) => Object.assign(stack1(d).units[0] ?? {}, { frequencyHz: 60 }));
    expect(rows.find(({ cells }) => cells.setting === 'Output frequency')).toMatchObject({
      state: 'over',
      cells: { wanted: '50 Hz', typed: '60 Hz' },
    });
    // Four modules of 100 Ah.
    expect(cellsOf(rows, { setting: 'Battery capacity' }).wanted).toBe('400 Ah');
    expect(cellsOf(rows, { setting: 'Backup reserve' }).wanted).toBe('50 %');
    expect(cellsOf(rows, { setting: 'Parallel mode' }).wanted).toBe('off');
  });
});

describe('devices', () => {
  it('are held against load and fault', () => {
    const rows = rowsOf('devices', (d) => {
      d.site.prospectiveFaultA = 6000;
      circuit1(d).device = { ratedA: 6 };
    });
    expect(cellsOf(rows, { in: 'Heat' })).toMatchObject({ rating: 6, planned: 10, load: 10, fault: 6000 });
    expect(cellsOf(rows, { in: 'Heat' }).verdict).toBe('smaller than its load of 10 A');
  });
});

it('devices say whether they open on a fault, by what feeds it', () => {
  const rows = rowsOf('devices', (d) => {
    d.site.prospectiveFaultA = 6000;
    Object.assign(circuit1(d), { device: { ratedA: 16, curve: 'C' }, cable: { lengthM: 15, areaMm2: 2.5 } });
  });
  // 230 / (230 / 6000 + 2 · 15 · 7.41 mΩ/m · 1.2751) = 230 / (0.03833 + 0.28346) = 714.7 A, above 10 · 16 A.
  expect(String(cellsOf(rows, { in: 'Heat' }).trip)).toMatch(/^grid: yes, 715 A; island: no, /);
});

it('a size of no table goes by the next thinner, and says so; a length of nought is none', () => {
  const wired = (areaMm2: number, lengthM: number, more: (d: Design) => void = () => undefined) =>
    cellsOf(
      rowsOf('conductors', (d) => {
        d.site.prospectiveFaultA = 6000;
        Object.assign(circuit1(d), { cable: { areaMm2, lengthM }, device: { ratedA: 16, curve: 'C' } });
        more(d);
      }),
      { cable: 'Heat' },
    );
  expect(wired(2, 10).verdict).toBe('within');
  expect(wired(2, 10, (d) => forget(d.site, 'prospectiveFaultA')).verdict).toMatch(
    /^not every short circuit is judged, missing: .*prospective.*; the rest is within$/i,
  );
  expect(wired(2, 10, (d) => forget(circuit1(d), 'device')).verdict).toMatch(/^no rating of its device/);
  expect(wired(2.5, 0).verdict).toBe('a length of nought is none');
  expect(wired(0.5, 5).verdict).toBe('its size is not tabulated for the way it is laid');
});

it('a string behind a switch of no known rating is judged: the switch guards nothing', () => {
  const design = (d: Design): void => {
    withStrings(d, 8);
    const [line] = rowsOf('conductors', (plain) => withStrings(plain, 8)).flatMap(({ id, cells }) =>
      String(cells.cable).startsWith('South roof') ? [id] : [],
    );
    d.wiring = { cables: [{ id: 'w', lineId: line ?? '', lengthM: 10, areaMm2: 6 }] };
  };
  const row = rowsOf('conductors', design).find(({ cells }) => String(cells.cable).startsWith('South roof'));
  expect(row).toMatchObject({ state: 'within', cells: { verdict: 'within' } });
});

describe('what nobody knows is no pass', () => {
  const stateOf = (kind: ScheduleKind, has: Readonly<Record<string, Cell>>, edit: (d: Design) => void) => {
    const rows = rowsOf(kind, edit);
    const cells = cellsOf(rows, has);
    return rows.find((row) => row.cells === cells)?.state;
  };
  const wired = (edit: (d: Design) => void) => (d: Design) => {
    d.site.prospectiveFaultA = 6000;
    // 6000 A can flow, and the type opens 10 kA.
    const type = variantOf('protective-device', 'dc-breaker-50a-hv', { breakingA: 10_000, ratedA: 16 });
    d.types.push(type);
    Object.assign(circuit1(d), {
      device: { typeId: type.id, curve: 'B' },
      cable: { lengthM: 15, areaMm2: 2.5 },
    });
    edit(d);
  };
  const nothing = () => undefined;

  it.each<[string, ScheduleKind, Readonly<Record<string, Cell>>, (d: Design) => void, string | undefined]>([
    ['a setting that nobody read', 'settings', { setting: 'Output frequency' }, nothing, undefined],
    [
      'a setting that was read',
      'settings',
      { setting: 'Output frequency' },
      (d) => void Object.assign(stack1(d).units[0] ?? {}, { frequencyHz: 50 }),
      'within',
    ],
    [
      'a setting that nobody can tell',
      'settings',
      { setting: 'Output voltage' },
      (d) => void Reflect.deleteProperty(d.site, 'lineVoltageV'),
      'unknown',
    ],
    ['a device with all its figures', 'devices', { in: 'Heat' }, wired(nothing), 'within'],
    [
      'a device of which nobody knows what it opens',
      'devices',
      { in: 'Heat' },
      wired((d) => void (circuit1(d).device = { ratedA: 16 })),
      'unknown',
    ],
    [
      'a device where nobody knows what can flow',
      'devices',
      { in: 'Heat' },
      wired((d) => Reflect.deleteProperty(d.site, 'prospectiveFaultA')),
      'unknown',
    ],
    [
      'a device of a load that nobody knows',
      'devices',
      { in: 'Heat' },
      wired((d) => void (circuit1(d).items = [])),
      'unknown',
    ],
    ['a cable with size and length', 'conductors', { cable: 'Heat' }, wired(nothing), 'within'],
    [
      'a cable without a length',
      'conductors',
      { cable: 'Heat' },
      wired((d) => void (circuit1(d).cable = { areaMm2: 2.5 })),
      'unknown',
    ],
  ])('%s', (_, kind, has, edit, state) => expect(stateOf(kind, has, edit)).toBe(state));

  it.each([
    [{ stripMm: 18, torqueNm: 12 }, 'within'],
    [{ stripMm: 18 }, 'unknown'],
    [{ torqueNm: 12 }, 'unknown'],
  ])('a termination with %j', (stated, state) => {
    const found = stateOf('terminations', { port: 'battery port', terminal: 'DC+' }, (d) => {
      const type = variantOf('inverter', 'hybrid-5k-1ph', {
        terminals: [{ port: 'battery', minMm2: 25, maxMm2: 70, ends: ['ring'], ...stated }],
      });
      d.types.push(type);
      stack1(d).inverterTypeId = type.id;
    });
    expect(found).toBe(state);
  });
});

describe('sensors', () => {
  it('say which arrow the type wants and which is fitted', () => {
    const rows = rowsOf('sensors', (d) =>
      d.instruments.push({
        id: 'x',
        kind: 'sensor',
        typeId: 'sensor-100a',
        at: 'backed-up-board',
        line: 'L1',
        arrow: 'to-source',
        ratio: '100 A : 50 mA',
        readBy: 's',
      }),
    );
    expect(rows[0]).toMatchObject({
      state: 'over',
      cells: { arrow: 'to the building; fitted to the grid or inverter', reader: 'Stack' },
    });
  });
});

it('an earthing conductor goes by the conductors of the service', () => {
  const rows = (areaMm2: number): readonly Row[] =>
    rowsOf('conductors', (d) => {
      d.earthPoints = [{ id: 'e', name: 'Bar', joins: ['grid-earth', 'electrode'], areaMm2 }];
      d.site.localElectrode = 'yes';
      d.wiring = {
        cables: [
          { id: 'k1', lineId: 'grid supply to service-board bus', areaMm2: 50 },
          { id: 'k2', lineId: 'service-board bus to electrode earth', areaMm2: 25, lengthM: 9 },
        ],
      };
    }).filter(({ id }) => id.endsWith(' earth'));
  // 50 mm² / 2 = 25 mm².
  expect(rows(16).map(({ state, cells }) => [cells.size, cells.smallest, state])).toEqual([
    ['16 mm²', '25 mm²', 'over'],
    ['25 mm²', '25 mm²', 'within'],
  ]);
  expect(rows(25)[0]?.state).toBe('within');
});

it('labels name every source and every isolation point', () => {
  const rows = rowsOf('labels', (d) => withSwitchedSet(d, 'solid'));
  expect(cellsOf(rows, { place: 'service board and meter' }).text).toContain(
    'the grid, a battery with inverters, a generator',
  );
  const isolation = rows.filter(({ cells }) => cells.kind === 'isolation').map(({ cells }) => cells.place);
  expect(isolation).toEqual(
    expect.arrayContaining(['service main', 'grid isolator', 'battery device of unit 1', 'device of Set']),
  );
});

it('warnings are in the words of the code profile, with voltage and short-circuit current', () => {
  // Eight of 38.8 V at −20 °C and −0.26 %/K: 8 · 38.8 · (1 + 0.0026 · 45) = 346.7 V. Four modules: 4 · 57.6 / 0.012 = 19,200 A.
  const texts = (profile: 'metric' | 'north-american') =>
    rowsOf('labels', (d) => {
      withStrings(d, 8, { rapidShutdown: 'fitted' });
      d.site.codeProfile = profile;
    }).map(({ cells }) => String(cells.text));
  const metric = texts('metric');
  expect(metric).toContainEqual(
    expect.stringContaining('Solar direct current, up to 347 V: live in daylight'),
  );
  expect(metric).toContainEqual(expect.stringContaining('up to 57.6 V. Cannot be switched off inside'));
  const american = texts('north-american');
  expect(american).toContainEqual(expect.stringContaining('up to 347 V. Both sides of an open switch'));
  expect(american).toContainEqual(expect.stringContaining('up to 57.6 V, short circuit up to 19.2 kA'));
  expect(metric).toContain(
    'Rapid shutdown of South roof: opening this switch takes the voltage off the roof.',
  );
});

it('what is not known of a warning stays open on its label, and is named beside it', () => {
  const rows = rowsOf('labels', (d) => {
    withStrings(d, 8);
    delete d.site.lowestC;
    delete bank1(d).batteryTypeId;
  });
  const of = (words: string) => rows.find(({ cells }) => String(cells.text).includes(words));
  expect(of('Solar direct current, up to ____ V')).toMatchObject({ state: 'unknown' });
  expect(of('Solar direct current')?.cells.missing).toBe('record low');
  expect(of('Battery, direct current, up to ____ V')).toMatchObject({ state: 'unknown' });
  expect(of('Battery, direct current')?.cells.missing).not.toBe('');
});

it('ports and both ends of a cable of comms are marked', () => {
  const rows = rowsOf('labels', (d) => {
    closedLoop(d);
    withStrings(d, 8);
  });
  expect(cellsOf(rows, { place: 'backup output of unit 1' })).toMatchObject({
    kind: 'mark',
    text: 'unit 1: backup output',
    count: 1,
  });
  expect(cellsOf(rows, { text: 'unit 1: PV input 1' }).kind).toBe('mark');
  expect(cellsOf(rows, { text: 'battery bus: unit 1 BAT to module 1 UP' }).count).toBe(2);
  // Nothing is landed on its generator port.
  expect(rows.some(({ cells }) => cells.text === 'unit 1: generator port')).toBe(false);
});

it('labels go onto sheets, each as often as it is wanted and none over the edge', () => {
  const design = baseDesign();
  const installation = compile(design, SAMPLE_TYPES);
  const labels = sheetLabels(scheduleOf('labels', { design, catalogue: SAMPLE_TYPES, installation }));
  const pages = labelSheet(labels);
  const texts = pages.flatMap(({ shapes }) =>
    shapes.flatMap((shape) => (shape.kind === 'text' ? [shape] : [])),
  );
  // The texts of marks are wrapped at most; their first words stand as often as there are marks.
  const wanted = labels
    .filter(({ text }) => text.startsWith('Module 2 of'))
    .reduce((sum, { count }) => sum + count, 0);
  expect(texts.filter(({ text }) => text.startsWith('Module 2 of'))).toHaveLength(wanted);
  expect(wanted).toBe(2);
  for (const { x, y } of texts) {
    expect(x).toBeGreaterThan(30);
    expect(x).toBeLessThan(770);
    expect(y).toBeLessThan(1100);
  }
  expect(svgOf(pages[0] ?? { widthPx: 0, heightPx: 0, shapes: [] })).toContain('More than one source');
});

it('parts count equipment, metres, ends and tools', () => {
  const rows = rowsOf('parts');
  expect(cellsOf(rows, { what: 'Sample 51.2 V 100 Ah rack module' }).count).toBe(4);
  expect(cellsOf(rows, { what: 'flexible lead, 50 mm², red' }).count).toBe(4);
  expect(rows.some(({ cells }) => cells.group === 'protection')).toBe(true);
});

it('controls of which nobody knows how they are fed are told beside the conductors', () => {
  const notes = (controlSupply: 'own' | undefined) => {
    const design = baseDesign();
    design.types.push(variantOf('transfer-device', 'transfer-200a-split', { id: 'own', controlSupply }));
    stack1(design).transferDeviceTypeId = 'own';
    const installation = compile(design, SAMPLE_TYPES);
    return scheduleOf('conductors', { design, catalogue: SAMPLE_TYPES, installation }).notes;
  };
  expect(notes(undefined)).toContainEqual(expect.stringContaining('How the controls of the transfer device'));
  expect(notes('own')).toEqual([]);
});
