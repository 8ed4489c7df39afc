import { deflateSync } from 'node:zlib';
import { SAMPLE_TYPES, wire } from '@bastion/core';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { type Caller, codeOf, type Harness, NOW, smallDesign, startHarness } from './testkit/harness.ts';

let harness: Harness;
let designer: Caller;
let field: Caller;
let south: Caller;
let jobId = 0;
beforeAll(async () => {
  harness = await startHarness();
  designer = await harness.as('designer@north.test');
  field = await harness.as('field@north.test');
  south = await harness.as('designer@south.test');
});
afterAll(() => harness.close());
beforeEach(async () => {
  jobId = (await designer('POST', '/api/jobs/import', smallDesign())).json<{ id: number }>().id;
});

describe('variants of a job', () => {
  const create = (name: string, caller = designer) => caller('POST', `/api/jobs/${jobId}/variants`, { name });

  it('hold a design of their own, stand beside the main one, and are no jobs of the list', async () => {
    const { id } = (await create('Whole building')).json<{ id: number }>();
    const list = (await designer('GET', `/api/jobs/${id}/variants`)).json<wire.Variant[]>();
    expect(list.map(({ name, isMain }) => [name, isMain])).toEqual([
      ['Main', true],
      ['Whole building', false],
    ]);
    const edit = {
      baseRevision: 1,
      editId: 'variant-edit',
      patches: [{ op: 'set', path: ['site', 'altitudeM'], after: 900 }],
    };
    expect((await designer('POST', `/api/jobs/${id}/edits`, edit)).statusCode).toBe(200);
    const main = (await designer('GET', `/api/jobs/${jobId}`)).json<{ document: { site: object } }>();
    expect(main.document.site).not.toHaveProperty('altitudeM');
    const jobs = (await designer('GET', '/api/jobs')).json<wire.JobSummary[]>();
    expect(jobs.some((job) => job.id === id)).toBe(false);
  });

  it('go when they are removed; the main design and what was tested stay', async () => {
    const { id } = (await create('B')).json<{ id: number }>();
    expect(codeOf(await designer('DELETE', `/api/jobs/${jobId}/variant`))).toBe('VARIANT_STAYS');
    await designer('POST', `/api/jobs/${id}/runs`);
    expect(codeOf(await designer('DELETE', `/api/jobs/${id}/variant`))).toBe('VARIANT_STAYS');
    const other = (await create('C')).json<{ id: number }>();
    expect((await designer('DELETE', `/api/jobs/${other.id}/variant`)).statusCode).toBe(204);
    expect((await designer('GET', `/api/jobs/${other.id}`)).statusCode).toBe(404);
  });

  it('are refused without a right, twice under one name, and past eight', async () => {
    expect(codeOf(await create('X', field))).toBe('NOT_ALLOWED');
    expect((await create('X', south)).statusCode).toBe(404);
    for (let n = 1; n <= 7; n += 1) expect((await create(`V${n}`)).statusCode).toBe(201);
    expect(codeOf(await create('V8'))).toBe('TOO_MANY_VARIANTS');
    await designer('DELETE', `/api/jobs/${jobId + 1}/variant`);
    expect(codeOf(await create('v2'))).toBe('VARIANT_NAME_TAKEN');
  });
});

describe('the library of a firm', () => {
  const item = { name: 'Dough mixer', runningW: 1100, powerFactor: 0.8, startClass: 'capacitor-motor' };

  it('takes an item, replaces one of the same name, and shows it to its own firm alone', async () => {
    await designer('PUT', '/api/library', item);
    const put = await designer('PUT', '/api/library', { ...item, runningW: 1200 });
    const entry = wire.libraryEntry.parse(put.json());
    expect((await field('GET', '/api/library')).json()).toEqual({ entries: [entry], unreadable: [] });
    expect(entry).toMatchObject({ item: { runningW: 1200 }, addedBy: 'north designer' });
    expect((await south('GET', '/api/library')).json()).toEqual({ entries: [], unreadable: [] });
    expect((await south('DELETE', `/api/library/${entry.id}`)).statusCode).toBe(404);
    expect(codeOf(await field('DELETE', `/api/library/${entry.id}`))).toBe('NOT_ALLOWED');
    expect((await designer('DELETE', `/api/library/${entry.id}`)).statusCode).toBe(204);
  });

  it('refuses an impossible figure', async () => {
    expect((await designer('PUT', '/api/library', { ...item, powerFactor: 1.4 })).statusCode).toBe(400);
  });
});

/** A picture of one colour: signature, head with its size, packed rows, end. Checksums are not looked at. */
function png(width: number, height: number): Buffer {
  const chunk = (type: string, data: Buffer): Buffer => {
    const length = Buffer.alloc(4);
    length.writeUInt32BE(data.length);
    return Buffer.concat([length, Buffer.from(type), data, Buffer.alloc(4)]);
  };
  const head = Buffer.alloc(13);
  head.writeUInt32BE(width, 0);
  head.writeUInt32BE(height, 4);
  head.set([8, 0, 0, 0, 0], 8);
  const signature = Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]);
  const rows = deflateSync(Buffer.alloc(1000));
  return Buffer.concat([signature, chunk('IHDR', head), chunk('IDAT', rows), chunk('IEND', Buffer.alloc(0))]);
}

describe('photos of a job', () => {
  const send = (photo: Buffer, caller: Caller = field) => {
    const form = new FormData();
    form.set('photo', new Blob([new Uint8Array(photo)]), 'box.png');
    form.set('thumbnail', new Blob([new Uint8Array(png(20, 10))]), 'small.png');
    return caller('POST', `/api/jobs/${jobId}/attachments`, form);
  };

  it('come back as they went in, with what is known of them, and to their own firm alone', async () => {
    const bytes = png(640, 480);
    const added = wire.attachment.parse((await send(bytes)).json());
    expect(added).toMatchObject({ name: 'box.png', width: 640, height: 480, addedBy: 'north field' });
    const photo = await designer('GET', `/api/attachments/${added.id}`);
    expect(photo.rawPayload.equals(bytes)).toBe(true);
    expect(photo.headers['content-type']).toBe('image/png');
    expect((await designer('GET', `/api/attachments/${added.id}/thumbnail`)).rawPayload).toHaveLength(
      png(20, 10).length,
    );
    expect((await south('GET', `/api/attachments/${added.id}`)).statusCode).toBe(404);
    expect((await designer('GET', `/api/jobs/${jobId}/attachments`)).json()).toEqual([added]);
  });

  it('the same photo sent many times at once is kept each time, and read whole', async () => {
    const bytes = png(640, 480);
    const answers = await Promise.all(Array.from({ length: 8 }, () => send(bytes)));
    expect(answers.map(({ statusCode }) => statusCode)).toEqual(answers.map(() => 201));
    const { id } = wire.attachment.parse(answers[7]?.json());
    expect((await designer('GET', `/api/attachments/${id}`)).rawPayload.equals(bytes)).toBe(true);
  });

  it.each([
    ['a page that calls itself a picture', Buffer.from('<html><script>1</script></html>'), 'NOT_A_PICTURE'],
    ['half a picture', png(640, 480).subarray(0, 60), 'NOT_A_PICTURE'],
    ['a picture that unfolds to 2.5 thousand million points', png(50_000, 50_000), 'PICTURE_TOO_LARGE'],
    ['nothing', Buffer.alloc(0), 'NOT_A_PICTURE'],
  ])('refuses %s with a sentence', async (_, bytes, code) => {
    const answer = await send(bytes);
    expect(codeOf(answer)).toBe(code);
    expect((await designer('GET', `/api/jobs/${jobId}/attachments`)).json()).toEqual([]);
  });

  it('refuses more than 12 MB, and people who only look', async () => {
    const answer = await send(Buffer.concat([png(640, 480), Buffer.alloc(13_000_000)]));
    expect(answer.statusCode).toBe(413);
    expect(wire.refusal.parse(answer.json()).message).toContain('12 MB');
    expect(codeOf(await send(png(8, 8), await harness.as('viewer@north.test')))).toBe('NOT_ALLOWED');
  });
});

it('a field electrician ticks the delivery list and logs clamp readings, and changes nothing else', async () => {
  const edit = (path: string[], entity: { id: string }) => ({
    baseRevision: 1,
    editId: `note-${path.join('-')}`.slice(0, 60),
    patches: [{ op: 'insert', path: [...path, entity.id], follows: null, entity }],
  });
  const send = (body: object) => field('POST', `/api/jobs/${jobId}/edits`, body);
  expect((await send(edit(['delivery'], { id: 'unit-s-u1' }))).statusCode).toBe(200);
  const reading = { id: 'k1', line: 'L1', currentA: 6.4, takenAt: '2026-03-01T10:00:00Z', by: 'Femi' };
  const set = {
    baseRevision: 1,
    editId: 'note-clamp',
    patches: [{ op: 'set', path: ['circuits', 'c1', 'clampReadings'], after: [reading] }],
  };
  expect((await send(set)).statusCode).toBe(200);
  expect(codeOf(await send(edit(['circuits'], { id: 'c9' })))).toBe('NOT_ALLOWED');
});

describe('notes belong to whoever made them', () => {
  interface Notes {
    readonly delivery: readonly { readonly id: string; readonly by?: string; readonly at?: string }[];
    readonly circuits: readonly { readonly clampReadings?: readonly object[] }[];
    readonly faultSearches?: readonly object[];
  }
  let job = 0;
  let revision = 1;
  const send = async (caller: Caller, ...patches: object[]) => {
    const batch = {
      baseRevision: revision,
      editId: `notes-of-${job}-${revision}-${patches.length}`,
      patches,
    };
    const answer = await caller('POST', `/api/jobs/${job}/edits`, batch);
    if (answer.statusCode === 200) revision += 1;
    return { answer, again: () => caller('POST', `/api/jobs/${job}/edits`, batch), batch };
  };
  const notes = async () => (await designer('GET', `/api/jobs/${job}`)).json<{ document: Notes }>().document;
  const readings = ['circuits', 'c1', 'clampReadings'];
  const spoofed = { id: 'k1', line: 'L1', currentA: 6.4, takenAt: '1999-01-01T00:00:00Z', by: 'Somebody' };

  beforeEach(async () => {
    job = (await designer('POST', '/api/jobs/import', smallDesign())).json<{ id: number }>().id;
    revision = 1;
  });

  it('name and time come from the server, and what is sent again is recorded once', async () => {
    const first = await send(field, { op: 'set', path: readings, after: [spoofed] });
    expect(first.answer.json()).toEqual({ revision: 2, isStamped: true });
    expect((await first.again()).json()).toEqual({ revision: 2, isStamped: true });
    const tick = {
      op: 'insert',
      path: ['delivery', 't'],
      follows: null,
      entity: { id: 't', by: 'Somebody' },
    };
    await send(field, tick);
    const entry = { id: 'f', symptom: 'meter-lost', answers: [], left: ['the meter'], by: 'Somebody' };
    await send(field, { op: 'set', path: ['faultSearches'], after: [entry] });
    const { circuits, delivery, faultSearches } = await notes();
    const stamp = { by: 'north field', at: NOW.toISOString() };
    expect(circuits[0]?.clampReadings).toEqual([{ ...spoofed, by: stamp.by, takenAt: stamp.at }]);
    expect(delivery).toEqual([{ id: 't', ...stamp }]);
    expect(faultSearches).toEqual([{ ...entry, ...stamp }]);
    const other = { ...first.batch, patches: [{ op: 'set', path: readings, after: [] }] };
    expect(codeOf(await field('POST', `/api/jobs/${job}/edits`, other))).toBe('EDIT_ID_REUSED');
  });

  it.each([
    ['takes a reading away', { op: 'remove', path: [...readings, 'k1'], follows: null, entity: spoofed }],
    ['writes a list without it', { op: 'set', path: readings, after: [] }],
    ['changes it', { op: 'set', path: [...readings, 'k1', 'currentA'], before: 6.4, after: 0.1 }],
    ['signs it', { op: 'set', path: [...readings, 'k1', 'by'], before: 'x', after: 'north field' }],
    ['unticks a line', { op: 'remove', path: ['delivery', 't'], follows: null, entity: { id: 't' } }],
    ['changes a tick', { op: 'set', path: ['delivery', 't', 'state'], before: 'missing', after: 'ready' }],
  ])('nobody on site %s of somebody else; a designer may', async (_, edit) => {
    const tick = { id: 't', state: 'missing' };
    await send(
      designer,
      { op: 'set', path: readings, after: [spoofed, { ...spoofed, id: 'k2', by: 'north designer' }] },
      { op: 'insert', path: ['delivery', 't'], follows: null, entity: tick },
    );
    const before = await notes();
    const { answer } = await send(field, edit);
    expect(codeOf(answer)).toBe('NOTE_OF_OTHERS');
    expect(await notes()).toEqual(before);
    // One beside it is their own, and they may take that back.
    const own = { ...spoofed, id: 'k9' };
    const { answer: added } = await send(field, {
      op: 'insert',
      path: [...readings, 'k9'],
      follows: 'k2',
      entity: own,
    });
    expect(added.statusCode).toBe(200);
    const { answer: gone } = await send(field, {
      op: 'remove',
      path: [...readings, 'k9'],
      follows: 'k2',
      entity: own,
    });
    expect(gone.statusCode).toBe(200);
    expect((await send(designer, edit)).answer.statusCode).toBe(200);
  });
});

describe('equipment types of a firm', () => {
  const battery = SAMPLE_TYPES.find((type) => type.id === 'lfp-51v-50ah');
  if (battery === undefined) throw new Error('It is a sample.');
  const own = { ...battery, id: 'own-55ah', version: 1, name: 'Own 55 Ah' };
  const keep = (types: unknown[]) => designer('POST', '/api/types', { types });

  it('are kept version by version, seen by the firm alone, and changed by designers alone', async () => {
    const first = wire.catalogue.parse((await keep([own])).json());
    expect(first.own.map(({ type }) => [type.id, type.version])).toEqual([['own-55ah', 1]]);
    expect(codeOf(await keep([own]))).toBe('TYPE_CHANGED');
    const second = wire.catalogue.parse((await keep([{ ...own, version: 2, capacityAh: 56 }])).json());
    expect(second.own.map(({ type }) => type.version)).toEqual([2]);
    expect(codeOf(await field('POST', '/api/types', { types: [{ ...own, version: 3 }] }))).toBe(
      'NOT_ALLOWED',
    );
    expect(wire.catalogue.parse((await south('GET', '/api/types')).json()).own).toEqual([]);
    expect((await south('DELETE', '/api/types/own-55ah')).statusCode).toBe(404);
  });

  it('refuses what is impossible, a change of a sample or of kind, and keeps none of a list with one bad', async () => {
    expect((await keep([{ ...own, id: 'own-bad', peakDischargeA: 1 }])).statusCode).toBe(400);
    expect(
      codeOf(
        await keep([
          { ...own, id: 'own-good' },
          { ...battery, version: 9 },
        ]),
      ),
    ).toBe('TYPE_IS_SAMPLE');
    const generator = SAMPLE_TYPES.find((type) => type.kind === 'generator');
    expect(codeOf(await keep([{ ...generator, id: 'own-55ah', version: 3 }]))).toBe('TYPE_CHANGED');
    const { own: kept } = wire.catalogue.parse((await designer('GET', '/api/types')).json());
    expect(kept.map(({ type }) => type.id)).toEqual(['own-55ah']);
  });

  it('counts the jobs that use a type, and lets only an unused one go', async () => {
    const design = { ...smallDesign(), types: [own] };
    const [stack] = design.stacks;
    if (stack !== undefined) stack.bank = { batteryTypeId: own.id, modules: [{ id: 'm1' }] };
    const before = wire.catalogue.parse((await designer('GET', '/api/types')).json()).usage;
    await designer('POST', '/api/jobs/import', design);
    const { usage } = wire.catalogue.parse((await designer('GET', '/api/types')).json());
    expect(usage['own-55ah']).toBe(1);
    const inverter = stack?.inverterTypeId ?? '';
    expect(usage[inverter]).toBe((before[inverter] ?? 0) + 1);
    expect(codeOf(await designer('DELETE', '/api/types/own-55ah'))).toBe('TYPE_IN_USE');
    await keep([{ ...own, id: 'own-idle' }]);
    expect((await designer('DELETE', '/api/types/own-idle')).statusCode).toBe(204);
    // A job that has only just begun to use it holds it as well.
    const late = { ...own, id: 'own-late' };
    await keep([late]);
    const { id } = (await designer('POST', '/api/jobs/import', smallDesign())).json<{ id: number }>();
    const bank = { batteryTypeId: 'own-late', modules: [{ id: 'm1' }] };
    const edit = {
      baseRevision: 1,
      editId: 'begins-to-use-it',
      patches: [
        { op: 'insert', path: ['types', 'own-late'], follows: null, entity: late },
        { op: 'set', path: ['stacks', 's', 'bank'], before: 'none', after: bank },
      ],
    };
    expect((await designer('POST', `/api/jobs/${id}/edits`, edit)).statusCode).toBe(200);
    expect(codeOf(await designer('DELETE', '/api/types/own-late'))).toBe('TYPE_IN_USE');
  });

  it('notes what older jobs use when it is first asked for', async () => {
    await harness.database.models.jobs.update({ usedTypes: null }, { where: {} });
    const { usage } = wire.catalogue.parse((await designer('GET', '/api/types')).json());
    expect(usage['own-55ah']).toBe(1);
  });
});
