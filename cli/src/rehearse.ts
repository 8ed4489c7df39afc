import {
  type BankApart,
  banksApart,
  batteryInStart,
  type Installation,
  sentenceOf,
  askProblem,
  compile,
  type Design,
  driversOf,
  formatPath,
  nightColumns,
  motorStart,
  nightsRun,
  clockOf,
  eventTeller,
  outageRun,
  PATTERNS,
  type Plant,
  plantsOf,
  playNights,
  type Rehearsed,
  type RehearsalAsk,
  runApart,
  runOutage,
  SAMPLE_TYPES,
  summarise,
  startersOf,
  transferOf,
  typedPattern,
} from '@bastion/core';

export const REHEARSAL_KINDS = ['transfer', 'outage', 'nights'] as const;
export type RehearsalKind = (typeof REHEARSAL_KINDS)[number];

type Outcome<T> = { readonly ok: true; readonly value: T } | { readonly ok: false; readonly message: string };

const FIGURES = {
  '--seed': 'seed',
  '--nights': 'nights',
  '--start': 'startH',
  '--hours': 'hours',
  '--month': 'month',
  '--sky': 'clearness',
} as const;

const isFigure = (name: string): name is keyof typeof FIGURES => name in FIGURES;

/** What the options of the command line ask for. */
export function readAsk(options: readonly string[]): Outcome<RehearsalAsk> {
  const ask: Record<string, unknown> = {};
  for (let at = 0; at < options.length; at += 1) {
    const name = options[at] ?? '';
    if (name === '--full') {
      ask.fromFull = true;
      continue;
    }
    at += 1;
    const text = options[at];
    if (text === undefined) return { ok: false, message: `${name}: a value is needed` };
    if (isFigure(name)) {
      const value = Number(text);
      if (text.trim() === '' || !Number.isFinite(value))
        return { ok: false, message: `${name} ${text}: a number is needed` };
      ask[FIGURES[name]] = value;
    } else if (name === '--motor') ask.motor = text;
    else if (name === '--pattern') {
      const hours = text.split(',').map(Number);
      const pattern =
        PATTERNS.find(({ id }) => id === text) ??
        (hours.every((one) => one > 0 && one <= 336) ? typedPattern(hours) : undefined);
      if (pattern === undefined)
        return {
          ok: false,
          message: `--pattern ${text}: one of ${PATTERNS.map(({ id }) => id).join(', ')}, or hours as 2,4,8`,
        };
      ask.pattern = pattern;
    } else if (name === '--lose') {
      const [what, id] = text.split(':');
      if (what !== 'unit' && what !== 'module')
        return { ok: false, message: `--lose ${text}: unit:ID or module:ID is needed` };
      ask.lose = { what, atH: 0, ...(what === 'unit' ? { unitId: id } : {}) };
    } else return { ok: false, message: `${name}: not an option of this command` };
  }
  const problem = askProblem(ask);
  return problem === undefined ? { ok: true, value: ask } : { ok: false, message: problem };
}

/** The set in which a unit or a module fails. */
function setOf({ stacks }: Design, options: readonly string[]): string | undefined {
  const text = options[options.indexOf('--lose') + 1] ?? '';
  const id = text.slice(text.indexOf(':') + 1);
  return stacks.find(({ units, bank }) =>
    (text.startsWith('unit:') ? units : typeof bank === 'object' ? bank.modules : []).some(
      (one) => one.id === id,
    ),
  )?.id;
}

/** Whether the unit or module that is to fail is in the design. */
function lostProblem(design: Design, options: readonly string[]): string | undefined {
  const text = options[options.indexOf('--lose') + 1];
  if (!options.includes('--lose') || text === undefined) return undefined;
  const id = text.slice(text.indexOf(':') + 1);
  const ids = design.stacks.flatMap(({ units, bank }) => [
    ...(text.startsWith('unit:') ? units : typeof bank === 'object' ? bank.modules : []).map((one) => one.id),
  ]);
  return ids.includes(id) ? undefined : `--lose ${text}: there is no such ${text.split(':')[0] ?? ''}`;
}

const hours = (minutes: number): number => Math.round((minutes / 60) * 10_000) / 10_000;

function outage(plant: Plant, apart: readonly BankApart[], design: Design, ask: RehearsalAsk) {
  const run = outageRun(plant, { site: design.site }, ask);
  const minutes: {
    minute: number;
    soc: number;
    loadW: number;
    servedW: number;
    sunW: number;
    generatorW: number;
    batteryW: number;
  }[] = [];
  const events: { clock: string; minute: number; sentence: string; isBad: boolean }[] = [];
  const tell = eventTeller(plant, run);
  const result = runOutage(plant, run, (minute, now) => {
    for (const event of tell(minute, now)) events.push({ clock: clockOf(run, minute), ...event });
    if (minute % 15 === 0)
      minutes.push({
        minute,
        soc: now.soc,
        loadW: now.wantedW,
        servedW: now.loadW * now.served,
        sunW: now.sunDcW + now.sunAcW,
        generatorW: now.generatorW,
        batteryW: now.batteryW,
      });
  });
  const { boardMinutes, energy, ...rest } = result;
  return {
    run: { startMinute: run.startMinute, minutes: run.minutes, startSoc: run.startSoc, season: run.season },
    lastedH: hours(result.lastedMinutes),
    ...rest,
    boards: plant.boards.map(({ name, partitionId }, at) => ({
      partitionId,
      name,
      servedH: hours(boardMinutes[at] ?? 0),
    })),
    energyWh: energy,
    ...(apart.length === 0
      ? {}
      : {
          banks: runApart(apart, run).map((played, at) => ({
            label: apart[at]?.label,
            lastedH: hours(played.lastedMinutes),
            lowestSoc: played.lowestSoc,
            generatorMinutes: played.generatorMinutes,
            litres: played.litres,
          })),
        }),
    leftOut: plant.leftOut,
    events,
    quarters: minutes,
  };
}

function nights(plant: Plant, design: Design, ask: RehearsalAsk) {
  const run = nightsRun(plant, { site: design.site }, ask);
  const columns = nightColumns(plant, run.nights);
  playNights(plant, run, columns, 0, run.nights);
  const summary = summarise(plant, run, columns);
  return {
    seed: run.seed,
    pattern: { id: run.pattern.id, meaning: run.pattern.meaning },
    ...summary,
    drivers: driversOf(plant, run, summary).map(({ title, gain, summary: other }) => ({
      title,
      gain,
      carried: other.carried,
    })),
    leftOut: plant.leftOut,
  };
}

/** The start of a chosen item, for the set that feeds it, with what the battery comes to meanwhile. */
function startIn(
  compiled: Rehearsed['compiled'],
  installation: Installation,
  design: Design,
  key: string | undefined,
): object {
  const start = key === undefined ? undefined : motorStart(compiled, key);
  if (key === undefined || start === undefined) return {};
  if (!start.known) return { start: { missing: start.missing.map(formatPath) } };
  if (start.value === undefined) return {};
  const battery = batteryInStart(installation, compiled.stack.id, key).map((finding) => ({
    check: finding.check,
    state: finding.state,
    value: finding.value ?? null,
    limit: finding.limit ?? null,
    unit: finding.unit,
    sentence: sentenceOf(design, finding),
  }));
  return { start: { ...start.value, battery } };
}

/** What is wrong with the item that is to start; undefined where some set feeds it. */
function motorProblem(sets: readonly Rehearsed[], key: string | undefined): string | undefined {
  if (key === undefined) return undefined;
  const all = sets.flatMap(({ compiled }) => {
    const starters = startersOf(compiled);
    return starters.known ? starters.value : [];
  });
  return all.some((one) => one.key === key)
    ? undefined
    : `--motor ${key}: nothing of that name starts here. What starts: ${all.map((one) => `${one.key} (${one.label})`).join(', ') || 'nothing'}`;
}

function ofSet(
  { compiled, plant }: Rehearsed,
  kind: RehearsalKind,
  { installation, design, ask }: { installation: Installation; design: Design; ask: RehearsalAsk },
): object {
  const set = { stackId: compiled.stack.id, name: compiled.stack.name };
  if (kind === 'transfer') {
    const transfer = transferOf(compiled);
    return {
      ...set,
      ...(transfer.known ? transfer.value : {}),
      missing: (transfer.known ? transfer.value.missing : transfer.missing).map(formatPath),
      ...startIn(compiled, installation, design, ask.motor),
    };
  }
  if (!plant.known) return { ...set, missing: plant.missing.map(formatPath) };
  return {
    ...set,
    loadFrom: plant.value.loadFrom,
    ...(kind === 'outage'
      ? outage(plant.value, banksApart(plant.value, compiled), design, ask)
      : nights(plant.value, design, ask)),
  };
}

/** A rehearsal of every set of a design. */
export function rehearsalReport(
  design: Design,
  kind: RehearsalKind,
  options: readonly string[],
): Outcome<object> {
  const ask = readAsk(options);
  if (!ask.ok) return ask;
  const lost = lostProblem(design, options);
  if (lost !== undefined) return { ok: false, message: lost };
  const lose = ask.value.lose && { ...ask.value.lose, stackId: setOf(design, options) };
  const installation = compile(design, SAMPLE_TYPES);
  const sets = plantsOf(installation);
  if (sets.length === 0)
    return { ok: false, message: 'Nothing of this design makes an island with a battery.' };
  const noMotor = motorProblem(sets, ask.value.motor);
  if (noMotor !== undefined) return { ok: false, message: noMotor };
  return {
    ok: true,
    value: {
      format: 1,
      kind,
      sets: sets.map((one) => ofSet(one, kind, { installation, design, ask: { ...ask.value, lose } })),
    },
  };
}
