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
import { Saver, type SaverHost, type SaveState } from './saver.ts';

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
let kept: Map<string, wire.EditBatch>;
let told: number;
const host: SaverHost = {
  jobId: JOB,
  onSaveState: (state) => void states.push(state.kind),
  onDocument: (design) => void (shown = design),
  keep: (batch) => Promise.resolve(void kept.set(batch.editId, structuredClone(batch))),
  forget: (editId) => Promise.resolve(void kept.delete(editId)),
  onNotKept: () => void (told += 1),
};
const left = (): wire.EditBatch[] => [...kept.values()];

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
  kept = new Map();
  told = 0;
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
  saver = new Saver(host, 1);
});
afterEach(() => {
  saver.stop();
  vi.useRealTimers();
  vi.restoreAllMocks();
});

describe('saving as it is typed', () => {
  it('gathers a moment of typing into one batch, and is then idle with nothing kept', async () => {
    type((draft) => void (draft.site.altitudeM = 2));
    type((draft) => void (draft.site.lowestC = -5));
    await vi.advanceTimersByTimeAsync(1000);
    expect(server.design.site).toEqual({ altitudeM: 2, lowestC: -5 });
    expect([server.revision, states.at(-1), saver.isIdle, left()]).toEqual([2, 'saved', true, []]);
  });

  it('keeps what it cannot send, tells so, and sends it when the server is back', async () => {
    server.isReachable = false;
    type((draft) => void (draft.site.altitudeM = 2));
    await vi.advanceTimersByTimeAsync(1000);
    type((draft) => void (draft.site.lowestC = -5));
    await vi.advanceTimersByTimeAsync(1000);
    expect(states).toContain('offline');
    expect(left().flatMap((batch) => batch.patches)).toHaveLength(2);
    server.isReachable = true;
    await vi.advanceTimersByTimeAsync(20_000);
    expect(server.design.site).toEqual({ altitudeM: 2, lowestC: -5 });
    expect(states.at(-1)).toBe('saved');
  });

  it('sends what an earlier visit left, in order, also when its first batch had arrived after all', async () => {
    server.isReachable = false;
    type((draft) => void (draft.site.altitudeM = 2));
    await vi.advanceTimersByTimeAsync(1000);
    type((draft) => void (draft.site.altitudeM = 3));
    saver.stop();
    server.isReachable = true;
    const [first] = left();
    if (first !== undefined) await server.edit(first);
    saver = new Saver(host, server.revision, left());
    await vi.advanceTimersByTimeAsync(1000);
    expect([server.design.site.altitudeM, server.revision, left()]).toEqual([3, 3, []]);
  });

  it('asks about both values on the next visit, and sends what does not clash', async () => {
    server.isReachable = false;
    type((draft) => {
      draft.site.altitudeM = 2;
      draft.site.lowestC = -5;
    });
    await vi.advanceTimersByTimeAsync(1000);
    saver.stop();
    server.isReachable = true;
    somebodyElse((draft) => void (draft.site.altitudeM = 9));
    saver = new Saver(host, server.revision, left());
    await vi.advanceTimersByTimeAsync(1000);
    expect(states.at(-1)).toBe('conflict');
    expect(left()).toHaveLength(1);
    saver.settle('theirs');
    await vi.advanceTimersByTimeAsync(1000);
    expect(server.design.site).toEqual({ altitudeM: 9, lowestC: -5 });
    expect(left()).toEqual([]);
  });

  it('does not overwrite what somebody changed before the screen had shown it', async () => {
    type((draft) => void (draft.site.lowestC = -5));
    await vi.advanceTimersByTimeAsync(300);
    // Typed on revision 2, while revision 3 of somebody else was on its way.
    somebodyElse((draft) => void (draft.site.altitudeM = 9));
    type((draft) => void (draft.site.altitudeM = 2));
    await vi.advanceTimersByTimeAsync(1000);
    expect([states.at(-1), server.design.site.altitudeM]).toEqual(['conflict', 9]);
  });

  it('asks also where typing goes on after the other’s change has come onto the screen', async () => {
    vi.mocked(api.edit).mockImplementationOnce(async (_id, batch) => {
      await new Promise((resolve) => setTimeout(resolve, 500));
      return server.edit(structuredClone(batch));
    });
    let hasTyped = false;
    const own = new Saver(
      {
        ...host,
        onDocument: (design) => {
          shown = design;
          if (hasTyped) return;
          hasTyped = true;
          own.add([{ op: 'set', path: ['site', 'highestC'], after: 30 }]);
        },
      },
      1,
    );
    own.add([{ op: 'set', path: ['site', 'lowestC'], after: -5 }]);
    await vi.advanceTimersByTimeAsync(300);
    own.add([{ op: 'set', path: ['site', 'altitudeM'], before: 1, after: 2 }]);
    somebodyElse((draft) => void (draft.site.altitudeM = 9));
    await vi.advanceTimersByTimeAsync(3000);
    expect([states.at(-1), server.design.site.altitudeM, hasTyped]).toEqual(['conflict', 9, true]);
    own.stop();
  });

  it('takes over what a window that is gone has left, and tells when the device keeps nothing', async () => {
    const patches: Edit[] = [{ op: 'set', path: ['site', 'highestC'], after: 31 }];
    await saver.take([{ baseRevision: 1, editId: 'of-another-window', patches }]);
    await vi.advanceTimersByTimeAsync(1000);
    expect([server.design.site.highestC, shown.site.highestC, states.at(-1)]).toEqual([31, 31, 'saved']);
    const full = { ...host, keep: () => Promise.reject(new Error('QuotaExceededError')) };
    const other = new Saver(full, server.revision);
    other.add([{ op: 'set', path: ['site', 'lowestC'], after: -7 }]);
    await vi.advanceTimersByTimeAsync(1000);
    expect([told, server.design.site.lowestC]).toEqual([1, -7]);
    other.stop();
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
    expect([states.at(-1), left()]).toEqual(['saved', []]);
  });

  it('takes back on the screen what the server will never take, and goes on with the rest', async () => {
    const refusal = { code: 'DOCUMENT_INVALID', message: 'not possible' };
    vi.mocked(api.edit).mockRejectedValueOnce(new RequestFailed(422, refusal));
    type((draft) => void (draft.site.altitudeM = 2));
    await vi.advanceTimersByTimeAsync(1000);
    expect([states.at(-1), shown.site.altitudeM, left()]).toEqual(['refused', 1, []]);
    type((draft) => void (draft.site.lowestC = -5));
    await vi.advanceTimersByTimeAsync(1000);
    expect([states.at(-1), server.design.site]).toEqual(['saved', { altitudeM: 1, lowestC: -5 }]);
  });

  it('sends what is still gathered when the window is left', async () => {
    type((draft) => void (draft.site.altitudeM = 2));
    saver.stop();
    await vi.advanceTimersByTimeAsync(1000);
    expect([server.design.site.altitudeM, left()]).toEqual([2, []]);
  });

  it.each(['OFFLINE', 'INTERNAL', 'BUSY', 'SIGN_IN_NEEDED'])(
    'keeps what it has at %s, and sends it again',
    async (code) => {
      vi.mocked(api.edit).mockRejectedValueOnce(new RequestFailed(0, { code, message: 'later' }));
      type((draft) => void (draft.site.altitudeM = 2));
      await vi.advanceTimersByTimeAsync(1000);
      expect([states.at(-1), left().length]).toEqual(['offline', 1]);
      await vi.advanceTimersByTimeAsync(5000);
      expect([states.at(-1), server.design.site.altitudeM, left()]).toEqual(['saved', 2, []]);
    },
  );

  it('hears of a revision made elsewhere while nothing is unsaved', async () => {
    somebodyElse((draft) => void (draft.name = 'Renamed'));
    await saver.heard(2);
    expect(shown.name).toBe('Renamed');
  });
});
