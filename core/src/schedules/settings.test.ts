import { describe, expect, it } from 'vitest';
import type { Design } from '../design/schema.ts';
import { variantOf } from '../testkit/bonding.ts';
import { bank1, stack1 } from '../testkit/designs.ts';
import { cellsOf, rowsOf, scheduleWith } from '../testkit/schedules.ts';
import { withMeters } from '../testkit/wired.ts';
import type { Row } from './table.ts';

describe('what nobody can read off the design', () => {
  const wantedOf = (rows: readonly Row[]) => new Map(rows.map(({ cells }) => [cells.setting, cells.wanted]));
  const byHand = (design: Design): void => {
    const stack = stack1(design);
    stack.units.push({ id: 'u2' });
    design.generators.push({
      id: 'g',
      name: 'Set',
      typeId: 'diesel-20k-3ph',
      connection: 'generator-port',
      stackId: 's',
    });
    Object.assign(stack, {
      dischargeCurrentA: 80,
      settings: {
        workMode: 'by-time',
        windows: [{ id: 'w', from: '22:00', to: '06:00', does: 'charge' }],
        generatorFromSoc: 0.25,
        generatorToSoc: 0.75,
      },
    });
  };

  it('stands in the sheet as it was decided, and as not known until then', () => {
    const wanted = wantedOf(rowsOf('settings', byHand));
    expect(wanted.get('Discharge current')).toBe('80 A');
    expect(wanted.get('Work mode')).toBe('by time windows');
    expect(wanted.get('Window 22:00 to 06:00')).toBe('charges from the grid');
    expect(wanted.get('Generator is called at')).toBe('25 %');
    expect(wanted.get('Generator is let go at')).toBe('75 %');
    const bare = wantedOf(rowsOf('settings'));
    expect(bare.get('Work mode')).toBeNull();
    // Nobody has set it: the design counts on what the type takes.
    expect(bare.get('Discharge current')).toBe('110 A');
    expect(bare.has('Generator is called at')).toBe(false);
  });

  it.each<[string, (design: Design) => void, string[]]>([
    ['one unit on a grid', () => undefined, []],
    ['a set', (d) => void stack1(d).units.push({ id: 'u2' }), ['feed in at any price']],
    ['a set with a generator', byHand, ['feed in at any price', 'flatten the peak of the grid']],
    ['a site without a grid', (d) => void (d.site.grid = 'none'), ['wait for the grid']],
  ])('modes that must be off: %s', (_, edit, off) => {
    const rows = rowsOf('settings', edit).filter(({ id }) => id.startsWith('s/u1 mode '));
    expect(rows.map(({ cells }) => [cells.setting, cells.wanted])).toEqual(off.map((text) => [text, 'off']));
  });

  it('firmware is wanted part by part in the order of loading, the newest of each', () => {
    const rows = rowsOf('settings', (d) => {
      const type = variantOf('inverter', 'hybrid-5k-1ph', { firmwareParts: ['comm', 'power'] });
      d.types.push(type);
      const parts = (comm: string, power: string) => [
        { id: 'comm', version: comm },
        { id: 'power', version: power },
      ];
      Object.assign(stack1(d), {
        inverterTypeId: type.id,
        units: [
          { id: 'u1', firmwareParts: parts('2', '9') },
          { id: 'u2', firmwareParts: parts('3', '8') },
        ],
      });
    });
    expect(rows.filter(({ id }) => id.includes(' firmware ')).map(({ id, state }) => [id, state])).toEqual([
      ['s/u1 firmware comm', 'over'],
      ['s/u1 firmware power', 'within'],
      ['s/u2 firmware comm', 'within'],
      ['s/u2 firmware power', 'over'],
    ]);
    expect(cellsOf(rows, { setting: 'Firmware, comm' }).wanted).toBe('3');
    expect(cellsOf(rows, { setting: 'Firmware, comm' }).why).toContain('Loaded first');
  });

  it('a controller wants role, address and protocol of each meter', () => {
    const rows = rowsOf('settings', (d) => {
      delete withMeters(d).meters[2]?.address;
    }).filter(({ cells }) => cells.device === 'Controller');
    const wanted = wantedOf(rows);
    expect(wanted.get('Role of the grid meter')).toBe('grid');
    expect(wanted.get('Address of the load meter')).toBe('2');
    expect(wanted.get('Address of the generation meter')).toBeNull();
    expect(wanted.get('Protocol of the grid meter')).toBe('meter-bus');
    expect(wanted.get('Sets it leads')).toBe('1');
  });
});

it('a meter names its terminals for the lines that are there, a sensor its mark on both ends', () => {
  const meters = rowsOf('sensors', (d) => void withMeters(d));
  // One line and neutral at the site; the type has three.
  expect(meters[0]?.cells.terminals).toBe('L1 at 1, N at 4, sensor L1 at 11 12');
  const clip = (d: Design): void =>
    void d.instruments.push({
      id: 'x',
      kind: 'sensor',
      typeId: 'sensor-100a',
      at: 'service',
      line: 'L1',
      readBy: 's',
      readByUnitId: 'u1',
    });
  const mark = 'L1, arrow to the building, 100 A : 50 mA, read by unit 1 of Stack';
  expect(rowsOf('sensors', clip)[0]?.cells.mark).toBe(mark);
  expect(cellsOf(rowsOf('labels', clip), { text: mark }).count).toBe(2);
  const unsaid = (d: Design): void => {
    clip(d);
    delete d.instruments[0]?.line;
  };
  expect(rowsOf('sensors', unsaid)[0]?.cells.mark).toBeNull();
});

it('a box that reports by a bus has its pair and ground, from the port that the inverter has for it', () => {
  const pins = { port: 'box', plus: '4', minus: '5', ground: '8', longestM: 30 };
  const row = (inverterPins: (typeof pins)[]) =>
    rowsOf('comms', (d) => {
      const inverter = variantOf('inverter', 'hybrid-5k-1ph', { commsPins: inverterPins });
      const bar = variantOf('combiner-bar', 'bar-400a-8', {
        commsPins: [{ ...pins, plus: '1', minus: '2' }],
      });
      d.types.push(inverter, bar);
      stack1(d).inverterTypeId = inverter.id;
      Object.assign(bank1(d), { joining: 'bars-equal', barTypeId: bar.id });
    }).find(({ cells }) => cells.kind === 'bus of a combiner or transfer box')?.cells;
  expect(row([pins])).toMatchObject({
    fromPins: '+ 4 blue, − 5 white-blue, ground 8 brown',
    toPins: '+ 1 white-orange, − 2 orange, ground 8 brown',
  });
  expect(row([pins])?.note).toContain('pins differ');
  expect(row([])).toMatchObject({ fromPins: null, fromSocket: 'box' });
});

it('what reports over the network of the building is in the schedule, and in the settings as it was decided', () => {
  const edit = (d: Design): void => {
    withMeters(d).network = 'cable';
    Object.assign(stack1(d).units[0] ?? {}, { network: 'radio' });
  };
  const links = rowsOf('comms', edit).filter(({ cells }) => cells.kind === 'network of the building');
  expect(links.map(({ cells }) => [cells.from, cells.fromSocket, cells.to, cells.toSocket])).toEqual([
    ['unit 1', 'radio', 'router of the building', 'radio'],
    ['Controller', 'LAN', 'router of the building', 'outlet'],
  ]);
  expect(links.map(({ cells }) => cells.cable)).toEqual(['none: by radio', 'straight network cable']);
  expect(links.map(({ cells }) => cells.note)).toEqual([
    'read its signal where it hangs, with its cover on, before it is left',
    'at most 100 m',
  ]);
  const wanted = (design: (d: Design) => void) =>
    rowsOf('settings', design).flatMap(({ cells }) =>
      cells.setting === 'Network of the building' ? [[cells.device, cells.wanted]] : [],
    );
  expect(wanted(edit)).toEqual([
    ['unit 1', 'by radio'],
    ['Controller', 'by cable'],
  ]);
  // Under a controller a unit is asked about no more; without one it speaks for its set.
  expect(wanted((d) => void withMeters(d))).toEqual([['Controller', null]]);
  expect(wanted(() => undefined)).toEqual([['unit 1', null]]);
  const off = (d: Design): void => void Object.assign(stack1(d).units[0] ?? {}, { network: 'none' });
  expect(wanted(off)).toEqual([['unit 1', 'not joined']]);
  expect(rowsOf('comms', off).some(({ cells }) => cells.kind === 'network of the building')).toBe(false);
});

it('that no meter is needed is a decision, said in schedule and settings', () => {
  const off = (d: Design): void => void (d.site.instruments = 'not-needed');
  expect(scheduleWith('sensors', off).notes).toEqual([
    'Not needed, as somebody has decided: nothing of the grid is read.',
  ]);
  expect(scheduleWith('sensors', () => undefined).notes[0]).toContain('nobody has said that none is needed');
  expect(scheduleWith('sensors', (d) => void (d.site.grid = 'none')).notes[0]).toContain(
    'the site has no grid',
  );
  expect(cellsOf(rowsOf('settings', off), { setting: 'Meter or sensor' }).wanted).toBe('none');
});
