import { createServer, type Server, type Socket } from 'node:net';
import { readFileSync } from 'node:fs';
import {
  analyse,
  type Design,
  generateProcedure,
  liveFigure,
  liveSource,
  readDesignText,
  rowsOfSite,
  SAMPLE_TYPES,
  siteRegisters,
  siteValues,
  spansOf,
  valuesOfSpan,
} from '@bastion/core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import ModbusClient from 'modbus-serial';
import { freePort } from './lib/freePort.ts';
import { DeviceLost, ModbusDevice } from '../server/src/live/modbusDevice.ts';
import { type ModbusServer, type OpenedSite, serveModbus, Sites } from '../site-sim/src/index.ts';

const HOST = '127.0.0.1';

function sample(name: string): Design {
  const text = readFileSync(new URL(`../examples/${name}.json`, import.meta.url), 'utf8');
  const read = readDesignText(text, SAMPLE_TYPES);
  if (!read.ok) throw new Error(read.problems[0]?.message);
  return read.value;
}

let port = 0;
let nowMs = 0;
let sites: Sites;
let server: ModbusServer;
let site: OpenedSite;

beforeAll(async () => {
  port = await freePort();
  sites = new Sites({ nowMs: () => nowMs, seed: () => 7, host: HOST, port: () => port });
  const opened = sites.open('1-1', 4, sample('fernhollow'), 3);
  if (typeof opened === 'string') throw new Error(opened);
  site = opened;
  for (const { unit } of site.plan.sets[0]?.units ?? [])
    sites.command(site, { do: 'firmware', stackId: 's1', unitId: unit.id });
  server = await serveModbus(sites, HOST, port);
});
afterAll(() => server.close());

const device = (unitId: number): ModbusDevice =>
  new ModbusDevice({ host: HOST, port, unitId, rows: undefined });

describe('a site over the wire', () => {
  it('runs by the clock that is handed in, at its own speed, and never backwards', () => {
    sites.advance();
    nowMs += 250;
    sites.advance();
    expect(site.state.timeS).toBeCloseTo(0.2, 9);
    nowMs += 250;
    sites.advance();
    expect(site.state.timeS).toBeCloseTo(0.5, 9);
    sites.act(site, { kind: 'speed', speed: 100 });
    nowMs += 100;
    sites.advance();
    expect(site.state.timeS).toBeCloseTo(10.5, 9);
    nowMs -= 5000;
    sites.advance();
    sites.act(site, { kind: 'speed', speed: 0 });
    nowMs += 60_000;
    sites.advance();
    expect(site.state.timeS).toBeCloseTo(10.5, 9);
  });

  it('is read whole by the reader of the application, figure for figure', async () => {
    sites.act(site, { kind: 'bring-up' });
    const reader = device(site.unitId);
    const { figures, refused } = await reader.read();
    reader.close();
    expect(refused).toEqual([]);
    const { rows } = siteRegisters(site.plan, site.state);
    expect(Object.keys(figures).sort()).toEqual(rows.map(({ key }) => key).sort());
    const values = siteValues(site.plan, site.state);
    for (const { key, scale } of rows)
      if (values[key] !== null)
        expect(Math.abs((figures[key] ?? NaN) - (values[key] ?? NaN)), key).toBeLessThanOrEqual(
          scale / 2 + 1e-9,
        );
    expect(figures['set.1.phase']).toBe(3);
    expect(figures['site.modules']).toBe(8);
  });

  it('answers the figures of the test that a device can know, and they are within what the test expects', async () => {
    const { installation } = analyse(site.plan.design, SAMPLE_TYPES);
    sites.command(site, { do: 'grid', present: false });
    sites.act(site, { kind: 'command', command: { do: 'test-load', line: 0, watts: 2381 } });
    nowMs += 1;
    sites.act(site, { kind: 'speed', speed: 1 });
    nowMs += 2000;
    sites.advance();
    const reader = device(site.unitId);
    const { figures } = await reader.read();
    reader.close();
    const left = new Set<string>();
    const steps = generateProcedure(analyse(site.plan.design, SAMPLE_TYPES)).steps;
    for (const step of steps)
      for (const reading of step.readings) {
        const source = liveSource(installation, step, reading);
        if (source === undefined) left.add(reading.kind === 'confirmation' ? 'by eye' : reading.id);
        else expect(source.key in figures, `${step.id} ${reading.id} ${source.key}`).toBe(true);
      }
    // What a hand has to measure: dead tests, strings, bonds, neutral to earth, and which way a sensor counts when a load is switched.
    expect([...left].sort()).toEqual([
      'bonds-generator-port',
      'bonds-island',
      'bonds-maintenance-bypass',
      'bonds-on-grid',
      'by eye',
      'charge-current-s1',
      'direction-ctL1',
      'direction-ctL2',
      'direction-ctL3',
      'direction-met1',
      'earth-continuity',
      'insulation',
      'limits-open',
      'module-share-s1',
      'neutral-earth',
      'voc-a1-p1',
      'voc-a2-p1',
    ]);
    for (const id of ['island-s1', 'load-s1-L1-25']) {
      const step = steps.find((one) => one.id === id) ?? expect.fail();
      for (const reading of step.readings) {
        const source = liveSource(installation, step, reading);
        if (source === undefined) continue;
        const value = liveFigure(source, figures) ?? NaN;
        expect(value, `${id} ${reading.id}`).toBeGreaterThanOrEqual(reading.expected?.low ?? -Infinity);
        expect(value, `${id} ${reading.id}`).toBeLessThanOrEqual(reading.expected?.high ?? Infinity);
      }
    }
    const load = { id: 'load-s1-L2-25' };
    expect(liveSource(installation, load, { id: 'unit-u3', kind: 'number' })?.key).toBe('unit.3.currentA');
    expect(liveSource(installation, load, { id: 'battery-current', kind: 'number' })?.key).toBe(
      'set.1.batteryA',
    );
    expect(liveFigure({ key: 'set.1.islandS', factor: 1 / 3600 }, { 'set.1.islandS': 5400 })).toBe(1.5);
    expect(liveFigure({ key: 'set.1.soc', factor: 1 }, { 'set.1.soc': null })).toBeUndefined();
  });

  it('takes what is written, and refuses what may not be', async () => {
    const client = new ModbusClient();
    await client.connectTCP(HOST, { port });
    client.setID(site.unitId);
    const at = (key: string): number =>
      rowsOfSite(siteValues(site.plan, site.state)).find((row) => row.key === key)?.address ?? -1;
    await client.writeRegisters(at('line.1.testLoadW'), [0, 1200]);
    await client.writeRegister(at('circuit.1.on'), 1);
    expect(site.state.testLoadW[0]).toBe(1200);
    expect(site.state.circuits[0]?.isOn).toBe(true);
    await expect(client.writeRegister(at('site.mode'), 1)).rejects.toMatchObject({ modbusCode: 2 });
    await expect(client.writeRegister(at('unit.1.on'), 0xffff)).rejects.toMatchObject({ modbusCode: 3 });
    await expect(client.readHoldingRegisters(60000, 2)).rejects.toMatchObject({ modbusCode: 2 });
    client.setID(200);
    await expect(client.readHoldingRegisters(0, 2)).rejects.toMatchObject({ modbusCode: 11 });
    client.close(() => undefined);
    await expect(device(200).read()).rejects.toThrow('nobody answers under that unit identifier');
  });

  it('keeps one site for a job, opens others beside it, and lets the one go that nobody asked for longest', () => {
    const own = new Sites({ nowMs: () => nowMs, seed: () => 1, host: HOST, port: () => port });
    const design = sample('tern-rock');
    const first = own.open('a', 1, design, 1);
    const again = own.open('a', 2, design, 1);
    expect(typeof first === 'object' && typeof again === 'object' && first.unitId === again.unitId).toBe(
      true,
    );
    for (let at = 0; at < 64; at += 1) {
      nowMs += 10;
      expect(typeof own.open(`job ${at}`, 1, design, 1)).toBe('object');
    }
    expect(own.find('a')).toBeUndefined();
    expect(own.find('job 63')?.unitId).toBe(own.find('job 63')?.unitId);
    expect(own.open('b', 1, { ...design, stacks: [] }, 1)).toContain('cannot be');
    expect(own.open('b', 1, { name: 'x' }, 1)).toContain('cannot be read');
  });
});

describe('a device that is not what it should be', () => {
  const open: Server[] = [];
  afterAll(() => open.forEach((one) => one.close()));
  async function answering(answer: (socket: Socket, asked: Buffer) => void): Promise<ModbusDevice> {
    const bad = createServer((socket) => {
      socket.on('error', () => undefined);
      socket.on('data', (asked) => answer(socket, asked));
    }).listen(0, HOST);
    open.push(bad);
    await new Promise((resolve) => bad.once('listening', resolve));
    const address = bad.address();
    const own = typeof address === 'object' && address !== null ? address.port : 0;
    return new ModbusDevice({ host: HOST, port: own, unitId: 1, rows: undefined });
  }
  const frame = (asked: Buffer, bytes: readonly number[], turn = 0): Buffer =>
    Buffer.from([asked[0] ?? 0, (asked[1] ?? 0) + turn, 0, 0, 0, bytes.length, ...bytes]);
  const words = (asked: Buffer, first: number): number[] => {
    const count = asked.readUInt16BE(10);
    return [1, 3, 2 * count, 0, first, ...Array.from({ length: 2 * count - 2 }, () => 0)];
  };

  it.each<[string, (socket: Socket, asked: Buffer) => void, string]>([
    ['nothing', () => undefined, 'did not answer within 2 s'],
    [
      'another protocol',
      (socket) => void socket.write('HTTP/1.1 400 Bad Request\r\n\r\n'),
      'did not answer within 2 s',
    ],
    [
      'an answer to somebody else',
      (socket, asked) => void socket.write(frame(asked, words(asked, 1), 9)),
      'did not answer',
    ],
    [
      'too few registers',
      (socket, asked) => void socket.write(frame(asked, [1, 3, 2, 0, 1])),
      'cannot be read',
    ],
    ['half a frame', (socket, asked) => void socket.write(frame(asked, [1])), 'cannot be read'],
    ['a length of nothing', (socket, asked) => void socket.write(frame(asked, [])), 'did not answer'],
    [
      'an exception',
      (socket, asked) => void socket.write(frame(asked, [1, 0x83, 2])),
      'it has no such registers',
    ],
    ['a hang-up', (socket) => void socket.end(), 'hung up'],
    [
      'another map',
      (socket, asked) => void socket.write(frame(asked, words(asked, 7))),
      'its first register is 7, not 2',
    ],
    [
      'an answer that comes late',
      (socket, asked) => void setTimeout(() => socket.write(frame(asked, words(asked, 1))), 2300),
      'did not answer',
    ],
  ])('%s: a sentence, and nothing is taken', async (_, answer, sentence) => {
    const bad = await answering(answer);
    const read = bad.read();
    await expect(read).rejects.toThrow(sentence);
    await expect(read).rejects.toBeInstanceOf(DeviceLost);
    bad.close();
  });

  it('has nothing listening', async () => {
    await expect(
      new ModbusDevice({ host: HOST, port: await freePort(), unitId: 1, rows: undefined }).read(),
    ).rejects.toThrow('nothing listens there');
  });

  it('is read by a map of its own, and says which parts it refused', async () => {
    const row = (key: string, address: number) =>
      ({ key, address, type: 'u16', scale: 0.1, unit: 'V', access: 'read', meaning: '' }) as const;
    const rows = [row('line.1.voltageV', 40), row('line.2.voltageV', 900)];
    // Nobody knows what lies between the rows of a foreign map: they are asked for one by one.
    expect(spansOf(rows, 0).map(({ address, length }) => [address, length])).toEqual([
      [40, 1],
      [900, 1],
    ]);
    expect(valuesOfSpan(spansOf(rows, 0)[0] ?? expect.fail(), [2301])).toEqual([['line.1.voltageV', 230.1]]);
    const bad = await answering((socket, asked) => {
      const isFirst = asked.readUInt16BE(8) === 40;
      socket.write(frame(asked, isFirst ? [1, 3, 2, 8, 253] : [1, 0x83, 2]));
    });
    const address = open.at(-1)?.address();
    const own = typeof address === 'object' && address !== null ? address.port : 0;
    bad.close();
    const reader = new ModbusDevice({ host: HOST, port: own, unitId: 1, rows });
    expect(await reader.read()).toEqual({
      figures: { 'line.1.voltageV': 230.1 },
      refused: ['Registers 900 to 900 were refused: it has no such registers.'],
    });
    reader.close();
  });
});
