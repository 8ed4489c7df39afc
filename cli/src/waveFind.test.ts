import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { run } from './run.ts';

let folder = '';
beforeAll(() => void (folder = mkdtempSync(join(tmpdir(), 'bastion-wave-'))));
afterAll(() => rmSync(folder, { recursive: true }));

async function call(...args: string[]): Promise<{ code: number; out: string; error: string }> {
  let out = '';
  let error = '';
  const code = await run(args, { out: (text) => void (out += text), error: (text) => void (error += text) });
  return { code, out, error };
}
const example = (name: string): string => new URL(`../../examples/${name}.json`, import.meta.url).pathname;

/** A gap of 12 ms at the peak of 230 V. */
function capture(): string {
  const rows = Array.from({ length: 4000 }, (_, at) => {
    const ms = at / 10;
    const volts = ms < 205 || ms >= 217 ? 325.27 * Math.sin((2 * Math.PI * 50 * ms) / 1000) : 0;
    return `${ms.toFixed(1)},${volts.toFixed(2)}`;
  });
  const path = join(folder, 'capture.csv');
  writeFileSync(path, `t [ms],L1 (V)\n${rows.join('\n')}\n`);
  return path;
}

describe('bastion wave', () => {
  it('measures a capture: 0 inside of what is expected, 1 outside', async () => {
    const inside = await call('wave', capture(), '--transfer', '13');
    expect([inside.code, inside.error]).toEqual([0, '']);
    const figures = JSON.parse(inside.out) as {
      channels: { figures: { id: string; value: number }[] }[];
    };
    expect(figures.channels[0]?.figures.find(({ id }) => id === 'gap')?.value).toBeCloseTo(12, 0);
    expect((await call('wave', capture(), '--transfer', '10')).code).toBe(1);
  });

  it.each([
    [['wave', 'nowhere.csv'], /nowhere.csv/],
    [['wave', example('fernhollow')], /A capture is a .cff/],
    [['wave', example('fernhollow'), '--nominal', '0'], /above nought/],
    [['wave', example('fernhollow'), '--colour', '1'], /not an option/],
  ])('%s: a sentence', async (args, words) => {
    const { code, error } = await call(...args);
    expect(code).toBe(2);
    expect(error).toMatch(words);
  });

  it('writes a rehearsed transfer and measures it again', async () => {
    const path = join(folder, 'rehearsed.cff');
    await call('rehearse', example('quillback'), '--kind', 'transfer', '--wave', path);
    const { out } = await call('wave', path, '--nominal', '120', '--hz', '60');
    expect(JSON.parse(out)).toHaveProperty('record.rateHz', 10_000);
    const refused = await call('rehearse', example('quillback'), '--kind', 'outage', '--wave', path);
    expect([refused.code, refused.error]).toEqual([2, '--wave: only a transfer has a waveform\n']);
  });
});

describe('bastion find', () => {
  it('names the next measurement, and what is left after the answers', async () => {
    const first = JSON.parse(
      (await call('find', example('tern-rock'), '--symptom', 'battery-comms-lost')).out,
    ) as {
      left: object[];
      next: { id: string };
    };
    const after = await call(
      'find',
      example('tern-rock'),
      '--symptom',
      'battery-comms-lost',
      '--answers',
      `${first.next.id}=bad`,
    );
    expect(after.code).toBe(0);
    // 3.2 V is less than a healthy pair has.
    const read = ['--answers', `${first.next.id}=3.2`];
    expect((await call('find', example('tern-rock'), '--symptom', 'battery-comms-lost', ...read)).out).toBe(
      after.out,
    );
    expect((JSON.parse(after.out) as { left: object[] }).left.length).toBeLessThan(first.left.length);
  });

  it.each([
    [['--symptom', 'ghosts'], /one of battery-comms-lost/],
    [['--symptom', 'no-island', '--answers', 'x'], /ID=good, ID=bad, or ID=3.2/],
    // A display shows no figure.
    [['--symptom', 'clock-lost', '--answers', 'measure-battery=3.2'], /where a figure is expected/],
  ])('%s: a sentence', async (options, words) => {
    const { code, error } = await call('find', example('tern-rock'), ...options);
    expect(code).toBe(2);
    expect(error).toMatch(words);
  });
});
