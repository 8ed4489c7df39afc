import { connect } from 'node:net';
import { SAMPLE_TYPES } from '@bastion/core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Caller, codeOf, type Harness, smallDesign, startHarness } from './testkit/harness.ts';

let harness: Harness;
let designer: Caller;
let cookie = '';
let port = 0;
let jobId = 0;
beforeAll(async () => {
  harness = await startHarness();
  designer = await harness.as('designer@north.test');
  jobId = (await designer('POST', '/api/jobs/import', smallDesign())).json<{ id: number }>().id;
  port = Number(new URL(await harness.app.listen({ port: 0, host: '127.0.0.1' })).port);
  const signedIn = await harness.app.inject({
    method: 'POST',
    url: '/api/session',
    payload: { email: 'designer@north.test', password: 'correct horse' },
    remoteAddress: '10.201.0.1',
  });
  cookie = `${signedIn.cookies[0]?.name ?? ''}=${signedIn.cookies[0]?.value ?? ''}`;
});
afterAll(() => harness.close());

/** Sends bytes as they are, and hangs up when the other side does or `hangsUp` says so. What came back. */
function raw(head: readonly string[], body: string, hangsUp = false): Promise<string> {
  return new Promise((resolve, reject) => {
    const socket = connect(port, '127.0.0.1');
    let said = '';
    socket.on('data', (bytes) => (said += bytes.toString()));
    socket.on('close', () => resolve(said));
    socket.on('error', reject);
    socket.write([...head, `host: 127.0.0.1:${port}`, `cookie: ${cookie}`, '', body].join('\r\n'), () => {
      if (hangsUp) setTimeout(() => socket.end(), 50);
    });
  });
}

const statusOf = (answer: string): number => Number(/^HTTP\/1\.1 (\d+)/.exec(answer)?.[1]);

describe('uploads that are not what they should be', () => {
  const part = (name: string) =>
    `--b\r\ncontent-disposition: form-data; name="${name}"; filename="a.png"\r\ncontent-type: image/png\r\n\r\n${'x'.repeat(2000)}\r\n`;
  const head = (type: string, length: number) => [
    `POST /api/jobs/${jobId}/attachments HTTP/1.1`,
    `content-type: ${type}`,
    `content-length: ${length}`,
  ];
  it.each([
    { name: 'without a boundary', type: 'multipart/form-data', body: part('photo') },
    { name: 'without an end', type: 'multipart/form-data; boundary=b', body: part('photo') },
    {
      name: 'of three parts',
      type: 'multipart/form-data; boundary=b',
      body: `${['photo', 'thumbnail', 'third'].map(part).join('')}--b--\r\n`,
    },
    { name: 'with nothing in it', type: 'multipart/form-data; boundary=b', body: '--b--\r\n' },
  ])('one $name is answered with a sentence, and the connection ends', async ({ type, body }) => {
    const answer = await raw(head(type, body.length), body, true);
    expect([400, 415]).toContain(statusOf(answer));
    expect(answer).toMatch(/UPLOAD_BROKEN|NOT_A_PICTURE/);
    expect((await designer('GET', `/api/jobs/${jobId}/attachments`)).json()).toEqual([]);
  });

  it('one that is cut off leaves the server at work', async () => {
    await raw(head('multipart/form-data; boundary=b', 50_000), part('photo'), true);
    expect((await designer('GET', `/api/jobs/${jobId}`)).statusCode).toBe(200);
  });
});

describe('values that lie deep in each other, or are many', () => {
  const deep = (levels: number): string => `${'{"a":'.repeat(levels)}1${'}'.repeat(levels)}`;
  const edit = (after: string): string =>
    `{"baseRevision":1,"editId":"deep-value-1","patches":[{"op":"set","path":["site"],"after":${after}}]}`;
  const send = async (method: string, path: string, body: string) => {
    const answer = await fetch(`http://127.0.0.1:${port}${path}`, {
      method,
      body,
      headers: { 'content-type': 'application/json', cookie },
    });
    return { status: answer.status, text: await answer.text() };
  };

  it.each([
    { path: () => `/api/jobs/${jobId}/edits`, body: edit(deep(3000)), status: 413, says: '3003 deep' },
    { path: () => `/api/jobs/${jobId}/edits`, body: edit(deep(300_000)), status: 413, says: '300003 deep' },
    { path: () => '/api/library', method: 'PUT', body: deep(3000), status: 413, says: '3000 deep' },
    { path: () => '/api/session', body: deep(400), status: 413, says: '400 deep' },
    { path: () => `/api/jobs/${jobId}/edits`, body: '{"baseRevision": 1,', status: 400, says: 'not JSON' },
  ])('$says: $status', async ({ path, method = 'POST', body, status, says }) => {
    const answer = await send(method, path(), body);
    expect(answer).toMatchObject({ status, text: expect.stringContaining(says) as string });
  });

  it.each([
    ['a million empty items', `{"format":6,"circuits":[${'{},'.repeat(1_000_000)}{}]}`, '2,000,004 values'],
    ['a document that nests', `{"format":6,"site":${deep(60)}}`, '61 deep'],
  ])('%s are no design', async (_, text, says) => {
    const answer = await send('POST', '/api/jobs/import', text);
    expect(answer).toMatchObject({ status: 422, text: expect.stringContaining(says) as string });
  });
});

it('a long batch is laid as a short one is', async () => {
  const circuits = Array.from({ length: 300 }, (_, index) => ({
    id: `n${index}`,
    name: `Circuit ${index}`,
    items: [{ id: 'i', name: `Lamp ${'x'.repeat(60)}`, quantity: 1, runningW: 40 }],
  }));
  const batch = (editId: string) => ({
    baseRevision: 1,
    editId,
    patches: circuits.map((entity, index) => ({
      op: 'insert',
      path: ['circuits', entity.id],
      follows: circuits[index - 1]?.id ?? null,
      entity,
    })),
  });
  const { id } = (await designer('POST', '/api/jobs/import', smallDesign())).json<{ id: number }>();
  const answer = await designer('POST', `/api/jobs/${id}/edits`, batch('three-hundred-rows'));
  expect(answer.json()).toEqual({ revision: 2 });
  expect((await designer('POST', `/api/jobs/${id}/edits`, batch('three-hundred-rows'))).json()).toEqual({
    revision: 2,
  });
  const { document } = (await designer('GET', `/api/jobs/${id}`)).json<{
    document: { circuits: object[] };
  }>();
  expect(document.circuits.slice(0, 300)).toEqual(circuits);
  expect(codeOf(await designer('POST', `/api/jobs/${id}/edits`, batch('three-hundred-more')))).toBe(
    'DOCUMENT_INVALID',
  );
  const [first] = circuits;
  const twice = {
    ...batch('twice-the-same-id'),
    baseRevision: 2,
    patches: circuits.map(() => ({
      op: 'insert',
      path: ['circuits', 'z'],
      follows: null,
      entity: { ...first, id: 'z' },
    })),
  };
  expect(codeOf(await designer('POST', `/api/jobs/${id}/edits`, twice))).toBe('DOCUMENT_INVALID');
});

it('types that two people keep at once, in opposite orders, are kept without a failure', async () => {
  const battery = SAMPLE_TYPES.find((type) => type.id === 'lfp-51v-50ah');
  const own = Array.from({ length: 8 }, (_, index) => ({
    ...battery,
    id: `own-${index}`,
    version: 1,
    name: `Own ${index}`,
  }));
  for (let version = 1; version <= 6; version += 1) {
    const types = own.map((type) => ({ ...type, version }));
    const answers = await Promise.all(
      [types, types.toReversed(), types, types.toReversed()].map((one) =>
        designer('POST', '/api/types', { types: one }),
      ),
    );
    // One of them is first; the others are told that a newer version is there.
    expect(answers.map((one) => one.statusCode).sort()).toEqual([200, 409, 409, 409]);
  }
});
