import { connect } from 'node:net';
import { SAMPLE_TYPES } from '@bastion/core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Harness, PASSWORD, smallDesign, startHarness } from '../server/src/testkit/harness.ts';
import { end, type Running, signIn, startServer } from './lib/servers.ts';

/**
 * Input that is far too large or far too slow is answered with a result, or with a refusal that names the figure; and whoever asks for
 * something small meanwhile is answered first.
 */
let harness: Harness;
let server: Running;
let cookie = '';
let jobId = 0;
beforeAll(async () => {
  harness = await startHarness();
  server = await startServer(harness);
  cookie = await signIn(server.address);
  jobId = (
    JSON.parse((await send('POST', '/jobs/import', JSON.stringify(smallDesign()))).text) as { id: number }
  ).id;
});
afterAll(async () => {
  await end(server, 'SIGTERM');
  await harness.close();
});

const HUNG_UP = 0;

async function send(method: string, path: string, body: string | FormData, as = cookie) {
  const answer = await fetch(`${server.address}/api${path}`, {
    method,
    body,
    headers: { cookie: as, ...(typeof body === 'string' ? { 'content-type': 'application/json' } : {}) },
  }).catch(() => undefined);
  return answer === undefined
    ? { status: HUNG_UP, text: '' }
    : { status: answer.status, text: await answer.text() };
}

const design = smallDesign();
const [circuit] = design.circuits;
const rows = (count: number, items: number): string =>
  JSON.stringify({
    ...design,
    circuits: Array.from({ length: count }, (_, at) => ({
      id: `c${at}`,
      name: 'x',
      items: Array.from({ length: items }, () => ({})),
    })),
  });

function stacked(stacks: number, units: number, modules: number): string {
  const lead = { lengthM: 0.3, areaMm2: 2.5 };
  const bank = {
    batteryTypeId: SAMPLE_TYPES.find(({ kind }) => kind === 'battery')?.id,
    joining: 'chain-diagonal',
    lead,
    inverterLead: lead,
    modules: Array.from({ length: modules }, (_, at) => ({ id: `m${at}` })),
  };
  return JSON.stringify({
    ...design,
    partitions: [],
    circuits: [{ ...circuit, partitionId: undefined }],
    stacks: Array.from({ length: stacks }, (_, at) => ({
      id: `s${at}`,
      name: 'x',
      inverterTypeId: 'hybrid-5k-1ph',
      arrangement: 'parallel-single-phase',
      units: Array.from({ length: units }, (__, unit) => ({ id: `u${unit}` })),
      bank,
    })),
  });
}

const manyEdits = (count: number): string =>
  JSON.stringify({
    baseRevision: 1,
    editId: `so-many-edits-${count}`,
    patches: Array.from({ length: count }, (_, at) => ({
      op: 'set',
      path: ['circuits', 'c1', 'name'],
      before: 'Heater',
      after: `Heater ${at}`,
    })),
  });

/** A picture of nothing but markers that hold nothing. */
function emptyMarkers(): FormData {
  const bytes = Buffer.alloc(11_000_000, Buffer.from([0xff, 0xe1, 0x00, 0x02]));
  bytes.set([0xff, 0xd8], 0);
  bytes.set([0xff, 0xd9], bytes.length - 2);
  const form = new FormData();
  form.set('photo', new Blob([new Uint8Array(bytes)]), 'markers.jpg');
  form.set('thumbnail', new Blob([new Uint8Array(bytes.subarray(0, 100))]), 'small.jpg');
  return form;
}

const unknownFields = (): string =>
  JSON.stringify({
    ...design,
    ...Object.fromEntries(Array.from({ length: 800_000 }, (_, at) => [`unknown${at}`, at])),
  });

interface Case {
  readonly name: string;
  readonly method?: string;
  readonly path: () => string;
  readonly body: () => string | FormData;
  readonly answered: readonly number[];
  readonly says?: string;
  /** It takes its time: others are answered many times meanwhile. */
  readonly isLong?: boolean;
}

const imports = (name: string, body: () => string, answered: readonly number[], says?: string): Case => ({
  name,
  path: () => '/jobs/import',
  body,
  answered,
  ...(says === undefined ? {} : { says }),
});

const CASES: readonly Case[] = [
  imports('10,000 circuits of 200 empty items', () => rows(10_000, 200), [422], '1,000,000 is the most'),
  imports('10,001 circuits', () => rows(10_001, 0), [422]),
  imports('18 MB of unknown fields', unknownFields, [422], '800,018 fields'),
  imports('two sets of 30 units and 30 modules', () => stacked(2, 30, 30), [201, 422]),
  imports('16 units on 64 modules', () => stacked(1, 16, 64), [201, 422]),
  {
    ...imports(
      '64 units on 512 modules that cannot give what is asked',
      () => stacked(1, 64, 512),
      [201, 422],
    ),
    isLong: true,
  },
  // Whoever sends so much may be hung up on before all of it is sent.
  imports('25 MB of anything', () => ' '.repeat(25 * 1024 * 1024), [413]),
  {
    name: '20,000 edits of one batch',
    path: () => `/jobs/${jobId}/edits`,
    body: () => manyEdits(20_000),
    answered: [200],
    isLong: true,
  },
  {
    name: '20,001 edits of one batch',
    path: () => `/jobs/${jobId}/edits`,
    body: () => manyEdits(20_001),
    answered: [400],
  },
  {
    name: 'a list of 10,001 ids to be put in order',
    path: () => `/jobs/${jobId}/edits`,
    body: () =>
      JSON.stringify({
        baseRevision: 1,
        editId: 'a-long-order',
        patches: [
          { op: 'order', path: ['circuits'], before: [], after: Array.from({ length: 10_001 }, String) },
        ],
      }),
    answered: [400],
  },
  {
    name: 'a picture of empty markers',
    path: () => `/jobs/${jobId}/attachments`,
    body: emptyMarkers,
    answered: [415, 422],
    isLong: true,
  },
];

describe.each(CASES)('$name', ({ method = 'POST', path, body, answered, says, isLong = false }) => {
  it('is answered, and keeps nobody else waiting', async () => {
    const ended: string[] = [];
    const given = body();
    const large = send(method, path(), given).then((answer) => (ended.push('large'), answer));
    // Small questions, one after the other, for as long as the large one is worked on.
    let small = 0;
    while (ended.length === 0) {
      const answer = await fetch(`${server.address}/api/jobs/${jobId}/runs`, { headers: { cookie } });
      expect(answer.status).toBe(200);
      small += 1;
    }
    const { status, text } = await large;
    expect(answered, text.slice(0, 300)).toContain(status);
    if (says !== undefined) expect(text).toContain(says);
    expect(small).toBeGreaterThan(isLong ? 10 : 0);
  });
});

it('before signing in nothing long is read', async () => {
  const body = JSON.stringify({ userId: 1, rest: 'x'.repeat(4_000_000) });
  // Many times: an answer that a reset connection may overtake arrives most of the time too.
  for (let at = 0; at < 60; at += 1) expect((await send('POST', '/session/demo', body, '')).status).toBe(413);
  const credentials = JSON.stringify({
    email: 'designer@north.test',
    password: PASSWORD,
    rest: 'x'.repeat(5000),
  });
  expect((await send('POST', '/session', credentials, '')).status).toBe(413);
});

it('a body that is refused and never ends is answered, then cut off', { timeout: 30_000 }, async () => {
  const socket = connect(Number(new URL(server.address).port), '127.0.0.1');
  let heard = '';
  socket.on('data', (bytes) => (heard += bytes.toString()));
  const closed = new Promise((resolve) => socket.once('close', resolve));
  socket.write('POST /api/session/demo HTTP/1.1\r\nhost: x\r\ncontent-type: application/json\r\n');
  socket.write('content-length: 4000000\r\n\r\n{');
  await closed;
  expect(heard).toMatch(/^HTTP\/1\.1 413 /);
});
