import {
  applyEdits,
  type Design,
  type Edit,
  readDesign,
  sameJson,
  SAMPLE_TYPES,
  type wire,
} from '@bastion/core';
import { z } from 'zod';
import { api, isTemporary, RequestFailed } from '../api/client.ts';

/** A place that two people changed, as the server tells it. */
type ServerConflict = NonNullable<wire.Refusal['conflicts']>[number];

export type SaveState =
  | { readonly kind: 'saved' }
  | { readonly kind: 'saving' }
  | { readonly kind: 'offline'; readonly message: string }
  | { readonly kind: 'refused'; readonly message: string }
  | { readonly kind: 'conflict'; readonly conflicts: readonly ServerConflict[] };

/** What the saver needs of its surroundings: where the design is, where unsent batches are kept, and who is told. */
export interface SaverHost {
  readonly jobId: number;
  readonly onSaveState: (state: SaveState) => void;
  /** The server's document with what is still unsaved laid over it. */
  readonly onDocument: (design: Design, revision: number) => void;
  /** Keeps a batch on the device until the server has it. */
  readonly keep: (batch: wire.EditBatch) => Promise<void>;
  readonly forget: (editId: string) => Promise<void>;
  /** The device keeps nothing: what is not sent is lost when the window closes. */
  readonly onNotKept: () => void;
}

const json = z.json();

const GATHER_MS = 250;
const RETRY_MS = 4000;
/** Own edits that are remembered, to tell a clash with others from one with what this window has just sent. */
const MOST_OWN = 2000;

const outcome = (edit: Edit): unknown =>
  edit.op === 'set' ? edit.after : edit.op === 'insert' ? edit.entity : undefined;
const touches = (a: readonly string[], b: readonly string[]): boolean =>
  a.slice(0, b.length).join('/') === b.slice(0, a.length).join('/');

/**
 * Sends edits as they are made: gathered for a moment, one batch at a time, in order, each kept on the device until the
 * server has it. A batch sent twice is applied once. Each says on which revision it was typed, so that a change of somebody else that
 * the screen had not shown yet is asked about, and never overwritten.
 */
export class Saver {
  private revision: number;
  private queue: Edit[] = [];
  /** The revision that was on the screen when the first of the queue was typed, and the id the queue will be sent under. */
  private queueBase: number;
  private queueId: string | undefined;
  private backlog: wire.EditBatch[];
  private sending: wire.EditBatch | undefined;
  private own: Edit[] = [];
  private timer: ReturnType<typeof setTimeout> | undefined;
  private held: { conflicts: readonly ServerConflict[]; server: Design; revision: number } | undefined;
  private stopped = false;

  private readonly host: SaverHost;

  /** `backlog`: batches that an earlier visit has left on this device. */
  constructor(host: SaverHost, revision: number, backlog: readonly wire.EditBatch[] = []) {
    this.host = host;
    this.revision = revision;
    this.queueBase = revision;
    this.backlog = [...backlog];
    if (this.backlog.length > 0) {
      this.host.onSaveState({ kind: 'saving' });
      this.schedule(0);
    }
  }

  get isIdle(): boolean {
    return this.unsaved.length === 0 && this.held === undefined;
  }

  /** Everything that is not with the server yet, in order. */
  private get unsaved(): Edit[] {
    const batches = this.sending === undefined ? this.backlog : [this.sending, ...this.backlog];
    return [...batches.flatMap(({ patches }) => patches), ...this.queue];
  }

  /** The batches that are not with the server yet, in order. */
  get unsent(): wire.EditBatch[] {
    const { sending, queue, queueId, queueBase } = this;
    return [
      ...(sending === undefined ? [] : [sending]),
      ...this.backlog,
      ...(queueId === undefined || queue.length === 0
        ? []
        : [{ baseRevision: queueBase, editId: queueId, patches: [...queue] }]),
    ];
  }

  add(edits: readonly Edit[]): void {
    if (this.queue.length === 0) this.queueBase = this.revision;
    this.queue.push(...edits);
    this.keepQueue();
    this.host.onSaveState({ kind: 'saving' });
    this.schedule(GATHER_MS);
  }

  /** Takes over what a window that is gone has left meanwhile. */
  async take(batches: readonly wire.EditBatch[]): Promise<void> {
    const known = new Set([this.sending?.editId, this.queueId, ...this.backlog.map(({ editId }) => editId)]);
    const left = batches.filter(({ editId }) => !known.has(editId));
    if (left.length === 0 || this.stopped) return;
    this.backlog.push(...left);
    this.host.onSaveState({ kind: 'saving' });
    await this.refresh();
    this.schedule(0);
  }

  /** Hears of a revision made elsewhere. */
  async heard(revision: number): Promise<void> {
    if (revision > this.revision && this.isIdle) await this.refresh();
  }

  /** The window is left: what is still gathered goes out now, and what fails stays on the device for the next visit. */
  stop(): void {
    clearTimeout(this.timer);
    if (this.held === undefined) void this.flush();
    this.stopped = true;
  }

  private keepQueue(): void {
    this.queueId ??= crypto.randomUUID();
    const batch = { baseRevision: this.queueBase, editId: this.queueId, patches: [...this.queue] };
    this.host.keep(batch).catch(() => this.host.onNotKept());
  }

  private forget(editId: string): void {
    this.host.forget(editId).catch(() => undefined);
  }

  private schedule(afterMs: number): void {
    if (this.sending !== undefined || this.stopped || this.held !== undefined) return;
    clearTimeout(this.timer);
    this.timer = setTimeout(() => void this.flush(), afterMs);
  }

  private async flush(): Promise<void> {
    if (this.sending !== undefined) return;
    const next = this.backlog.shift() ?? this.takeQueue();
    if (next === undefined) return;
    this.sending = next;
    await this.sendOne(next);
  }

  private takeQueue(): wire.EditBatch | undefined {
    if (this.queue.length === 0) return undefined;
    const editId = this.queueId ?? crypto.randomUUID();
    const batch = { baseRevision: this.queueBase, editId, patches: this.queue };
    this.queue = [];
    this.queueId = undefined;
    return batch;
  }

  private async sendOne(batch: wire.EditBatch): Promise<void> {
    try {
      const { revision, isStamped } = await api.edit(this.host.jobId, batch);
      this.forget(batch.editId);
      if (this.stopped) return;
      const isOtherwise = isStamped === true || revision > this.revision + 1;
      this.own = [...this.own, ...batch.patches].slice(-MOST_OWN);
      this.sending = undefined;
      if (isOtherwise) await this.refresh();
      else this.revision = Math.max(this.revision, revision);
      if (this.backlog.length > 0 || this.queue.length > 0) this.schedule(0);
      else this.host.onSaveState({ kind: 'saved' });
    } catch (error) {
      this.failed(batch, error);
    }
  }

  /** Whether a place clashes with nothing but what this window has sent itself. */
  private isOwn({ path, theirs }: ServerConflict): boolean {
    const last = this.own.findLast((edit) => touches(edit.path, path));
    return last !== undefined && sameJson(asJson(outcome(last)), asJson(theirs));
  }

  private failed(batch: wire.EditBatch, error: unknown): void {
    if (this.stopped) return;
    const refusal = error instanceof RequestFailed ? error.refusal : undefined;
    if (refusal?.code === 'EDIT_CONFLICT' && this.clashed(batch, refusal)) return;
    const message = error instanceof Error ? error.message : 'Saving failed.';
    if (isTemporary(error)) {
      this.host.onSaveState({ kind: 'offline', message });
      this.timer = setTimeout(() => void this.sendOne(batch), RETRY_MS);
      return;
    }
    // The server will never take this batch: the person is told, and the screen goes back to what the server has.
    this.sending = undefined;
    this.forget(batch.editId);
    this.host.onSaveState({ kind: 'refused', message });
    void this.refresh().then(() => {
      if (this.backlog.length > 0 || this.queue.length > 0) this.schedule(0);
    });
  }

  /** Somebody else changed the same place: it is asked about. False where the answer cannot be read. */
  private clashed(batch: wire.EditBatch, refusal: wire.Refusal): boolean {
    const revision = refusal.revision ?? batch.baseRevision;
    const conflicts = (refusal.conflicts ?? []).filter((conflict) => !this.isOwn(conflict));
    if (conflicts.length === 0 && revision > batch.baseRevision) {
      // Typed twice in a row by the same hands: the later one goes on top.
      this.sending = { ...batch, baseRevision: revision };
      void this.sendOne(this.sending);
      return true;
    }
    const server = readDesign(refusal.document, SAMPLE_TYPES);
    if (!server.ok) return false;
    const rest = this.backlog;
    this.backlog = [];
    this.sending = undefined;
    this.queue = [...batch.patches, ...rest.flatMap(({ patches }) => patches), ...this.queue];
    this.keepQueue();
    for (const { editId } of [batch, ...rest]) this.forget(editId);
    this.held = { conflicts, server: server.value, revision };
    this.host.onSaveState({ kind: 'conflict', conflicts });
    return true;
  }

  /** Answers a conflict: with `mine`, what I typed is laid over the other's; with `theirs`, it is given up there. */
  settle(keep: 'mine' | 'theirs'): void {
    const held = this.held;
    if (held === undefined) return;
    this.held = undefined;
    const inConflict = (edit: Edit): boolean =>
      held.conflicts.some((conflict) => conflict.path.join('/') === edit.path.join('/'));
    const mine = keep === 'mine' ? this.queue : this.queue.filter((edit) => !inConflict(edit));
    this.revision = held.revision;
    this.queueBase = held.revision;
    const laid = applyEdits(held.server, mine);
    const checked = laid.ok ? readDesign(laid.value, SAMPLE_TYPES) : laid;
    this.queue = checked.ok ? mine : [];
    this.host.onDocument(checked.ok ? checked.value : held.server, held.revision);
    if (this.queue.length > 0) this.keepQueue();
    else if (this.queueId !== undefined) {
      this.forget(this.queueId);
      this.queueId = undefined;
    }
    if (!checked.ok)
      this.host.onSaveState({
        kind: 'refused',
        message: checked.problems[0]?.message ?? 'It no longer fits.',
      });
    else if (this.queue.length === 0) this.host.onSaveState({ kind: 'saved' });
    else this.schedule(0);
  }

  private async refresh(): Promise<void> {
    const job = await api.job(this.host.jobId);
    const server = readDesign(job.document, SAMPLE_TYPES);
    if (!server.ok || this.stopped) return;
    const laid = applyEdits(server.value, this.unsaved);
    const checked = laid.ok ? readDesign(laid.value, SAMPLE_TYPES) : laid;
    this.revision = job.revision;
    if (checked.ok) this.host.onDocument(checked.value, job.revision);
  }
}

const asJson = (value: unknown) => json.optional().parse(value);
