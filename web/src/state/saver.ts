import { applyEdits, type Design, type Edit, readDesign, SAMPLE_TYPES, type wire } from '@bastion/core';
import { api, RequestFailed } from '../api/client.ts';
import { newBatch, readOutbox, writeOutbox } from './outbox.ts';

/** A place that two people changed, as the server tells it. */
type ServerConflict = NonNullable<wire.Refusal['conflicts']>[number];

export type SaveState =
  | { readonly kind: 'saved' }
  | { readonly kind: 'saving' }
  | { readonly kind: 'offline'; readonly message: string }
  | { readonly kind: 'refused'; readonly message: string }
  | { readonly kind: 'conflict'; readonly conflicts: readonly ServerConflict[] };

/** What the saver needs of its surroundings: where the design is, and who is told. */
export interface SaverHost {
  readonly jobId: number;
  readonly onSaveState: (state: SaveState) => void;
  /** The server's document with what is still unsaved laid over it. */
  readonly onDocument: (design: Design, revision: number) => void;
}

/** Failures that pass by themselves; signed out is one: after signing in again the batch goes through. */
function isTemporary(error: unknown): boolean {
  if (!(error instanceof RequestFailed)) return true;
  return ['OFFLINE', 'INTERNAL', 'SIGN_IN_NEEDED'].includes(error.refusal.code);
}

const GATHER_MS = 250;
const RETRY_MS = 4000;

/**
 * Sends edits as they are made: gathered for a moment, one batch at a time, in order, each kept on the device until the
 * server has it. A batch sent twice is applied once.
 */
export class Saver {
  private revision: number;
  private queue: Edit[] = [];
  private sending: wire.EditBatch | undefined;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private held: { conflicts: readonly ServerConflict[]; server: Design; revision: number } | undefined;
  private stopped = false;

  private readonly host: SaverHost;

  constructor(host: SaverHost, revision: number) {
    this.host = host;
    this.revision = revision;
  }

  get isIdle(): boolean {
    return this.queue.length === 0 && this.sending === undefined && this.held === undefined;
  }

  add(edits: readonly Edit[]): void {
    this.queue.push(...edits);
    this.keep();
    this.host.onSaveState({ kind: 'saving' });
    this.schedule(GATHER_MS);
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

  private keep(): void {
    const waiting = this.queue.length > 0 ? [newBatch(this.revision, this.queue)] : [];
    writeOutbox(this.host.jobId, [...(this.sending === undefined ? [] : [this.sending]), ...waiting]);
  }

  private schedule(afterMs: number): void {
    if (this.sending !== undefined || this.stopped || this.held !== undefined) return;
    clearTimeout(this.timer);
    this.timer = setTimeout(() => void this.flush(), afterMs);
  }

  private async flush(): Promise<void> {
    if (this.queue.length === 0 || this.sending !== undefined) return;
    this.sending = newBatch(this.revision, this.queue);
    this.queue = [];
    this.keep();
    await this.sendOne(this.sending);
  }

  private async sendOne(batch: wire.EditBatch): Promise<void> {
    try {
      const { revision } = await api.edit(this.host.jobId, batch);
      const othersCameBetween = revision > batch.baseRevision + 1;
      if (this.stopped) {
        // The job may be open again with a saver of its own: only this batch is taken off the device.
        const rest = readOutbox(this.host.jobId).filter((kept) => kept.editId !== batch.editId);
        writeOutbox(this.host.jobId, rest);
        return;
      }
      this.sending = undefined;
      this.revision = revision;
      this.keep();
      if (othersCameBetween) await this.refresh();
      if (this.queue.length > 0) this.schedule(0);
      else this.host.onSaveState({ kind: 'saved' });
    } catch (error) {
      this.failed(batch, error);
    }
  }

  private failed(batch: wire.EditBatch, error: unknown): void {
    if (this.stopped) return;
    const refusal = error instanceof RequestFailed ? error.refusal : undefined;
    if (refusal?.code === 'EDIT_CONFLICT') {
      const server = readDesign(refusal.document, SAMPLE_TYPES);
      if (server.ok) {
        this.queue = [...batch.patches, ...this.queue];
        this.sending = undefined;
        const conflicts = refusal.conflicts ?? [];
        this.held = { conflicts, server: server.value, revision: refusal.revision ?? batch.baseRevision };
        this.keep();
        this.host.onSaveState({ kind: 'conflict', conflicts });
        return;
      }
    }
    const message = error instanceof Error ? error.message : 'Saving failed.';
    if (isTemporary(error)) {
      this.host.onSaveState({ kind: 'offline', message });
      this.timer = setTimeout(() => void this.sendOne(batch), RETRY_MS);
      return;
    }
    // The server will never take this batch: the person is told, and the screen goes back to what the server has.
    this.sending = undefined;
    this.keep();
    this.host.onSaveState({ kind: 'refused', message });
    void this.refresh().then(() => {
      if (this.queue.length > 0) this.schedule(0);
    });
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
    const laid = applyEdits(held.server, mine);
    const checked = laid.ok ? readDesign(laid.value, SAMPLE_TYPES) : laid;
    this.queue = checked.ok ? mine : [];
    this.host.onDocument(checked.ok ? checked.value : held.server, held.revision);
    this.keep();
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
    const laid = applyEdits(server.value, this.queue);
    const checked = laid.ok ? readDesign(laid.value, SAMPLE_TYPES) : laid;
    this.revision = job.revision;
    if (checked.ok) this.host.onDocument(checked.value, job.revision);
  }
}

/** Sends what an earlier visit left unsaved, before the document is read. Returns what still could not be sent. */
export async function resendOutbox(jobId: number): Promise<string | undefined> {
  const batches = readOutbox(jobId);
  let sent = 0;
  for (const [index, batch] of batches.entries()) {
    try {
      // A later batch was typed on top of the one before it, which has its number only now.
      const { revision } = await api.edit(jobId, {
        ...batch,
        baseRevision: Math.max(batch.baseRevision, sent),
      });
      sent = revision;
    } catch (error) {
      if (isTemporary(error)) throw error;
      writeOutbox(jobId, []);
      const left = batches.length - index;
      return `${left === 1 ? 'A change' : `${left} changes`} of an earlier visit could not be saved: ${error instanceof Error ? error.message : ''}`;
    }
  }
  writeOutbox(jobId, []);
  return undefined;
}
