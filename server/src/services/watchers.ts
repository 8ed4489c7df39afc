/** How often the database is asked for a newer revision. Several server processes may share it, so memory alone is no guide. */
const LOOK_EVERY_MS = 1500;

interface Watched {
  revision: number;
  readonly tells: Set<(revision: number) => void>;
  readonly timer: NodeJS.Timeout;
}

/** Who wants to hear of new revisions: one look for each job serves every window of it. */
export class Watchers {
  private readonly latest: (jobId: number) => Promise<number>;
  private readonly watched = new Map<number, Watched>();

  constructor(latest: (jobId: number) => Promise<number>) {
    this.latest = latest;
  }

  add(jobId: number, known: number, tell: (revision: number) => void): () => void {
    const before = this.watched.get(jobId);
    const one = before ?? this.begin(jobId, known);
    if (one.revision > known) tell(one.revision);
    one.tells.add(tell);
    return () => {
      one.tells.delete(tell);
      if (one.tells.size > 0) return;
      clearInterval(one.timer);
      this.watched.delete(jobId);
    };
  }

  /** A revision that this server made, or has seen. */
  tell(jobId: number, revision: number): void {
    const one = this.watched.get(jobId);
    if (one === undefined || revision <= one.revision) return;
    one.revision = revision;
    for (const tell of one.tells) tell(revision);
  }

  stop(): void {
    for (const { timer } of this.watched.values()) clearInterval(timer);
    this.watched.clear();
  }

  private begin(jobId: number, revision: number): Watched {
    const timer = setInterval(() => {
      // The database may be away for a moment: the next look tells.
      this.latest(jobId).then(
        (latest) => this.tell(jobId, latest),
        () => undefined,
      );
    }, LOOK_EVERY_MS);
    timer.unref();
    const made: Watched = { revision, tells: new Set(), timer };
    this.watched.set(jobId, made);
    return made;
  }
}
