import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import dxfParser from 'dxf-parser';
import { XMLParser } from 'fast-xml-parser';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { ModesReport } from './modes.ts';
import { run } from './run.ts';

let folder = '';
beforeAll(() => void (folder = mkdtempSync(join(tmpdir(), 'bastion-cli-'))));
afterAll(() => rmSync(folder, { recursive: true }));

async function call(...args: string[]): Promise<{ code: number; out: string; error: string }> {
  let out = '';
  let error = '';
  const code = await run(args, { out: (text) => void (out += text), error: (text) => void (error += text) });
  return { code, out, error };
}
const file = (text: string): string => {
  const path = join(folder, `${Math.abs(text.length)}.json`);
  writeFileSync(path, text);
  return path;
};
const example = (name: string): string => new URL(`../../examples/${name}.json`, import.meta.url).pathname;

describe('bastion check', () => {
  it('prints the findings of every mode and exits with 1 where something is over', async () => {
    const { code, out, error } = await call('check', example('fernhollow'));
    expect([code, error]).toEqual([1, '']);
    const report: unknown = JSON.parse(out);
    expect(report).toMatchObject({ format: 1 });
    expect(report).toHaveProperty('findings.0.state', 'over');
    expect(report).toHaveProperty('verdict', expect.stringContaining('things are over'));
    expect(report).toHaveProperty('causes.0.decides');
    expect(Object.keys((report as { findings: object[] }).findings[0] ?? {})).toEqual([
      'check',
      'subject',
      'mode',
      'state',
      'value',
      'limit',
      'unit',
      'margin',
      'message',
    ]);
  });

  it('exits with 0 for the smallest design of the docs, which is unknown but not over', async () => {
    const docs = readFileSync(new URL('../../docs/format.md', import.meta.url), 'utf8');
    const smallest = /```json\n([\s\S]*?)```/.exec(docs)?.[1] ?? '';
    expect(smallest.trim().split('\n').length).toBeLessThan(50);
    const { code, error } = await call('check', file(smallest));
    expect([code, error]).toEqual([0, '']);
  });

  it.each([
    { name: 'no file', args: ['check', '/nowhere/x.json'], says: 'ENOENT' },
    { name: 'no command', args: [], says: 'bastion check FILE.json' },
    { name: 'a folder', args: ['check', tmpdir()], says: 'EISDIR' },
  ])('exits with 2 and a line for $name', async ({ args, says }) => {
    const { code, out, error } = await call(...args);
    expect([code, out]).toEqual([2, '']);
    expect(error).toContain(says);
  });

  it('prints one line for each problem, with its place', async () => {
    const text = readFileSync(example('tern-rock'), 'utf8')
      .replace('"runningW": 1100', '"runningW": -1100')
      .replace('"powerFactor": 0.9', '"powerFactor": 9');
    const { code, out, error } = await call('check', file(text));
    expect([code, out]).toEqual([2, '']);
    expect(error.trim().split('\n')).toEqual([
      'circuits[0].items[0].runningW: must be at least 0, but is -1100',
      'circuits[1].items[0].powerFactor: must be at most 1, but is 9',
    ]);
  });
});

describe('bastion schedule', () => {
  it('prints rows under the keys of the columns, null where something is not known', async () => {
    const { code, out } = await call('schedule', example('fernhollow'), '--kind', 'conductors');
    const report = JSON.parse(out) as {
      columns: { key: string }[];
      rows: { cells: Record<string, unknown>; state?: string }[];
    };
    expect(code).toBe(1);
    expect(report.columns.map(({ key }) => key)).toContain('smallest');
    const charger = report.rows.find(({ cells }) => cells.cable === 'Car charger');
    expect(charger).toMatchObject({
      state: 'over',
      cells: { size: '4 mm²', smallest: '6 mm²', governs: 'voltage drop' },
    });
  });

  it('prints the same as a sheet', async () => {
    const { out } = await call('schedule', example('quillback'), '--kind', 'settings', '--csv');
    expect(out.split('\n')[0]).toBe('Device,Setting,Wanted,As it is set,Read by,Why');
    expect(out).toContain('unit 1,Output frequency,60 Hz');
  });

  it('says how it is called where the kind is none', async () =>
    expect((await call('schedule', example('quillback'), '--kind', 'cheese')).code).toBe(2));
});

describe('bastion rehearse', () => {
  it('plays the same nights again from the same seed', async () => {
    const ask = [
      'rehearse',
      example('tern-rock'),
      '--kind',
      'nights',
      '--nights',
      '300',
      '--seed',
      '9',
    ] as const;
    const [one, again] = [await call(...ask), await call(...ask)];
    expect(one.code).toBe(0);
    expect(again.out).toBe(one.out);
    expect(JSON.parse(one.out)).toHaveProperty('sets.0.nights', 300);
  });

  it('plays one outage with a unit lost, and the transfer', async () => {
    const lost = await call(
      'rehearse',
      example('fernhollow'),
      '--kind',
      'outage',
      '--hours',
      '12',
      '--start',
      '18',
      '--lose',
      'unit:u1',
    );
    expect(JSON.parse(lost.out)).toHaveProperty('sets.0.run.minutes', 720);
    expect(lost.out).toMatch(/"sentence": "Unit 1 fails: 5 of 6 carry on\."/);
    const transfer = await call('rehearse', example('fernhollow'), '--kind', 'transfer');
    expect(JSON.parse(transfer.out)).toHaveProperty('sets.0.gapMs', 10);
  });

  it.each([
    [['--nights', '1'], 'from 10 to'],
    [['--hours', '0'], 'cannot be played'],
    [['--start', 'noon'], 'a number is needed'],
    [['--pattern', 'weird'], 'one of city'],
    [['--lose', 'unit:nobody'], 'there is no such unit'],
    [['--lose', 'roof:1'], 'unit:ID or module:ID'],
    [['--motor', 'c/none'], 'nothing of that name starts here'],
    [['--cheese', '1'], 'not an option'],
    [['--seed'], 'a value is needed'],
  ])('says what is wrong with %j', async (options, says) => {
    const { code, error } = await call('rehearse', example('fernhollow'), '--kind', 'nights', ...options);
    expect(code).toBe(2);
    expect(error).toContain(says);
  });

  it('names what is missing, and plays what can be played', async () => {
    const text = readFileSync(example('fernhollow'), 'utf8')
      .replace(/"cutoffSoc": [\d.]+,?/, '')
      .replace(/,(\s*})/g, '$1');
    const { code, out } = await call('rehearse', file(text), '--kind', 'outage');
    expect(code).toBe(1);
    expect(out).toContain('cutoffSoc');
  });
});

describe('bastion share', () => {
  it('prints module currents that add up to what the inverters take', async () => {
    const { code, out } = await call('share', example('tern-rock'), '--load', '3000');
    expect(code).toBe(0);
    const report = JSON.parse(out) as {
      modules: { currentA: number; share: number }[];
      bars: { voltageV: number }[];
      worstShare: number;
    };
    // 3000 / 0.92 = 3260.9 W, half for each inverter at its own voltage.
    const drawn = report.bars.reduce((sum, bar) => sum + 3000 / 0.92 / 2 / bar.voltageV, 0);
    expect(report.modules.reduce((sum, one) => sum + one.currentA, 0)).toBeCloseTo(drawn, 6);
    expect(report.worstShare).toBeCloseTo(Math.max(...report.modules.map((one) => one.share)), 12);
  });

  it.each([
    {
      name: 'a load past what the bank gives',
      args: ['--load', '200000'],
      code: 1,
      says: 'is the most it can',
    },
    { name: 'a load that is none', args: ['--load', 'much'], code: 2, says: 'a load in W is needed' },
  ])('says why for $name', async ({ args, code, says }) => {
    const found = await call('share', example('tern-rock'), ...args);
    expect(found.code).toBe(code);
    expect(found.error).toContain(says);
  });

  it('shows the bank that works hardest where each inverter has its own, and whose it is', async () => {
    const design = JSON.parse(readFileSync(example('tern-rock'), 'utf8')) as {
      stacks: { bank: { serves?: string } }[];
    };
    for (const { bank } of design.stacks) bank.serves = 'one-unit';
    const report = JSON.parse((await call('share', file(JSON.stringify(design)), '--load', '3000')).out) as {
      bankOf: string;
      modules: { currentA: number }[];
      bars: { inverter: string; voltageV: number }[];
    };
    expect(report.bars.map((bar) => bar.inverter)).toEqual([report.bankOf]);
    const drawn = 3000 / 0.92 / 2 / (report.bars[0]?.voltageV ?? 0);
    expect(report.modules.reduce((sum, one) => sum + one.currentA, 0)).toBeCloseTo(drawn, 6);
  });

  it('has nothing to share in a string', async () =>
    expect((await call('share', example('quillback'))).error).toContain('No bank of this design'));
});

describe('bastion modes', () => {
  it('finds the floating neutral of the hand-started set, with who runs and what is live', async () => {
    const { code, out } = await call('modes', example('tern-rock'));
    expect(code).toBe(1);
    const { modes, problems } = JSON.parse(out) as ModesReport;
    expect(problems).toEqual([]);
    const island = modes.find(({ id }) => id === 'island');
    expect(island?.neutrals).toEqual([
      { boards: ['Backup output'], bonds: ['the relay of Hut stack'], perhaps: [] },
    ]);
    expect(island?.faults).toEqual([]);
    const bySwitch = modes.find(({ id }) => id === 'transfer-switch');
    expect(bySwitch?.running).toContain('Hand-started set');
    expect(bySwitch?.faults.map(({ kind, what }) => [kind, what])).toEqual([
      ['bonds', '0 neutral–earth bonds on the neutral of Backup output'],
    ]);
    const grid = (id: string) =>
      modes.find((one) => one.id === id)?.energised.some(({ part }) => part === 'grid');
    expect([grid('on-grid'), grid('island')]).toEqual([true, false]);
  });

  it('exits with 0 where every mode is as it should be', async () =>
    expect((await call('modes', example('fernhollow'))).code).toBe(0));
});

/** The reader's own types and what it is at run time differ: it is a class by itself. */
const Reader = dxfParser as unknown as new () => {
  parseSync: (text: string) => { entities: { type: string; text?: string }[] };
};
const readDxf = (text: string) => new Reader().parseSync(text);

describe('bastion draw', () => {
  it.each(['fernhollow', 'tern-rock', 'quillback'])(
    'writes %s as SVG and DXF that others read',
    async (name) => {
      const [svg, dxf] = [join(folder, `${name}.svg`), join(folder, `${name}.dxf`)];
      expect((await call('draw', example(name), '--out', svg, '--mode', 'island')).code).toBe(0);
      expect((await call('draw', example(name), '--out', dxf)).code).toBe(0);
      const text = readFileSync(svg, 'utf8');
      const [shapes] = Object.values(
        new XMLParser({ ignoreAttributes: false }).parse(text) as Record<string, { path: unknown[] }>,
      );
      expect(shapes?.path.length).toBeGreaterThan(40);
      for (const word of ['service board', 'unit 1', 'Island', 'Operating mode'])
        expect(text).toContain(word);
      const read = readDxf(readFileSync(dxf, 'utf8'));
      const words = read.entities.flatMap(({ text: word }) => (word === undefined ? [] : [word]));
      expect(words).toEqual(expect.arrayContaining(['service board', 'unit 1', 'On grid']));
      expect(read.entities.some(({ type }) => type === 'LWPOLYLINE' || type === 'POLYLINE')).toBe(true);
    },
  );

  it('writes a PDF', async () => {
    const pdf = join(folder, 'drawing.pdf');
    expect((await call('draw', example('quillback'), '--out', pdf)).code).toBe(0);
    expect(readFileSync(pdf).subarray(0, 5).toString()).toBe('%PDF-');
  });

  it.each([
    {
      name: 'another ending',
      args: ['--out', 'x.bmp'],
      says: 'a file ending in .svg, .dxf or .pdf',
      code: 1,
    },
    {
      name: 'a mode that is not there',
      args: ['--out', 'x.svg', '--mode', 'flight'],
      says: 'this design has the modes on-grid',
      code: 1,
    },
    { name: 'no file to write', args: [], says: 'bastion draw FILE.json', code: 2 },
  ])('says what is wrong with $name', async ({ args, says, code }) => {
    const found = await call('draw', example('fernhollow'), ...args);
    expect(found.code).toBe(code);
    expect(found.error).toContain(says);
  });
});
