import { liveWire, siteWire } from '@bastion/core';
import type { FastifyInstance } from 'fastify';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import {
  type Caller,
  codeOf,
  type Harness,
  PASSWORD,
  smallDesign,
  startHarness,
} from '../server/src/testkit/harness.ts';
import { liveHub } from '../server/src/services/live.ts';
import { controlOf, type ModbusServer, serveModbus, Sites } from '../site-sim/src/index.ts';
import { freePort } from './lib/freePort.ts';

const HOST = '127.0.0.1';
const TOKEN = 'a word that nobody else has';

let harness: Harness;
let control: FastifyInstance;
let modbus: ModbusServer;
let field: Caller;
let jobId = 0;
let port = 0;

const battery = {
  batteryTypeId: 'lfp-51v-100ah',
  modules: [{ id: 'm1' }, { id: 'm2' }],
  reserveSoc: 0.5,
  cutoffSoc: 0.1,
  joining: 'bars-equal',
  lead: { lengthM: 1, areaMm2: 50 },
  barSegment: { lengthM: 0.2, areaMm2: 200 },
  inverterLead: { lengthM: 1.5, areaMm2: 70 },
} as const;

beforeAll(async () => {
  port = await freePort();
  const sites = new Sites({ nowMs: () => 0, seed: () => 1, host: HOST, port: () => port });
  modbus = await serveModbus(sites, HOST, port);
  control = controlOf(sites, TOKEN);
  const controlPort = await freePort();
  await control.listen({ host: HOST, port: controlPort });
  harness = await startHarness({ site: { url: `http://${HOST}:${controlPort}`, token: TOKEN } });
  const designer = await harness.as('designer@north.test');
  const design = smallDesign();
  const [stack] = design.stacks;
  const imported = { ...design, stacks: [{ ...stack, bank: battery, units: [{ id: 'u1', barPlace: 1 }] }] };
  jobId = (await designer('POST', '/api/jobs/import', imported)).json<{ id: number }>().id;
  field = await harness.as('field@north.test');
});
afterAll(async () => {
  await harness.close();
  await control.close();
  await modbus.close();
});

const act = async (caller: Caller, action: siteWire.SiteAction): Promise<siteWire.OpenSite> =>
  siteWire.openSite.parse((await caller('POST', `/api/jobs/${jobId}/site/actions`, action)).json());

describe('the simulated site behind the server', () => {
  it('is opened from the design as it stands, brought up and worked', async () => {
    expect(codeOf(await field('GET', `/api/jobs/${jobId}/site`))).toBe('SITE_NOT_OPEN');
    const opened = siteWire.openSite.parse((await field('POST', `/api/jobs/${jobId}/site`)).json());
    expect(opened).toMatchObject({ host: HOST, port, unitId: 1, revision: 1, speed: 1 });
    const up = await act(field, { kind: 'bring-up' });
    expect(up.view.sets[0]?.phase).toBe('joined');
    await act(field, { kind: 'command', command: { do: 'grid', present: false } });
    const refused = await act(field, {
      kind: 'command',
      command: { do: 'unit', stackId: 's', unitId: 'u9', on: true },
    });
    expect(refused.problem).toBe('There is no such unit.');
    const menu = siteWire.siteMenu.parse((await field('GET', `/api/jobs/${jobId}/site/menu`)).json());
    expect(menu.faults.some(({ kind }) => kind === 'module-aged')).toBe(true);
  });

  it('shows an apprentice nothing of the fault until it is named', async () => {
    const begun = await act(field, { kind: 'exercise', ask: { kind: 'module-aged' } });
    const text = JSON.stringify(begun);
    expect(text).not.toContain('module-aged');
    expect(begun.view).toMatchObject({ faults: [], events: [] });
    const planted = await act(field, {
      kind: 'command',
      command: { do: 'plant', fault: { kind: 'unit-dropped', at: 's/u1' } },
    });
    expect(planted.problem).toContain('While an exercise runs');
    const over = await act(field, { kind: 'act', act: { act: 'give-up' } });
    expect(over.view.exercise?.result).toMatchObject({ isFound: false, score: 0 });
    expect(over.view.faults).toEqual([expect.objectContaining({ kind: 'module-aged' })]);
  });

  it('belongs to its firm, and answers nobody without the word', async () => {
    const other = await harness.as('designer@south.test');
    expect(codeOf(await other('GET', `/api/jobs/${jobId}/site`))).toBe('NOT_FOUND');
    expect((await control.inject({ method: 'GET', url: '/sites/1-1' })).statusCode).toBe(401);
  });

  it('says why a design cannot be simulated', async () => {
    const designer = await harness.as('designer@north.test');
    const bare = (await designer('POST', '/api/jobs', { name: 'Bare' })).json<{ id: number }>().id;
    const answer = await field('POST', `/api/jobs/${bare}/site`);
    expect([codeOf(answer), answer.statusCode]).toEqual(['SITE_IMPOSSIBLE', 422]);
    expect(answer.body).toContain('Not known');
  });
});

describe('reading live', () => {
  const device = (over: Partial<liveWire.LiveDevice> = {}): liveWire.LiveDevice => ({
    host: HOST,
    port,
    unitId: 1,
    everyMs: 200,
    ...over,
  });

  it('connects to this machine alone, unless whoever runs the server allows more', async () => {
    for (const host of ['192.168.1.10', 'example.test', '10.0.0.1', '127.0.0.1.example.test', '0.0.0.0'])
      expect(codeOf(await field('POST', `/api/jobs/${jobId}/live`, device({ host })))).toBe('LIVE_HOST');
    for (const host of ['127.0.0.1', '127.9.9.9', 'localhost', '::1'])
      expect((await field('POST', `/api/jobs/${jobId}/live`, device({ host }))).statusCode).toBe(201);
    const wide = liveHub(['inverter.test'], () => new Date(0));
    expect(wide.open('somebody', device({ host: 'inverter.test' }))).toMatch(/^[0-9a-f-]{36}$/);
    expect(() => wide.open('somebody', device({ host: 'other.test' }))).toThrow('on its own machine alone');
  });

  it('streams figures while the device answers, and a sentence as soon as it does not', async () => {
    await field('POST', `/api/jobs/${jobId}/site`);
    await act(field, { kind: 'bring-up' });
    const address = await harness.app.listen({ host: HOST, port: await freePort() });
    const signedIn = await harness.app.inject({
      method: 'POST',
      url: '/api/session',
      payload: { email: 'field@north.test', password: PASSWORD },
    });
    const [session] = signedIn.cookies;
    const cookie = `${session?.name ?? ''}=${session?.value ?? ''}`;
    const joined = await field('POST', `/api/jobs/${jobId}/live`, device());
    const { linkId } = liveWire.liveLink.parse(joined.json());
    const stream = await fetch(`${address}/api/jobs/${jobId}/live/${linkId}`, { headers: { cookie } });
    if (!stream.ok) throw new Error(await stream.text());
    const reader = stream.body?.getReader();
    if (reader === undefined) throw new Error('It streams.');
    const decoder = new TextDecoder();
    let text = '';
    const nextWhere = async (
      fits: (message: liveWire.LiveMessage) => boolean,
    ): Promise<liveWire.LiveMessage> => {
      for (;;) {
        const end = text.indexOf('\n\n');
        if (end < 0) {
          const { value, done } = await reader.read();
          if (done) throw new Error('The stream ended.');
          text += decoder.decode(value, { stream: true });
          continue;
        }
        const message = liveWire.liveMessage.parse(JSON.parse(text.slice('data: '.length, end)));
        text = text.slice(end + 2);
        if (fits(message)) return message;
      }
    };
    const heard = await nextWhere(({ kind }) => kind === 'figures');
    if (heard.kind !== 'figures') throw new Error('These are figures.');
    expect(heard.figures['set.1.phase']).toBe(3);
    expect(heard.figures['line.1.voltageV']).toBeGreaterThan(220);
    await field('DELETE', `/api/jobs/${jobId}/site`);
    const lost = await nextWhere(({ kind }) => kind === 'lost');
    expect(lost).toMatchObject({
      sentence: expect.stringContaining('nobody answers under that unit') as string,
    });
    // Somebody else's link is not theirs to hear.
    const other = await harness.as('designer@north.test');
    expect((await other('GET', `/api/jobs/${jobId}/live/${linkId}`)).statusCode).toBe(404);
    await reader.cancel();
  });
});
