import {
  applyEdits,
  conflictsBetween,
  type Design,
  diff,
  type Edit,
  emptyDesign,
  readDesign,
  SAMPLE_TYPES,
  type wire,
} from '@bastion/core';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { api, RequestFailed } from '../api/client.ts';
import { readOutbox } from './outbox.ts';
import { resendOutbox, Saver, type SaveState } from './saver.ts';

const JOB = 7;

/** The server's side of saving, as its own tests have it: applied once, in order, refused where two clash. */
class FakeServer {
  design: Design = { ...emptyDesign('Start'), site: { altitudeM: 1 } };
  revision = 1;
  isReachable = true;
  readonly log: { edits: Edit[]; revision: number }[] = [];
  private readonly applied = new Map<string, number>();

  edit(batch: wire.EditBatch): Promise<{ revision: number }> {
    if (!this.isReachable) return Promise.reject(new RequestFailed(0, { code: 'OFFLINE', message: 'away' }));
    const before = this.applied.get(batch.editId);
    if (before !== undefined) return Promise.resolve({ revision: before });
    const since = this.log.filter((one) => one.revision > batch.baseRevision).flatMap((one) => one.edits);
    const conflicts = conflictsBetween(since, batch.patches);
    if (conflicts.length > 0) {
      const refusal = {
        code: 'EDIT_CONFLICT',
        message: 'clash',
        conflicts,
        revision: this.revision,
        document: this.design,
      };
      return Promise.reject(new RequestFailed(409, refusal));
    }
    this.take(batch.patches);
    this.applied.set(batch.editId, this.revision);
    return Promise.resolve({ revision: this.revision });
  }

  take(edits: Edit[]): void {
    const result = applyEdits(this.design, edits);
    const read = result.ok ? readDesign(result.value, SAMPLE_TYPES) : result;
    if (!read.ok) throw new Error(read.problems[0]?.message);
    this.design = read.value;
    this.revision += 1;
    this.log.push({ edits, revision: this.revision });
  }
}

let server: FakeServer;
let states: SaveState['kind'][];
let shown: Design;
let saver: Saver;

/** Types into the design on the screen, as the job store does. */
function type(recipe: (draft: Design) => void): void {
  const next = structuredClone(shown);
  recipe(next);
  const edits = diff(shown, next);
  shown = next;
  saver.add(edits);
}
const somebodyElse = (recipe: (draft: Design) => void): void => {
  const next = structuredClone(server.design);
  recipe(next);
  server.take(diff(server.design, next));
};

beforeEach(() => {
  const kept = new Map<string, string>();
  vi.stubGlobal('localStorage', {
    getItem: (key: string) => kept.get(key) ?? null,
    setItem: (key: string, value: string) => void kept.set(key, value),
    removeItem: (key: string) => void kept.delete(key),
  });
  vi.useFakeTimers();
  server = new FakeServer();
  states = [];
  shown = server.design;
  vi.spyOn(api, 'edit').mockImplementation((_id, batch) => server.edit(structuredClone(batch)));
  vi.spyOn(api, 'job').mockImplementation(() =>
    Promise.resolve({
      id: JOB,
      name: '',
      revision: server.revision,
      document: server.design,
      canEdit: true,
      canNote: true,
      canTest: true,
      canAccept: false,
    }),
  );
  saver = new Saver(
    {
      jobId: JOB,
      onSaveState: (state) => void states.push(state.kind),
      onDocument: (design) => void (shown = design),
    },
    1,
  );
});
afterEach(() => {
  saver.stop();
  vi.useRealTimers();
  vi.restoreAllMocks();
  vi.unstubAllGlobals();
});

describe('saving as it is typed', () => {
  it('gathers a moment of typing into one batch, and is then idle with nothing kept', async () => {
    type((draft) => void (draft.site.altitudeM = 2));
    type((draft) => void (draft.site.lowestC = -5));
    await vi.advanceTimersByTimeAsync(1000);
    expect(server.design.site).toEqual({ altitudeM: 2, lowestC: -5 });
    expect([server.revision, states.at(-1), saver.isIdle, readOutbox(JOB)]).toEqual([2, 'saved', true, []]);
  });

  it('keeps what it cannot send, tells so, and sends it when the server is back', async () => {
    server.isReachable = false;
    type((draft) => void (draft.site.altitudeM = 2));
    await vi.advanceTimersByTimeAsync(1000);
    type((draft) => void (draft.site.lowestC = -5));
    await vi.advanceTimersByTimeAsync(1000);
    expect(states).toContain('offline');
    expect(readOutbox(JOB).flatMap((batch) => batch.patches)).toHaveLength(2);
    server.isReachable = true;
    await vi.advanceTimersByTimeAsync(20_000);
    expect(server.design.site).toEqual({ altitudeM: 2, lowestC: -5 });
    expect(states.at(-1)).toBe('saved');
  });

  it('sends an outbox of an earlier visit in order, also when its first batch had arrived after all', async () => {
    server.isReachable = false;
    type((draft) => void (draft.site.altitudeM = 2));
    await vi.advanceTimersByTimeAsync(1000);
    type((draft) => void (draft.site.altitudeM = 3));
    saver.stop();
    server.isReachable = true;
    const [first] = readOutbox(JOB);
    if (first !== undefined) await server.edit(first);
    expect(await resendOutbox(JOB)).toBeUndefined();
    expect([server.design.site.altitudeM, server.revision, readOutbox(JOB)]).toEqual([3, 3, []]);
  });

  it('fetches what others did in between, and lays its own unsaved typing over it', async () => {
    somebodyElse((draft) => void (draft.site.highestC = 30));
    type((draft) => void (draft.site.altitudeM = 2));
    await vi.advanceTimersByTimeAsync(1000);
    expect(shown.site).toEqual({ altitudeM: 2, highestC: 30 });
    expect(server.design.site).toEqual({ altitudeM: 2, highestC: 30 });
  });

  it.each([
    { keep: 'mine' as const, altitudeM: 2 },
    { keep: 'theirs' as const, altitudeM: 9 },
  ])('asks when both changed one place, and keeps $keep', async ({ keep, altitudeM }) => {
    somebodyElse((draft) => void (draft.site.altitudeM = 9));
    type((draft) => {
      draft.site.altitudeM = 2;
      draft.site.lowestC = -5;
    });
    await vi.advanceTimersByTimeAsync(1000);
    expect(states.at(-1)).toBe('conflict');
    expect(server.design.site).toEqual({ altitudeM: 9 });
    saver.settle(keep);
    await vi.advanceTimersByTimeAsync(1000);
    expect(server.design.site).toEqual({ altitudeM, lowestC: -5 });
    expect(shown.site).toEqual({ altitudeM, lowestC: -5 });
    expect([states.at(-1), readOutbox(JOB)]).toEqual(['saved', []]);
  });

  it('takes back on the screen what the server will never take, and goes on with the rest', async () => {
    const refusal = { code: 'DOCUMENT_INVALID', message: 'not possible' };
    vi.mocked(api.edit).mockRejectedValueOnce(new RequestFailed(422, refusal));
    type((draft) => void (draft.site.altitudeM = 2));
    await vi.advanceTimersByTimeAsync(1000);
    expect([states.at(-1), shown.site.altitudeM, readOutbox(JOB)]).toEqual(['refused', 1, []]);
    type((draft) => void (draft.site.lowestC = -5));
    await vi.advanceTimersByTimeAsync(1000);
    expect([states.at(-1), server.design.site]).toEqual(['saved', { altitudeM: 1, lowestC: -5 }]);
  });

  it('sends what is still gathered when the window is left, and leaves the next visit’s outbox alone', async () => {
    type((draft) => void (draft.site.altitudeM = 2));
    saver.stop();
    const [own] = readOutbox(JOB);
    if (own === undefined) throw new Error('Nothing was kept.');
    const next = { ...own, editId: 'of-the-next-visit' };
    localStorage.setItem(`bastion.outbox.${JOB}`, JSON.stringify([own, next]));
    await vi.advanceTimersByTimeAsync(1000);
    expect(server.design.site.altitudeM).toBe(2);
    expect(readOutbox(JOB)).toEqual([next]);
  });

  it.each(['OFFLINE', 'INTERNAL', 'SIGN_IN_NEEDED'])(
    'keeps the outbox of an earlier visit at %s',
    async (code) => {
      type((draft) => void (draft.site.altitudeM = 2));
      const kept = readOutbox(JOB);
      vi.mocked(api.edit).mockRejectedValueOnce(new RequestFailed(0, { code, message: 'later' }));
      await expect(resendOutbox(JOB)).rejects.toThrow('later');
      expect(readOutbox(JOB)).toEqual(kept);
    },
  );

  it('hears of a revision made elsewhere while nothing is unsaved', async () => {
    somebodyElse((draft) => void (draft.name = 'Renamed'));
    await saver.heard(2);
    expect(shown.name).toBe('Renamed');
  });
});
