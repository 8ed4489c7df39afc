import { wire } from '@bastion/core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Caller, codeOf, type Harness, smallDesign, startHarness } from './testkit/harness.ts';

let harness: Harness;
let field: Caller;
let designer: Caller;
let jobId = 0;
beforeAll(async () => {
  harness = await startHarness();
  designer = await harness.as('designer@north.test');
  field = await harness.as('field@north.test');
  jobId = (await designer('POST', '/api/jobs/import', smallDesign())).json<{ id: number }>().id;
});
afterAll(() => harness.close());

const start = async (): Promise<wire.TestRun> =>
  wire.testRun.parse((await field('POST', `/api/jobs/${jobId}/runs`)).json());
const read = (runId: number, body: object, caller = field) =>
  caller('POST', `/api/runs/${runId}/readings`, {
    stepId: 'island-s',
    readingId: 'voltage-L1',
    attempt: 1,
    ...body,
  });
const end = (runId: number, body: object) => field('POST', `/api/runs/${runId}/end`, body);

describe('a run of the islanding test', () => {
  it('keeps its procedure when the design changes afterwards', async () => {
    const run = await start();
    await designer('PUT', `/api/jobs/${jobId}/document`, {
      ...smallDesign(),
      site: { ...smallDesign().site, lineVoltageV: 240 },
    });
    const again = wire.testRun.parse((await field('GET', `/api/runs/${run.id}`)).json());
    expect(again).toEqual(run);
    expect((await start()).revision).toBeGreaterThan(run.revision);
  });

  it('only ever adds readings: a correction names the earlier one, a retest has a higher attempt', async () => {
    const run = await start();
    const first = wire.reading.parse((await read(run.id, { value: 2300 })).json());
    const second = wire.reading.parse((await read(run.id, { value: 230, corrects: first.id })).json());
    await read(run.id, { value: 231, attempt: 2 });
    const { readings } = wire.testRun.parse((await field('GET', `/api/runs/${run.id}`)).json());
    expect(readings.map((one) => [one.value, one.attempt, one.corrects])).toEqual([
      [2300, 1, null],
      [230, 1, first.id],
      [231, 2, null],
    ]);
    expect(second).toMatchObject({ by: 'north field', at: '2026-03-01T10:00:00.000Z' });
  });

  it('records a key once however often it is sent, and no other value under it', async () => {
    const run = await start();
    const key = '0f8fad5b-d9cb-469f-a165-70867728950e';
    const all = await Promise.all(Array.from({ length: 8 }, () => read(run.id, { value: 230, key })));
    expect(new Set(all.map((one) => wire.reading.parse(one.json()).id)).size).toBe(1);
    expect(codeOf(await read(run.id, { value: 231, key }))).toBe('READING_KEY_REUSED');
    // Keys are compared letter by letter.
    expect((await read(run.id, { value: 231, key: key.toUpperCase() })).statusCode).toBe(201);
    const { readings } = wire.testRun.parse((await field('GET', `/api/runs/${run.id}`)).json());
    expect(readings.map((one) => one.value)).toEqual([230, 231]);
    // Sent again after the end it is still answered with what was recorded.
    await end(run.id, { state: 'finished', reason: '' });
    expect((await read(run.id, { value: 230, key })).statusCode).toBe(201);
  });

  it('is finished or aborted, never both, and takes no reading after its end', async () => {
    const run = await start();
    const answers = await Promise.all([
      end(run.id, { state: 'finished', reason: '' }),
      end(run.id, { state: 'aborted', reason: 'storm' }),
      ...Array.from({ length: 6 }, (_, n) => read(run.id, { value: n })),
      end(run.id, { state: 'finished', reason: '' }),
    ]);
    const ends = [answers[0], answers[1], answers.at(-1)];
    expect(ends.filter((one) => one?.statusCode === 200)).toHaveLength(1);
    const { readings, endedAt } = wire.testRun.parse((await field('GET', `/api/runs/${run.id}`)).json());
    expect(endedAt).not.toBeNull();
    expect(readings).toHaveLength(answers.filter((one) => one.statusCode === 201).length);
  });

  it('is not started on a design that no test can be made of', async () => {
    const design = smallDesign();
    for (const stack of design.stacks)
      if (typeof stack.bank === 'object')
        for (const module of stack.bank.modules) module.fitted = 'taken-out';
    const job = (await designer('POST', '/api/jobs/import', design)).json<{ id: number }>().id;
    const answer = await field('POST', `/api/jobs/${job}/runs`);
    if (answer.statusCode === 201)
      // What can be worked out has no figure that JSON turns into nothing.
      expect(JSON.stringify(answer.json())).not.toMatch(/"(nominal|low|high)":null/);
    else expect(codeOf(answer)).toBe('PROCEDURE_IMPOSSIBLE');
    const runs = (await field('GET', `/api/jobs/${job}/runs`)).json<wire.RunSummary[]>();
    expect(runs).toHaveLength(answer.statusCode === 201 ? 1 : 0);
  });

  it('counts its runs, and lists the newest first', async () => {
    const before = await start();
    const after = await start();
    expect(after.number).toBe(before.number + 1);
    const runs = (await field('GET', `/api/jobs/${jobId}/runs`)).json<wire.RunSummary[]>();
    expect(runs[0]?.id).toBe(after.id);
  });

  it('ends once, and is not changed after that', async () => {
    const run = await start();
    expect((await end(run.id, { state: 'finished', reason: '' })).json()).toMatchObject({
      state: 'finished',
      endedAt: '2026-03-01T10:00:00.000Z',
    });
    expect(codeOf(await read(run.id, { value: 230 }))).toBe('RUN_CLOSED');
    expect(codeOf(await end(run.id, { state: 'aborted', reason: 'late' }))).toBe('RUN_CLOSED');
  });

  it('is aborted with a reason, never without', async () => {
    const run = await start();
    expect(codeOf(await end(run.id, { state: 'aborted', reason: '  ' }))).toBe('REASON_NEEDED');
    expect((await end(run.id, { state: 'aborted', reason: 'smell of burning' })).json()).toMatchObject({
      state: 'aborted',
      reason: 'smell of burning',
    });
  });

  it.each([
    { name: 'a step it does not have', body: { stepId: 'nothing', value: 1 }, code: 'READING_UNKNOWN' },
    {
      name: 'a reading the step does not have',
      body: { readingId: 'nothing', value: 1 },
      code: 'READING_UNKNOWN',
    },
    { name: 'a correction of nothing', body: { value: 1, corrects: 999999 }, code: 'READING_UNKNOWN' },
    { name: 'text', body: { value: 'high' }, code: 'REQUEST_INVALID' },
  ])('refuses a reading for $name', async ({ body, code }) => {
    const run = await start();
    expect(codeOf(await read(run.id, body))).toBe(code);
  });

  it('is run by field and designer, read by all of the firm, hidden from others', async () => {
    const run = await start();
    const viewer = await harness.as('viewer@north.test');
    const south = await harness.as('designer@south.test');
    expect((await viewer('GET', `/api/runs/${run.id}`)).statusCode).toBe(200);
    expect(codeOf(await read(run.id, { value: 1 }, viewer))).toBe('NOT_ALLOWED');
    expect(codeOf(await viewer('POST', `/api/jobs/${jobId}/runs`))).toBe('NOT_ALLOWED');
    expect((await south('GET', `/api/runs/${run.id}`)).statusCode).toBe(404);
    expect((await south('GET', `/api/runs/${run.id}/record.pdf`)).statusCode).toBe(404);
  });
});

describe('a step that is skipped', () => {
  it('needs a reason, and is never a gate', async () => {
    const run = await start();
    const skip = (over: object) => read(run.id, { readingId: 'skipped', value: 1, ...over });
    expect(codeOf(await skip({}))).toBe('SKIP_REASON_NEEDED');
    expect(codeOf(await skip({ stepId: 'gate-isolation', note: 'No time' }))).toBe('READING_UNKNOWN');
    expect((await skip({ note: 'No load bank on site' })).statusCode).toBe(201);
    expect((await field('GET', `/api/runs/${run.id}/record.pdf`)).statusCode).toBe(200);
  });
});

describe('a partial retest', () => {
  it('has every gate and the chosen steps, and names the run that it follows', async () => {
    const whole = await start();
    const chosen = whole.procedure.steps.findLast(({ section }) => section !== 'gates')?.id ?? '';
    const again = (retest: unknown) => field('POST', `/api/jobs/${jobId}/runs`, { retest });
    const part = wire.testRun.parse((await again({ run: whole.number, steps: [chosen] })).json());
    const gates = whole.procedure.steps.filter(({ section }) => section === 'gates').map(({ id }) => id);
    expect(part.procedure.steps.map(({ id }) => id)).toEqual([...gates, chosen]);
    expect(part.procedure.retest).toMatchObject({ run: whole.number, revision: whole.revision });
    expect(codeOf(await again({ run: 999, steps: [chosen] }))).toBe('NOT_FOUND');
    expect(codeOf(await again({ run: whole.number, steps: ['no such step'] }))).toBe('READING_UNKNOWN');
    const record = await field('GET', `/api/runs/${part.id}/record.pdf`);
    expect(record.statusCode).toBe(200);
  });
});

describe('reports', () => {
  it('are PDF files', async () => {
    const run = await start();
    const source = 'live from 127.0.0.1:502, unit 1';
    const taken = await read(run.id, { value: 230, note: 'meter 7', source });
    expect(taken.json()).toMatchObject({ note: 'meter 7', source });
    for (const url of [
      `/api/jobs/${jobId}/limits.pdf`,
      `/api/jobs/${jobId}/rehearsals.pdf`,
      `/api/runs/${run.id}/record.pdf`,
    ]) {
      const answer = await field('GET', url);
      expect(answer.headers['content-type']).toBe('application/pdf');
      expect(answer.rawPayload.subarray(0, 5).toString()).toBe('%PDF-');
      expect(answer.rawPayload.subarray(-6).toString()).toContain('%%EOF');
    }
  });
});

describe('a capture that a reading was taken from', () => {
  const keep = (id: number, name: string, bytes: string, caller = field) =>
    caller('POST', `/api/jobs/${id}/captures?name=${encodeURIComponent(name)}`, Buffer.from(bytes));

  it('is kept once in its job, and comes back as it was', async () => {
    const first = await keep(jobId, 'gap ä.csv', 't,u\n0,1\n');
    expect(first.statusCode).toBe(201);
    const { id } = wire.capture.parse(first.json());
    expect((await keep(jobId, 'other name.csv', 't,u\n0,1\n')).json()).toEqual(first.json());
    const back = await field('GET', `/api/captures/${id}`);
    expect(back.body).toBe('t,u\n0,1\n');
    expect(back.headers['content-disposition']).toBe("attachment; filename*=UTF-8''gap%20%C3%A4.csv");
    const south = await harness.as('designer@south.test');
    expect(codeOf(await south('GET', `/api/captures/${id}`))).toBe('NOT_FOUND');
  });

  it('stands beside its reading; one of another job does not', async () => {
    const run = await start();
    const { id } = wire.capture.parse((await keep(jobId, 'gap.csv', 'a')).json());
    const taken = wire.reading.parse((await read(run.id, { value: 230, captureId: id })).json());
    expect(taken.captureId).toBe(id);
    const { readings } = wire.testRun.parse((await field('GET', `/api/runs/${run.id}`)).json());
    expect(readings.map(({ captureId }) => captureId)).toEqual([id]);
    const other = (await designer('POST', '/api/jobs/import', smallDesign())).json<{ id: number }>().id;
    const foreign = wire.capture.parse((await keep(other, 'gap.csv', 'b')).json());
    expect(codeOf(await read(run.id, { value: 230, attempt: 2, captureId: foreign.id }))).toBe(
      'READING_UNKNOWN',
    );
  });

  it.each([
    ['a picture', 'gap.png', 'x', 'NOT_A_CAPTURE'],
    ['nothing', 'gap.csv', '', 'NOT_A_CAPTURE'],
  ])('%s is refused', async (_, name, bytes, code) => {
    expect(codeOf(await keep(jobId, name, bytes))).toBe(code);
  });

  it('is not taken from somebody who may not test', async () => {
    expect(codeOf(await keep(jobId, 'gap.csv', 'x', await harness.as('viewer@north.test')))).toBe(
      'NOT_ALLOWED',
    );
  });
});
