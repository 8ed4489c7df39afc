import {
  analyse,
  type Analysis,
  applyEdits,
  copyUsedTypes,
  type Design,
  diff,
  type Edit,
  invertEdits,
  isResponsibility,
  isDesignWork,
  isFieldNote,
  modesOf,
  othersNote,
  type Problem,
  readDesign,
  rereadDesign,
  type wire,
  withoutLost,
  withoutTouched,
} from '@bastion/core';
import { produce } from 'immer';
import { create } from 'zustand';
import { api, failureSentence } from '../api/client.ts';
import { catalogueNow, useCatalogue } from './catalogue.ts';
import { addPhoto } from './deliveryTick.ts';
import { useSession } from './session.ts';
import { leaveBehind, leftBehind } from './outbox.ts';
import { Saver, type SaveState } from './saver.ts';
import { unsent, type WaitingPhoto } from './unsent.ts';
import { useWaitingPhotos } from './waitingPhotos.ts';

/** A step that can be taken back: what was done, in words, and the edits that do it. */
interface Step {
  readonly label: string;
  readonly edits: readonly Edit[];
}

export interface OpenJob {
  readonly id: number;
  readonly design: Design;
  readonly revision: number;
  readonly analysis: Analysis;
  /** The earlier revision that is looked at; undefined: the latest. `revision` is the latest in both cases. */
  readonly at: number | undefined;
  readonly mayRestore: boolean;
  readonly canEdit: boolean;
  /** May tick the delivery list, take photos and log clamp readings. */
  readonly canNote: boolean;
  readonly canTest: boolean;
  /** May take responsibility for a finding by name. */
  readonly canAccept: boolean;
}

/** What follows from a change by itself. Unless said otherwise: a first value that it touches is none any more. */
export type Finish = (before: Design, after: Design) => Design;

interface JobStore {
  state: 'none' | 'loading' | 'open' | 'failed';
  message: string;
  job: OpenJob | undefined;
  modeId: string;
  save: SaveState;
  /** Whether changes of others arrive. */
  isHearing: boolean;
  undoSteps: readonly Step[];
  redoSteps: readonly Step[];
  /** The last thing worth telling, for the status line. */
  notice: string;
  /** Opens the latest design, or looks at an earlier revision of it. */
  open: (jobId: number, at?: number) => Promise<void>;
  close: () => void;
  /** Changes the design. Returns the problems when the change is not possible; then nothing was changed. */
  change: (label: string, recipe: (draft: Design) => void, finish?: Finish) => readonly Problem[];
  /** Makes edits that were worked out elsewhere, as one step that can be undone. */
  apply: (label: string, edits: readonly Edit[]) => readonly Problem[];
  undo: () => void;
  redo: () => void;
  chooseMode: (modeId: string) => void;
  settle: (keep: 'mine' | 'theirs') => void;
  tell: (notice: string) => void;
}

/** After so long a stream that the browser has given up on is opened again. */
const LISTEN_AGAIN_MS = 5000;

/**
 * Hears of revisions made elsewhere. A browser gives a stream up for good after some answers, as while the database is away: then it is
 * opened anew, for as long as the job is. Whoever cannot hear is told.
 */
function listen(jobId: number, own: Saver, onHearing: (isHearing: boolean) => void): void {
  const stream = new EventSource(`/api/jobs/${jobId}/events`);
  events = stream;
  stream.onopen = () => onHearing(true);
  stream.onmessage = (event: MessageEvent<string>) => void own.heard(Number(event.data));
  stream.addEventListener('signed-out', () => void useSession.getState().ask());
  stream.onerror = () => {
    onHearing(false);
    if (stream.readyState !== EventSource.CLOSED) return;
    again = setTimeout(() => {
      if (events === stream) listen(jobId, own, onHearing);
    }, LISTEN_AGAIN_MS);
  };
}

const UNDO_DEPTH = 200;
/** How often a window looks for what others have left. */
const ADOPT_EVERY_MS = 15_000;

const NOT_KEPT =
  'This browser keeps nothing for later: its store is full or refused. What is not saved yet is lost when this window closes. Free some space, or wait for “Saved”.';

/** Who is signed in; nobody is nobody's device. */
function signedInId(): number {
  const { session } = useSession.getState();
  return session.kind === 'in' ? session.user.id : 0;
}

/** What earlier visits left unsaved here. A store that is refused has kept nothing. */
async function leftOnDevice(userId: number, jobId: number): Promise<wire.EditBatch[]> {
  const older = leftBehind(userId, jobId);
  try {
    for (const batch of older) await unsent.putBatch(userId, jobId, batch);
    return await unsent.adopt(userId, jobId);
  } catch {
    return older;
  }
}

/** What is open besides the state: the saver and the stream of revisions made elsewhere. */
let saver: Saver | undefined;
let events: EventSource | undefined;
let lookout: ReturnType<typeof setInterval> | undefined;
let again: ReturnType<typeof setTimeout> | undefined;
let leaving: (() => void) | undefined;

/** Why this person may not make these edits; undefined where they may. Field electricians write notes of their own, approvers acceptances. */
function whyNot(job: OpenJob, edits: readonly Edit[]): string | undefined {
  const isOthers = 'Your role does not change designs.';
  if (job.canEdit) return edits.every(isDesignWork) ? undefined : isOthers;
  if (job.canAccept && edits.every(isResponsibility)) return undefined;
  if (!job.canNote || !edits.every(isFieldNote)) return isOthers;
  const after = applyEdits(job.design, edits);
  const { session } = useSession.getState();
  const by = session.kind === 'in' ? session.user.name : '';
  const other = after.ok ? othersNote(job.design, after.value as Design, edits, by) : undefined;
  return other === undefined ? undefined : `This note is of ${other.by}: they, or a designer, can change it.`;
}

function analysed(job: Omit<OpenJob, 'analysis'>): OpenJob {
  return { ...job, analysis: analyse(job.design, catalogueNow()) };
}

/** A photo that has arrived goes to its line of the delivery list. */
function tickPhoto({ lineId, what }: WaitingPhoto, { id }: wire.Attachment): void {
  useJob.getState().change(`Photo: ${what}`, (draft) => addPhoto(draft, lineId, id));
}

/** A job as it was at an earlier revision: to be looked at, by nobody to be changed. */
async function lookBack(jobId: number, at: number): Promise<OpenJob> {
  const [latest, old] = await Promise.all([
    api.job(jobId),
    api.revision(jobId, at),
    useCatalogue.getState().load(),
  ]);
  const read = readDesign(old.document, catalogueNow());
  if (!read.ok) throw new Error(`The stored design cannot be read: ${read.problems[0]?.message ?? ''}`);
  return analysed({
    id: jobId,
    design: read.value,
    revision: latest.revision,
    canEdit: false,
    canNote: false,
    canTest: false,
    canAccept: false,
    at,
    mayRestore: latest.canEdit,
  });
}

export const useJob = create<JobStore>((set, get) => {
  /** Puts edits in: on the screen at once, on their way to the server after. */
  const put = (design: Design, edits: readonly Edit[], part: Partial<JobStore>): void => {
    const { job } = get();
    if (job === undefined) return;
    const next = analysed({ ...job, design });
    const modeIsGone = !modesOf(next.analysis.installation).some((mode) => mode.id === get().modeId);
    set({
      ...part,
      job: next,
      ...(modeIsGone ? { modeId: modesOf(next.analysis.installation)[0]?.id ?? 'on-grid' } : {}),
    });
    saver?.add(edits);
  };

  const step = (from: 'undoSteps' | 'redoSteps', to: 'undoSteps' | 'redoSteps', word: string): void => {
    const { job } = get();
    const last = get()[from].at(-1);
    if (job === undefined || last === undefined) return;
    const edits = from === 'undoSteps' ? invertEdits(last.edits) : last.edits;
    const refused = whyNot(job, edits);
    if (refused !== undefined) {
      set({ notice: `Not changed: ${refused}` });
      return;
    }
    const result = applyEdits(job.design, edits);
    const rest = get()[from].slice(0, -1);
    const checked = result.ok ? readDesign(result.value, catalogueNow()) : result;
    if (!checked.ok) {
      set({
        [from]: rest,
        notice: `"${last.label}" cannot be taken back: somebody changed the same place since.`,
      });
      return;
    }
    put(checked.value, edits, { [from]: rest, [to]: [...get()[to], last], notice: `${word}: ${last.label}` });
  };

  /** Takes a changed design over if it is one, as a step that can be taken back. */
  const take = (
    label: string,
    job: OpenJob,
    edits: readonly Edit[],
    value: unknown,
    made?: Design,
  ): readonly Problem[] => {
    if (edits.length === 0) return [];
    const refused = whyNot(job, edits);
    if (refused !== undefined) {
      set({ notice: `Not changed: ${refused}` });
      return [{ path: [], message: refused }];
    }
    const read =
      made === undefined ? readDesign(value, catalogueNow()) : rereadDesign(job.design, made, catalogueNow());
    if (!read.ok) {
      set({ notice: `Not changed: ${read.problems[0]?.message ?? ''}` });
      return read.problems;
    }
    // What immer made keeps the references of what did not change, so that only changed rows are drawn again.
    put(made ?? read.value, edits, {
      undoSteps: [...get().undoSteps, { label, edits }].slice(-UNDO_DEPTH),
      redoSteps: [],
      notice: '',
    });
    return [];
  };

  return {
    state: 'none',
    message: '',
    job: undefined,
    modeId: 'island',
    save: { kind: 'saved' },
    isHearing: true,
    undoSteps: [],
    redoSteps: [],
    notice: '',

    open: async (jobId, at) => {
      get().close();
      set({ state: 'loading', message: '' });
      try {
        if (at !== undefined) {
          const job = await lookBack(jobId, at);
          set({ state: 'open', job, save: { kind: 'saved' }, undoSteps: [], redoSteps: [], notice: '' });
          return;
        }
        const userId = signedInId();
        const backlog = await leftOnDevice(userId, jobId);
        const [found] = await Promise.all([api.job(jobId), useCatalogue.getState().load()]);
        const read = readDesign(found.document, catalogueNow());
        if (!read.ok) throw new Error(`The stored design cannot be read: ${read.problems[0]?.message ?? ''}`);
        // What an earlier visit left here is on the screen at once, and on its way after.
        const laid = applyEdits(
          read.value,
          backlog.flatMap(({ patches }) => patches),
        );
        const shown = laid.ok ? readDesign(laid.value, catalogueNow()) : laid;
        const job = analysed({
          id: jobId,
          design: shown.ok ? shown.value : read.value,
          revision: found.revision,
          canEdit: found.canEdit,
          canNote: found.canNote,
          canTest: found.canTest,
          canAccept: found.canAccept,
          at: undefined,
          mayRestore: found.canEdit,
        });
        saver = new Saver(
          {
            jobId,
            onSaveState: (save) =>
              set(
                save.kind === 'refused'
                  ? { save, notice: `Not saved, and taken back on the screen: ${save.message}` }
                  : { save },
              ),
            onDocument: (design, revision) => {
              const { job: open } = get();
              if (open !== undefined) set({ job: analysed({ ...open, design, revision }) });
            },
            keep: (batch) => unsent.putBatch(userId, jobId, batch),
            forget: (editId) => unsent.remove(editId),
            onNotKept: () => set({ notice: NOT_KEPT }),
          },
          found.revision,
          backlog,
        );
        const own = saver;
        if (found.canNote || found.canEdit) useWaitingPhotos.getState().begin(userId, jobId, tickPhoto);
        // A window of the same job that has closed without a connection leaves its work to this one.
        lookout = setInterval(() => {
          void unsent.adopt(userId, jobId).then(
            (left) => own.take(left),
            () => undefined,
          );
        }, ADOPT_EVERY_MS);
        leaving = () => leaveBehind(userId, jobId, own.unsent);
        window.addEventListener('pagehide', leaving);
        listen(jobId, own, (isHearing) => set({ isHearing }));
        const hasIsland = modesOf(job.analysis.installation).some((mode) => mode.id === 'island');
        set({
          state: 'open',
          job,
          save: { kind: backlog.length > 0 ? 'saving' : 'saved' },
          undoSteps: [],
          redoSteps: [],
          notice: '',
          modeId: hasIsland ? 'island' : 'on-grid',
        });
      } catch (error) {
        set({ state: 'failed', message: failureSentence(error) });
      }
    },

    close: () => {
      useWaitingPhotos.getState().end();
      if (leaving !== undefined) window.removeEventListener('pagehide', leaving);
      leaving = undefined;
      saver?.stop();
      events?.close();
      clearInterval(lookout);
      clearTimeout(again);
      saver = undefined;
      events = undefined;
      set({ state: 'none', job: undefined });
    },

    change: (label, recipe, finish = withoutTouched) => {
      const { job } = get();
      if (job === undefined) return [];
      const made = withoutLost(job.design, produce(job.design, recipe));
      const design = copyUsedTypes(finish(job.design, made), catalogueNow());
      return take(label, job, diff(job.design, design), design, design);
    },

    apply: (label, edits) => {
      const { job } = get();
      if (job === undefined) return [];
      const applied = applyEdits(job.design, edits);
      if (!applied.ok) {
        set({ notice: `Not changed: ${applied.problems[0]?.message ?? ''}` });
        return applied.problems;
      }
      const read = readDesign(applied.value, catalogueNow());
      if (!read.ok) return take(label, job, edits, applied.value);
      // A field that these edits touch is no longer one that nobody has looked at.
      const settled = withoutTouched(job.design, read.value);
      return take(label, job, [...edits, ...diff(read.value, settled)], settled);
    },

    undo: () => step('undoSteps', 'redoSteps', 'Undone'),
    redo: () => step('redoSteps', 'undoSteps', 'Done again'),
    chooseMode: (modeId) => set({ modeId }),
    settle: (keep) => saver?.settle(keep),
    tell: (notice) => set({ notice }),
  };
});

/** The open job; only for what is drawn once a job is open. */
export function useOpenJob(): OpenJob {
  const job = useJob((store) => store.job);
  if (job === undefined) throw new Error('A stage was drawn without an open job.');
  return job;
}

const CHARACTERS = 'abcdefghjkmnpqrstuvwxyz23456789';

/** A short id for a new entity. Random, so that two people who add rows do not pick the same. */
export function newId(prefix: string): string {
  const bytes = crypto.getRandomValues(new Uint8Array(6));
  return prefix + Array.from(bytes, (byte) => CHARACTERS[byte % CHARACTERS.length]).join('');
}
