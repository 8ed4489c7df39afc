import {
  actInExercise,
  afterSwitching,
  commandSite,
  type Design,
  type Exercise,
  newSite,
  openExercise,
  readDesign,
  runSite,
  SAMPLE_TYPES,
  type SiteCommand,
  siteMenu,
  type SitePlan,
  sitePlan,
  siteRegisters,
  type SiteState,
  siteView,
  siteWire,
  STEP_S,
} from '@bastion/core';

/** A site that somebody has opened. */
export interface OpenedSite {
  readonly key: string;
  readonly unitId: number;
  readonly revision: number;
  readonly plan: SitePlan;
  state: SiteState;
  exercise: Exercise | undefined;
  speed: number;
  /** Time that is due and not played yet, s. */
  dueS: number;
  lastAskedMs: number;
  /** Registers as they were answered at a time of the site. */
  kept:
    | { readonly timeS: number; readonly changes: number; readonly words: ReadonlyMap<number, number> }
    | undefined;
  /** How often something was done, so that registers are made anew. */
  changes: number;
}

/** Sites that are open at once; the one nobody has asked for longest goes first. */
const MOST_SITES = 64;
const LAST_UNIT = 247;
/** So much is played in one go at most, so that nobody waits for it, s of the site. */
const MOST_IN_ONE_GO_S = 60;
/** A bring-up plays so long between its parts, s. */
const WAKE_S = 15;

export interface SitesOptions {
  /** The clock that time runs by, ms. */
  readonly nowMs: () => number;
  /** What an exercise is drawn by. */
  readonly seed: () => number;
  readonly host: string;
  readonly port: () => number;
}

/** Every simulated site that is open, by the job it is of and by its unit identifier. */
export class Sites {
  private readonly byUnit = new Map<number, OpenedSite>();
  private readonly options: SitesOptions;
  private lastMs: number;
  private nextUnit = 1;

  constructor(options: SitesOptions) {
    this.options = options;
    this.lastMs = options.nowMs();
  }

  /** Opens a site for a design, in the place of an earlier one of the same key. The sentence says why it cannot be played. */
  open(key: string, revision: number, document: unknown, seed: number): OpenedSite | string {
    const read = readDesign(document, SAMPLE_TYPES);
    if (!read.ok) return `The design cannot be read: ${read.problems[0]?.message ?? 'no reason'}.`;
    return this.openDesign(key, revision, read.value, seed);
  }

  private openDesign(key: string, revision: number, design: Design, seed: number): OpenedSite | string {
    const made = sitePlan(design, SAMPLE_TYPES);
    if (!made.ok) return made.sentence;
    const before = this.find(key);
    const site: OpenedSite = {
      key,
      unitId: before?.unitId ?? this.freeUnit(),
      revision,
      plan: made.plan,
      state: newSite(made.plan, seed),
      exercise: undefined,
      speed: 1,
      dueS: 0,
      lastAskedMs: this.options.nowMs(),
      kept: undefined,
      changes: 0,
    };
    this.byUnit.set(site.unitId, site);
    return site;
  }

  private freeUnit(): number {
    if (this.byUnit.size >= MOST_SITES) {
      const [oldest] = [...this.byUnit.values()].sort((a, b) => a.lastAskedMs - b.lastAskedMs);
      if (oldest !== undefined) this.byUnit.delete(oldest.unitId);
    }
    while (this.byUnit.has(this.nextUnit)) this.nextUnit = (this.nextUnit % LAST_UNIT) + 1;
    return this.nextUnit;
  }

  find(key: string): OpenedSite | undefined {
    const found = [...this.byUnit.values()].find((site) => site.key === key);
    if (found !== undefined) found.lastAskedMs = this.options.nowMs();
    return found;
  }

  byUnitId(unitId: number): OpenedSite | undefined {
    return this.byUnit.get(unitId);
  }

  close(key: string): void {
    const found = this.find(key);
    if (found !== undefined) this.byUnit.delete(found.unitId);
  }

  /** Plays what the clock has gone on, each site at its own speed. A site that falls behind says so by its own clock. */
  advance(): void {
    const nowMs = this.options.nowMs();
    // A clock that was set back plays nothing.
    const elapsedS = Math.max(0, nowMs - this.lastMs) / 1000;
    this.lastMs = nowMs;
    for (const site of this.byUnit.values()) {
      site.dueS = Math.min(site.dueS + elapsedS * site.speed, MOST_IN_ONE_GO_S);
      const steps = Math.floor(site.dueS / STEP_S + 1e-9);
      if (steps === 0) continue;
      runSite(site.plan, site.state, steps * STEP_S);
      site.dueS -= steps * STEP_S;
    }
  }

  /** The registers of a site, made once for each moment of it. */
  words(site: OpenedSite): ReadonlyMap<number, number> {
    const { timeS } = site.state;
    if (site.kept?.timeS === timeS && site.kept.changes === site.changes) return site.kept.words;
    const { words } = siteRegisters(site.plan, site.state);
    site.kept = { timeS, changes: site.changes, words };
    return words;
  }

  /** Does what a hand does. */
  command(site: OpenedSite, command: SiteCommand): string | undefined {
    // Who looks for a fault neither plants one nor mends one by its name.
    const isPlanting = command.do === 'plant' || command.do === 'mend';
    if (isPlanting && site.exercise !== undefined && site.exercise.result === undefined)
      return 'While an exercise runs nothing is planted or mended here: name the fault there.';
    site.changes += 1;
    const problem = commandSite(site.plan, site.state, command);
    if (site.exercise !== undefined) afterSwitching(site.plan, site.state, site.exercise);
    return problem;
  }

  private bringUp(site: OpenedSite): void {
    for (const { stackId } of site.plan.sets) this.command(site, { do: 'battery', stackId, closed: true });
    this.command(site, { do: 'units', on: true });
    runSite(site.plan, site.state, WAKE_S);
    this.command(site, { do: 'isolator', closed: true });
    const longest = Math.max(...site.plan.sets.map(({ reconnectS }) => reconnectS));
    if (site.state.isGridPresent) runSite(site.plan, site.state, Math.min(longest, 600) + 1);
  }

  /** Does what was asked, and answers how the site stands then. */
  act(site: OpenedSite, action: siteWire.SiteAction): siteWire.OpenSite {
    switch (action.kind) {
      case 'command':
        return this.answer(site, { problem: this.command(site, action.command) });
      case 'bring-up':
        this.bringUp(site);
        return this.answer(site, {});
      case 'speed':
        site.speed = action.speed;
        return this.answer(site, {});
      case 'exercise': {
        const state = newSite(site.plan, this.options.seed());
        const exercise = openExercise(site.plan, state, action.ask);
        if (typeof exercise === 'string') return this.answer(site, { problem: exercise });
        site.state = state;
        site.exercise = exercise;
        site.changes += 1;
        return this.answer(site, {});
      }
      case 'act': {
        if (site.exercise === undefined) return this.answer(site, { problem: 'No exercise is open.' });
        const { shown, problem } = actInExercise(site.plan, site.state, site.exercise, action.act);
        site.changes += 1;
        return this.answer(site, { problem, shown: shown?.text });
      }
    }
  }

  answer(
    site: OpenedSite,
    { problem, shown }: { readonly problem?: string | undefined; readonly shown?: string | undefined },
  ): siteWire.OpenSite {
    return {
      host: this.options.host,
      port: this.options.port(),
      unitId: site.unitId,
      revision: site.revision,
      speed: site.speed,
      view: siteView(site.plan, site.state, site.exercise),
      ...(problem === undefined ? {} : { problem }),
      ...(shown === undefined ? {} : { shown }),
    };
  }

  menu(site: OpenedSite) {
    return siteMenu(site.plan);
  }
}
