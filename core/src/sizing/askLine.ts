import type { TerminalRow } from '../catalogue/common.ts';
import { nextDeviceA } from '../codes/deviceFor.ts';
import type { CodeProfileName } from '../codes/profile.ts';
import type { Carried } from '../figures/wiring/carried.ts';
import { carriedBy } from '../figures/wiring/carriedBy.ts';
import { inConduits } from '../figures/wiring/conduits.ts';
import { conductorM } from '../figures/wiring/conductorLength.ts';
import { type CableLine, isIsolator, type LineDevice } from '../figures/wiring/cableLine.ts';
import type { Laying } from '../installation/facts.ts';
import type { Installation } from '../installation/installation.ts';
import { all, field, type Known, known } from '../values/known.ts';
import { faultsOf } from './faultsOf.ts';
import { demandA } from './judgeSize.ts';
import { type LaidAs, laidAsOf } from './laidAs.ts';
import type { ConductorQuestion, TerminalRange } from './question.ts';

/** A cable with what it must carry, and the device ahead of it. */
export interface AskedLine {
  readonly line: CableLine;
  readonly carried: Carried;
  readonly laidAs: LaidAs;
  readonly question: ConductorQuestion;
  /** The device that governs: the smallest that is stated. */
  readonly device: LineDevice | undefined;
  readonly deviceA: number | undefined;
  /** The smallest standard device for the load; undefined where none is large enough. */
  readonly plannedDeviceA: number | undefined;
}

const rangeOf = (label: string, takes: Known<TerminalRow> | undefined): TerminalRange[] =>
  takes?.known === true ? [{ label, minMm2: takes.value.minMm2, maxMm2: takes.value.maxMm2 }] : [];

/** The terminals that a cable is landed in: at its ends, and of the devices that it is cut at. */
const terminalsOf = ({ ends, devices }: CableLine): TerminalRange[] => [
  ...ends.flatMap(({ port, label }) =>
    rangeOf(
      port === undefined || label.includes(port.label) ? label : `${label}, ${port.label}`,
      port?.takes,
    ),
  ),
  ...devices.flatMap(({ label, takes }) => rangeOf(label, takes)),
];

/** Places whose device of no stated type is taken for an isolator where a cable ends at it. */
const SWITCHED: ReadonlySet<LineDevice['role']> = new Set(['grid-isolator', 'dc-switch', 'enable-switch']);

/** The devices that guard a cable, isolators apart: they open nothing by themselves. */
export function guardsOf({ devices, endDevices }: CableLine): readonly LineDevice[] {
  const isGuard = ({ figures }: LineDevice): boolean => !isIsolator(figures);
  // Most cables are those of circuits: one device, and none at an end.
  if (endDevices.length === 0) return devices.every(isGuard) ? devices : devices.filter(isGuard);
  const atEnds = endDevices.filter(({ figures, role }) => figures !== undefined || !SWITCHED.has(role));
  return [...devices, ...atEnds].filter(isGuard);
}

/** The device that guards a cable and is rated least of those whose rating is stated. */
export function governing(line: CableLine): LineDevice | undefined {
  return guardsOf(line).reduce<LineDevice | undefined>((least, one) => {
    if (!one.ratedA.known) return least;
    return least?.ratedA.known === true && least.ratedA.value <= one.ratedA.value ? least : one;
  }, undefined);
}

/** Whether a device has to stand ahead of a cable: of circuits always. */
export const hasGuard = (line: CableLine): boolean => line.circuit !== undefined || guardsOf(line).length > 0;

/** Whether the rating of a device ahead of a cable has to be stated before it is judged; what is only there to be opened guards nothing. */
export const awaitsRating = (line: CableLine): boolean =>
  governing(line) === undefined &&
  (line.circuit !== undefined || guardsOf(line).some(({ role }) => !SWITCHED.has(role)));

/** What the cable of a circuit is asked in, beside itself. */
interface Surroundings {
  readonly site: Installation['site'];
  readonly defaults: Installation['defaults'];
  readonly laying: Laying | undefined;
  readonly tableValues: Installation['tableValues'];
  /** How many carry in its conduit, and which that is. */
  readonly carrying: number | undefined;
  readonly conduit: string | undefined;
}

/** What was asked last of the cable of each circuit. Most edits touch one circuit, and the others need not be asked again. */
const askedLast = new WeakMap<
  CableLine,
  { readonly around: Surroundings; readonly asked: Known<AskedLine> | undefined }
>();

function ask(installation: Installation, line: CableLine): Known<AskedLine> | undefined {
  const carried = carriedBy(installation, line);
  if (carried === undefined) return undefined;
  const first = all({ carried, profile: field(installation.site.codeProfile, 'site', 'codeProfile') });
  if (!first.known) return first;
  const laidAs = laidAsOf(installation, line, first.value.profile);
  if (!laidAs.known) return laidAs;
  return known(asked(installation, line, first.value.carried, first.value.profile, laidAs.value));
}

/**
 * What the size of a cable follows from, faults apart (`withFaults`). Undefined for a cable that carries nothing in service; not known
 * while its load or its surroundings are not.
 */
export function askLine(installation: Installation, line: CableLine): Known<AskedLine> | undefined {
  if (line.circuit === undefined) return ask(installation, line);
  const { site, defaults, wiring, tableValues } = installation;
  const { carrying, name: conduit } = inConduits(installation).get(line.id) ?? {};
  const before = askedLast.get(line);
  if (
    before?.around.carrying === carrying &&
    before?.around.conduit === conduit &&
    before?.around.site === site &&
    before.around.defaults === defaults &&
    before.around.laying === wiring?.laying &&
    before.around.tableValues === tableValues
  )
    return before.asked;
  const found = ask(installation, line);
  askedLast.set(line, {
    around: { site, defaults, laying: wiring?.laying, tableValues, carrying, conduit },
    asked: found,
  });
  return found;
}

/** The same with the faults that it must stand: they follow from everything that can feed one. */
export function withFaults(installation: Installation, one: AskedLine): AskedLine {
  const { at, missing } = faultsOf(installation, one.line, one.deviceA, one.laidAs.laid.insulation);
  return { ...one, question: { ...one.question, faults: at, faultsMissing: missing } };
}

/** Before anybody asks for them. */
const NO_FAULTS: Pick<ConductorQuestion, 'faults' | 'faultsMissing'> = {
  faults: () => [],
  faultsMissing: [],
};

function asked(
  installation: Installation,
  line: CableLine,
  carried: Carried,
  profile: CodeProfileName,
  laidAs: LaidAs,
): AskedLine {
  const { cable } = line;
  const lengthM = conductorM(installation, line);
  const device = governing(line);
  const deviceA = device?.ratedA.known === true ? device.ratedA.value : undefined;
  const isPassing = cable?.passing === 'yes';
  const loads = {
    continuousA: isPassing ? 0 : carried.currentA,
    passingA: isPassing ? carried.currentA : 0,
  };
  const { laid, parallel, terminalColumn } = laidAs;
  const base = {
    profile,
    system: carried.system,
    laid,
    parallel,
    ...loads,
    isFuse: device?.isFuse === true,
    terminalColumn,
    volts: carried.volts,
    powerFactor: carried.powerFactor,
    lengthM: lengthM.known ? lengthM.value : undefined,
    isFlexible: carried.isBattery,
    dropLimit: cable?.dropLimit ?? installation.defaults[carried.dropKey].value,
    start: carried.start && { ...carried.start, dropLimit: installation.defaults.dropStart.value },
    terminals: terminalsOf(line),
  };
  const plannedDeviceA = nextDeviceA(
    profile,
    demandA({ ...base, deviceA, ...NO_FAULTS }),
    carried.isBattery ? 'battery' : 'ac',
  );
  const question: ConductorQuestion = {
    ...base,
    deviceA: deviceA ?? (hasGuard(line) ? plannedDeviceA : undefined),
    ...NO_FAULTS,
  };
  return { line, carried, laidAs, question, device, deviceA, plannedDeviceA };
}
