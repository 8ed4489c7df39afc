import { mkdtemp, readdir, readFile, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { QueryTypes } from 'sequelize';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { errorSentence, fileLog } from './log.ts';
import { type Caller, type Harness, smallDesign, startHarness } from './testkit/harness.ts';

const TOKEN = 'a-token-of-the-machine';
const lines: string[] = [];
let harness: Harness;
let designer: Caller;
beforeAll(async () => {
  harness = await startHarness({
    photosIn: 'database',
    metricsToken: TOKEN,
    log: { write: (line) => lines.push(line) },
  });
  designer = await harness.as('designer@north.test');
});
afterAll(() => harness.close());

const count = (table: string) =>
  harness.database.sequelize.query(`SELECT COUNT(*) AS n FROM ${table}`, { type: QueryTypes.SELECT });
const get = (url: string, authorization?: string) =>
  harness.app.inject({ url, ...(authorization === undefined ? {} : { headers: { authorization } }) });

describe('the log', () => {
  it('has a line for each request, with no secret in it', async () => {
    await get('/api/session/link/a-secret-token-of-a-link');
    await designer('GET', '/api/jobs?token=also-secret');
    await harness.app.inject({
      method: 'POST',
      url: '/api/session',
      payload: { email: 'designer@north.test', password: 'not-this-one' },
    });
    const read = lines.map((line) => JSON.parse(line) as Record<string, unknown>);
    expect(read).toContainEqual(
      expect.objectContaining({
        route: 'GET /api/session/link/:token',
        status: 410,
        time: expect.any(String) as string,
      }),
    );
    expect(read).toContainEqual(
      expect.objectContaining({ route: 'GET /api/jobs', status: 200, ms: expect.any(Number) as number }),
    );
    expect(lines.join('')).not.toMatch(/secret|not-this-one|correct horse|bastion_session/);
  });

  it('tells what failed inside with its cause, and the caller nothing of it', async () => {
    const { models } = harness.database;
    const { id } = (await designer('POST', '/api/jobs/import', smallDesign())).json<{ id: number }>();
    const photo = await models.attachments.create({
      jobId: id,
      name: 'gone',
      mediaType: 'image/png',
      width: 1,
      height: 1,
      bytes: 1,
      hash: 'ab'.repeat(32),
      thumbnailHash: 'ab'.repeat(32),
      addedBy: 'x',
      addedAt: new Date(),
    });
    const answer = await designer('GET', `/api/attachments/${photo.id}`);
    expect(answer.statusCode).toBe(500);
    expect(answer.body).not.toContain('ENOENT');
    const told = lines.map((line) => errorSentence(line)).filter((sentence) => sentence !== undefined);
    expect(told).toEqual([expect.stringMatching(/^GET \/api\/attachments\/:attachmentId: ENOENT/)]);
  });

  it('follows itself in files of a folder, and passes errors on', async () => {
    const folder = await mkdtemp(join(tmpdir(), 'bastion-log-'));
    const told: string[] = [];
    const log = fileLog(folder, (sentence) => told.push(sentence));
    log.write('{"level":30,"msg":"all is well"}\n');
    log.write('{"level":50,"route":"GET /x","err":{"message":"it broke"}}\n');
    await expect.poll(async () => (await readdir(folder)).length).toBeGreaterThan(0);
    await expect
      .poll(async () => (await readFile(join(folder, 'server.jsonl'), 'utf8')).split('\n').length)
      .toBe(3);
    expect(told).toEqual(['GET /x: it broke']);
    await rm(folder, { recursive: true });
  });
});

describe('what is said of the state of a server', () => {
  it('health has written into the database and into the folder', async () => {
    expect((await get('/api/health')).json()).toEqual({
      status: 'ok',
      database: 'ok',
      files: 'ok',
      version: '0.0.0-test',
    });
    expect(await count('health')).toEqual([{ n: 1 }]);
  });

  it('figures are for whoever has the token', async () => {
    expect((await get('/api/metrics')).statusCode).toBe(401);
    expect((await get('/api/metrics', 'Bearer something-else-here')).statusCode).toBe(401);
    const figures = await get('/api/metrics', `Bearer ${TOKEN}`);
    expect(figures.statusCode).toBe(200);
    expect(figures.body).toMatch(/bastion_request_seconds_count\{route="GET \/api\/health",status="200"\} 1/);
    expect(figures.body).toContain('bastion_documents_open');
  });
});

it('a photo sent again under its key is kept once, in the database where that is set', async () => {
  const png = Buffer.from(
    'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
    'base64',
  );
  const { id } = (await designer('POST', '/api/jobs/import', smallDesign())).json<{ id: number }>();
  const send = (key: string) => {
    const form = new FormData();
    form.set('photo', new Blob([png]), 'box.png');
    form.set('thumbnail', new Blob([png]), 'small.png');
    return designer('POST', `/api/jobs/${id}/attachments?key=${key}`, form);
  };
  const answers = await Promise.all([send('photo-key-1'), send('photo-key-1'), send('photo-key-2')]);
  const [first, again, other] = answers.map((answer) => answer.json<{ id: number }>().id);
  expect(again).toBe(first);
  expect(other).not.toBe(first);
  expect((await designer('GET', `/api/jobs/${id}/attachments`)).json()).toHaveLength(2);
  expect((await designer('GET', `/api/attachments/${first ?? 0}`)).rawPayload.equals(png)).toBe(true);
  expect(await count('photo_bytes')).toEqual([{ n: 1 }]);
});
