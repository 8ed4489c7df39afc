import { type Design, diff, wire } from '@bastion/core';
import type { LightMyRequestResponse } from 'fastify';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { type Caller, codeOf, type Harness, smallDesign, startHarness } from './testkit/harness.ts';

let harness: Harness;
let designer: Caller;
let jobId = 0;
beforeAll(async () => {
  harness = await startHarness();
  designer = await harness.as('designer@north.test');
});
afterAll(() => harness.close());
beforeEach(async () => {
  const answer = await designer('POST', '/api/jobs/import', smallDesign());
  jobId = answer.json<{ id: number }>().id;
});

const open = async (): Promise<{ revision: number; document: Design }> =>
  (await designer('GET', `/api/jobs/${jobId}`)).json();
let batches = 0;
const batch = (
  baseRevision: number,
  recipe: (draft: Design) => void,
  from: Design = smallDesign(),
): wire.EditBatch => {
  const after = structuredClone(from);
  recipe(after);
  return { baseRevision, editId: `test-batch-${(batches += 1)}`, patches: diff(from, after) };
};
const send = (body: wire.EditBatch, caller = designer): Promise<LightMyRequestResponse> =>
  caller('POST', `/api/jobs/${jobId}/edits`, body);
const watts =
  (value: number) =>
  (draft: Design): void => {
    const item = draft.circuits[0]?.items[0];
    if (item !== undefined) item.runningW = value;
  };

describe('saving a design', () => {
  it('applies a batch, answers its revision, and the next reader sees it', async () => {
    expect((await send(batch(1, watts(1200)))).json()).toEqual({ revision: 2 });
    const { revision, document } = await open();
    expect([revision, document.circuits[0]?.items[0]?.runningW]).toEqual([2, 1200]);
  });

  it('answers the same batch again without applying it again', async () => {
    const body = batch(1, (draft) => void draft.circuits.push({ id: 'c2', name: 'New', items: [] }));
    expect((await send(body)).json()).toEqual({ revision: 2 });
    expect((await send(body)).json()).toEqual({ revision: 2 });
    expect((await open()).document.circuits).toHaveLength(2);
  });

  it('refuses the same id with other content, and tells ids apart letter by letter', async () => {
    const body = batch(1, watts(1200));
    await send(body);
    expect(codeOf(await send({ ...batch(1, watts(1300)), editId: body.editId }))).toBe('EDIT_ID_REUSED');
    const upper = {
      ...batch(2, (draft) => void (draft.site.altitudeM = 5)),
      editId: body.editId.toUpperCase(),
    };
    expect((await send(upper)).json()).toEqual({ revision: 3 });
    expect((await open()).document.circuits[0]?.items[0]?.runningW).toBe(1200);
  });

  it('takes acceptances from the approver alone, under no other name, and brings none in by an import', async () => {
    const approver = await harness.as('approver@north.test');
    const accepting = (by: string, at = '2026-03-01T10:00:00.000Z') =>
      batch(
        1,
        (draft) =>
          void draft.accepted.push({
            id: 'a1',
            check: 'load.continuous',
            subject: { kind: 'line', id: 's/L1' },
            state: 'over',
            margin: -0.1,
            missing: [],
            reason: 'runs ten minutes a day',
            by,
            at,
          }),
      );
    expect(codeOf(await send(accepting('north approver')))).toBe('NOT_ALLOWED');
    expect(codeOf(await send(accepting('somebody else'), approver))).toBe('NOT_ALLOWED');
    expect(codeOf(await send(accepting('north approver', '2031-01-01T00:00:00.000Z'), approver))).toBe(
      'NOT_ALLOWED',
    );
    expect(codeOf(await send(batch(1, watts(9)), approver))).toBe('NOT_ALLOWED');
    expect((await send(accepting('north approver'), approver)).json()).toEqual({ revision: 2 });
    const { document } = await open();
    expect(document.accepted.map(({ by }) => by)).toEqual(['north approver']);
    await designer('PUT', `/api/jobs/${jobId}/document`, {
      ...document,
      accepted: [{ ...document.accepted[0], id: 'a2', reason: 'slipped in' }],
    });
    expect((await open()).document.accepted.map(({ id }) => id)).toEqual(['a1']);
    const copy = (await designer('POST', '/api/jobs/import', document)).json<{ id: number }>().id;
    expect(
      (await designer('GET', `/api/jobs/${copy}`)).json<{ document: Design }>().document.accepted,
    ).toEqual([]);
  });

  it('takes values in place of code tables from the approver alone, each under the own name, and keeps them from imports', async () => {
    const approver = await harness.as('approver@north.test');
    const overriding = (revision: number, id: string, by: string) =>
      batch(revision, (draft) => {
        draft.tableValues = [
          ...(draft.tableValues ?? []),
          {
            id,
            table: 'grouping',
            upTo: 3,
            value: 0.8,
            reason: 'spaced apart',
            by,
            at: '2026-03-01T10:00:00.000Z',
          },
        ];
      });
    expect(codeOf(await send(overriding(1, 'v1', 'north approver')))).toBe('NOT_ALLOWED');
    expect(codeOf(await send(overriding(1, 'v1', 'somebody else'), approver))).toBe('NOT_ALLOWED');
    expect((await send(overriding(1, 'v1', 'north approver'), approver)).json()).toEqual({ revision: 2 });
    const { document } = await open();
    await designer('PUT', `/api/jobs/${jobId}/document`, { ...document, tableValues: [] });
    expect((await open()).document.tableValues?.map(({ id }) => id)).toEqual(['v1']);
    const copy = (await designer('POST', '/api/jobs/import', document)).json<{ id: number }>().id;
    expect(
      (await designer('GET', `/api/jobs/${copy}`)).json<{ document: Design }>().document.tableValues,
    ).toBeUndefined();
  });

  it('lets two people change different places from the same base', async () => {
    await send(batch(1, watts(1200)));
    const answer = await send(batch(1, (draft) => void (draft.site.altitudeM = 900)));
    expect(answer.json()).toEqual({ revision: 3 });
    const { document } = await open();
    expect([document.circuits[0]?.items[0]?.runningW, document.site.altitudeM]).toEqual([1200, 900]);
  });

  it('answers 409 with both values where the same place was changed, and changes nothing', async () => {
    await send(batch(1, watts(1200)));
    const answer = await send(batch(1, watts(900)));
    expect([answer.statusCode, codeOf(answer)]).toEqual([409, 'EDIT_CONFLICT']);
    expect(wire.refusal.parse(answer.json())).toMatchObject({
      revision: 2,
      conflicts: [{ path: ['circuits', 'c1', 'items', 'i1', 'runningW'], theirs: 1200, yours: 900 }],
    });
    expect((await open()).revision).toBe(2);
  });

  it('refuses what is not possible, with its place, and keeps the whole batch out', async () => {
    const answer = await send(
      batch(1, (draft) => {
        draft.site.altitudeM = 10;
        watts(-1)(draft);
      }),
    );
    expect([answer.statusCode, codeOf(answer)]).toEqual([422, 'DOCUMENT_INVALID']);
    expect(answer.body).toContain('must be at least 0, but is -1');
    expect((await open()).document.site.altitudeM).toBeUndefined();
  });

  it('lets many batches at once through, each once', async () => {
    const answers = await Promise.all(
      Array.from({ length: 8 }, (_, n) =>
        send(batch(1, (draft) => void draft.circuits.push({ id: `n${n}`, name: 'n', items: [] }))),
      ),
    );
    expect(answers.map((answer) => answer.json<{ revision: number }>().revision).sort()).toEqual([
      2, 3, 4, 5, 6, 7, 8, 9,
    ]);
    expect((await open()).document.circuits).toHaveLength(9);
  });

  it.each([
    { name: 'a base that is still to come', body: () => batch(7, watts(1)), status: 400 },
    { name: 'no edits', body: () => ({ baseRevision: 1, editId: 'something', patches: [] }), status: 400 },
    {
      name: 'edits of a shape of its own',
      body: () => ({ baseRevision: 1, editId: 'something', patches: [{ op: 'wipe' }] }),
      status: 400,
    },
  ])('refuses $name', async ({ body, status }) => {
    expect((await designer('POST', `/api/jobs/${jobId}/edits`, body())).statusCode).toBe(status);
  });
});

describe('whole documents', () => {
  it('come back as they went in', async () => {
    expect((await open()).document).toEqual(smallDesign());
  });

  it('replace a design as a new revision that later edits are held against', async () => {
    const answer = await designer('PUT', `/api/jobs/${jobId}/document`, { ...smallDesign(), name: 'Other' });
    expect(answer.json()).toEqual({ revision: 2 });
    expect(codeOf(await send(batch(1, (draft) => void (draft.name = 'Mine'))))).toBe('EDIT_CONFLICT');
  });

  it('are refused where the job was changed since, when they say which revision they replace', async () => {
    await send(batch(1, watts(1200)));
    const stale = await designer('PUT', `/api/jobs/${jobId}/document?replaces=1`, smallDesign());
    expect(codeOf(stale)).toBe('IMPORT_STALE');
    expect((await open()).document.circuits[0]?.items[0]?.runningW).toBe(1200);
    const fresh = await designer('PUT', `/api/jobs/${jobId}/document?replaces=2`, smallDesign());
    expect(fresh.json()).toEqual({ revision: 3 });
  });

  it.each([
    { name: 'nonsense', body: { a: 1 }, code: 'DOCUMENT_INVALID' },
    { name: 'a later format', body: { ...smallDesign(), format: 9 }, code: 'DOCUMENT_INVALID' },
    { name: '50 MB', body: { ...smallDesign(), name: 'x'.repeat(50_000_000) }, code: 'DOCUMENT_TOO_LARGE' },
  ])('are refused when they are $name, and nothing is lost', async ({ body, code }) => {
    expect(codeOf(await designer('PUT', `/api/jobs/${jobId}/document`, body))).toBe(code);
    expect((await open()).revision).toBe(1);
  });
});

describe('whose it is', () => {
  it('shows a firm its own jobs alone, with where each stands', async () => {
    const south = await harness.as('designer@south.test');
    expect((await south('GET', '/api/jobs')).json()).toEqual([]);
    for (const [method, url] of [
      ['GET', ''],
      ['GET', '/runs'],
      ['POST', '/runs'],
      ['GET', '/limits.pdf'],
      ['GET', '/rehearsals.pdf'],
      ['GET', '/drawing.pdf'],
      ['GET', '/events'],
    ] as const) {
      expect((await south(method, `/api/jobs/${jobId}${url}`)).statusCode).toBe(404);
    }
    expect((await send(batch(1, watts(1)), south)).statusCode).toBe(404);
    const mine = (await designer('GET', '/api/jobs'))
      .json<wire.JobSummary[]>()
      .find((job) => job.id === jobId);
    expect(mine).toMatchObject({ name: 'Hut', stage: 'Wiring', changedBy: 'north designer' });
  });

  it('tells a summary that cannot be read, and takes no other down with it', async () => {
    const { jobs } = harness.database.models;
    await jobs.update({ summary: '{"worst":' }, { where: { id: jobId } });
    const rows = (await designer('GET', '/api/jobs')).json<wire.JobSummary[]>();
    expect(rows.find(({ id }) => id === jobId)?.verdict).toContain('cannot be read');
    expect(rows.length).toBe(await jobs.count({ where: { firmId: 1 } }));
    // The next edit brings a whole one with it.
    await send(batch(1, watts(700)));
    const again = (await designer('GET', '/api/jobs')).json<wire.JobSummary[]>();
    expect(again.find(({ id }) => id === jobId)?.verdict).not.toContain('cannot be read');
  });

  it.each(['field', 'approver', 'viewer'])('lets a %s look, not change', async (role) => {
    const caller = await harness.as(`${role}@north.test`);
    expect((await caller('GET', `/api/jobs/${jobId}`)).json()).toMatchObject({
      canEdit: false,
      canTest: role === 'field',
    });
    expect(codeOf(await send(batch(1, watts(1)), caller))).toBe('NOT_ALLOWED');
    expect(codeOf(await caller('POST', '/api/jobs', { name: 'x' }))).toBe('NOT_ALLOWED');
    expect(codeOf(await caller('PUT', `/api/jobs/${jobId}/document`, smallDesign()))).toBe('NOT_ALLOWED');
  });
});
