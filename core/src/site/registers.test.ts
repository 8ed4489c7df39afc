import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { SAMPLE_TYPES } from '../catalogue/samples.ts';
import { baseDesign } from '../testkit/designs.ts';
import { REGISTER_BLOCKS, registersOf, rowsOfBlock, rowsOfSite } from './registerTable.ts';
import { readRegisterMap } from './registerMapFile.ts';
import { decodeValue, encodeValue } from './registerValues.ts';
import { commandsOfWrite } from './registerWrite.ts';
import { commandSite } from './siteCommands.ts';
import { sitePlan } from './sitePlan.ts';
import type { SitePlan } from './siteTypes.ts';
import { newSite } from './siteState.ts';
import { siteValues } from './siteValues.ts';

function planOf(): SitePlan {
  const made = sitePlan(baseDesign(), SAMPLE_TYPES);
  if (!made.ok) throw new Error(made.sentence);
  return made.plan;
}

describe('the register map', () => {
  it('gives every register to one figure, with all blocks full', () => {
    const taken = new Map<number, string>();
    for (const block of REGISTER_BLOCKS)
      for (const { key, address, type } of rowsOfBlock(block, block.most))
        for (let at = address; at < address + registersOf(type); at += 1) {
          expect(taken.get(at), `${key} at ${at}`).toBeUndefined();
          taken.set(at, key);
        }
  });

  it.each([
    ['u16', 0.01, 230.12, [23012]],
    ['u16', 0.01, 655.35, [0xffff]],
    ['s16', 0.1, -12.3, [0x10000 - 123]],
    ['u32', 0.001, 66, [1, 464]],
    ['s32', 0.01, -70000, [0xff95, 0x3040]],
    ['u16', 1, null, [0xffff]],
    ['s32', 1, null, [0x8000, 0]],
  ] as const)('%s of %s: %s is %j', (type, scale, value, words) => {
    expect(encodeValue({ type, scale }, value)).toEqual(words);
    // 655.35 would be the pattern for "not available": what a type cannot hold is not there, never another figure.
    expect(decodeValue({ type, scale }, words)).toBe(value === 655.35 ? null : value);
  });

  it('reads back what it writes, and nothing that it cannot hold', () => {
    const types = fc.constantFrom('u16', 's16', 'u32', 's32');
    fc.assert(
      fc.property(
        types,
        fc.constantFrom(1, 0.1, 0.01, 0.001),
        fc.integer({ min: -(2 ** 33), max: 2 ** 33 }),
        (type, scale, raw) => {
          const value = raw / Math.round(1 / scale);
          const back = decodeValue({ type, scale }, encodeValue({ type, scale }, value));
          const [low, high] = {
            u16: [0, 65534],
            s16: [-32767, 32767],
            u32: [0, 2 ** 32 - 2],
            s32: [-(2 ** 31) + 1, 2 ** 31 - 1],
          }[type];
          expect(back).toBe(raw >= (low ?? 0) && raw <= (high ?? 0) ? value : null);
        },
      ),
    );
  });

  it.each<[string, readonly number[], string, number]>([
    ['site.isolator', [1], 'site.isolator', 1],
    ['set.1.battery', [1], 'set.1.battery', 1],
    ['set.1.gridChargeW', [1200], 'set.1.gridChargeW', 1200],
    ['set.1.generatorChargeW', [800], 'set.1.generatorChargeW', 800],
    ['set.1.cutoff', [2500], 'set.1.cutoff', 25],
    // Nine tenths of the module may be used: below 10 % the cells bear no more, whatever is set.
    ['set.1.cutoff', [0], 'set.1.cutoff', 10],
  ])('%s written as %j reads %s = %d', (key, words, read, value) => {
    const plan = planOf();
    const state = newSite(plan, 1);
    const values = siteValues(plan, state);
    const address = rowsOfSite(values).find((row) => row.key === key)?.address ?? -1;
    const made = commandsOfWrite(plan, values, address, words);
    if (!made.ok) throw new Error(made.problem);
    for (const command of made.commands) expect(commandSite(plan, state, command)).toBeUndefined();
    expect(siteValues(plan, state)[read]).toBeCloseTo(value, 6);
  });

  it('takes a whole figure that may be written, and refuses the rest', () => {
    const plan = planOf();
    const state = newSite(plan, 1);
    const counts = siteValues(plan, state);
    const at = (key: string): number => rowsOfSite(counts).find((row) => row.key === key)?.address ?? -1;
    expect(commandsOfWrite(plan, counts, at('unit.1.on'), [1])).toEqual({
      ok: true,
      commands: [{ do: 'unit', stackId: 's', unitId: 'u1', on: true }],
    });
    expect(commandsOfWrite(plan, counts, at('line.1.testLoadW'), [0, 2300])).toMatchObject({
      commands: [{ do: 'test-load', line: 0, watts: 2300 }],
    });
    expect(commandsOfWrite(plan, counts, at('set.1.backup'), [0, 500])).toMatchObject({
      commands: [{ value: 0 }, { setting: 'charge', value: 50 }],
    });
    expect(commandsOfWrite(plan, counts, at('line.1.testLoadW'), [1])).toEqual({
      ok: false,
      problem: 'not a whole figure',
    });
    expect(commandsOfWrite(plan, counts, at('line.1.testLoadW') + 1, [1])).toEqual({
      ok: false,
      problem: 'not a whole figure',
    });
    expect(commandsOfWrite(plan, counts, at('site.mode'), [1])).toEqual({ ok: false, problem: 'read only' });
    expect(commandsOfWrite(plan, counts, 50, [1])).toEqual({ ok: false, problem: 'no such register' });
    expect(commandsOfWrite(plan, counts, at('unit.1.on'), [0xffff])).toEqual({
      ok: false,
      problem: 'out of range',
    });
    for (const command of [{ do: 'setting', stackId: 's', setting: 'charge', value: 20 }] as const)
      expect(commandSite(plan, state, command)).toBeUndefined();
    expect(siteValues(plan, state)['set.1.chargeA']).toBe(20);
  });
});

describe('a register map of another device', () => {
  const HEAD = ['key', 'address', 'type', 'scale'];
  it('is read by its heading, with columns in any order', () => {
    expect(
      readRegisterMap([
        ['Scale', 'key', 'TYPE', 'address', 'unit'],
        ['0.1', 'line.1.voltageV', 'u16', '40', 'V'],
        [''],
        ['-1', 'set.1.batteryA', 's32', '70', 'A'],
      ]),
    ).toEqual({
      ok: true,
      rows: [
        {
          key: 'line.1.voltageV',
          address: 40,
          type: 'u16',
          scale: 0.1,
          unit: 'V',
          access: 'read',
          meaning: '',
        },
        {
          key: 'set.1.batteryA',
          address: 70,
          type: 's32',
          scale: -1,
          unit: 'A',
          access: 'read',
          meaning: '',
        },
      ],
    });
  });

  it.each<[string, readonly (readonly string[])[], string]>([
    ['no heading', [], 'Row 1: the heading lacks key, address, type, scale.'],
    ['nothing in it', [HEAD], 'The map has no rows.'],
    [
      'a key that no reading asks for',
      [HEAD, ['volts', '1', 'u16', '1']],
      'Row 2: "volts" is no key as line.1.voltageV.',
    ],
    [
      'an address beyond the last',
      [HEAD, ['line.1.voltageV', '65535', 'u16', '1']],
      'Row 2: "65535" is no address.',
    ],
    [
      'an address that is not whole',
      [HEAD, ['line.1.voltageV', '4.5', 'u16', '1']],
      'Row 2: "4.5" is no address.',
    ],
    [
      'a type that is not known',
      [HEAD, ['line.1.voltageV', '1', 'f32', '1']],
      'Row 2: "f32" is none of u16, s16, u32, s32.',
    ],
    ['a scale of nothing', [HEAD, ['line.1.voltageV', '1', 'u16', '0']], 'Row 2: "0" is no scale.'],
    [
      'a key twice',
      [HEAD, ['line.1.voltageV', '1', 'u16', '1'], ['line.1.voltageV', '2', 'u16', '1']],
      'Row 3: "line.1.voltageV" is there twice.',
    ],
  ])('with %s is refused with its row', (_, cells, sentence) => {
    expect(readRegisterMap(cells)).toEqual({ ok: false, problems: [sentence] });
  });
});
