import { nextDeviceA } from '../codes/deviceFor.ts';
import type { CodeProfileName } from '../codes/profile.ts';
import type { Carried } from '../figures/wiring/carried.ts';
import { carriedBy } from '../figures/wiring/carriedBy.ts';
import type { CableLine, LineDevice } from '../figures/wiring/cableLines.ts';
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

const terminalsOf = ({ ends }: CableLine): TerminalRange[] =>
  ends.flatMap(({ port, label }) => {
    if (port?.takes.known !== true) return [];
    const { minMm2, maxMm2 } = port.takes.value;
    return [{ label: label.includes(port.label) ? label : `${label}, ${port.label}`, minMm2, maxMm2 }];
  });

/** The stated device of a cable that is rated least. */
export function governing(devices: readonly LineDevice[]): LineDevice | undefined {
  return devices.reduce<LineDevice | undefined>((least, one) => {
    if (!one.ratedA.known) return least;
    return least?.ratedA.known === true && least.ratedA.value <= one.ratedA.value ? least : one;
  }, undefined);
}

/**
 * What the size of a cable follows from. Undefined for a cable that carries nothing in service; not known while its load or its
 * surroundings are not.
 */
export function askLine(installation: Installation, line: CableLine): Known<AskedLine> | undefined {
  const carried = carriedBy(installation, line);
  if (carried === undefined) return undefined;
  const first = all({ carried, profile: field(installation.site.codeProfile, 'site', 'codeProfile') });
  if (!first.known) return first;
  const laidAs = laidAsOf(installation, line, first.value.profile);
  if (!laidAs.known) return laidAs;
  return known(asked(installation, line, first.value.carried, first.value.profile, laidAs.value));
}

function asked(
  installation: Installation,
  line: CableLine,
  carried: Carried,
  profile: CodeProfileName,
  laidAs: LaidAs,
): AskedLine {
  const { cable } = line;
  const device = governing(line.devices);
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
    lengthM: line.lengthM.known ? line.lengthM.value : undefined,
    isFlexible: carried.isBattery,
    dropLimit: cable?.dropLimit ?? installation.defaults[carried.dropKey].value,
    start: carried.start && { ...carried.start, dropLimit: installation.defaults.dropStart.value },
    terminals: terminalsOf(line),
  };
  const plannedDeviceA = nextDeviceA(
    profile,
    demandA({ ...base, deviceA, faults: () => [] }),
    carried.isBattery ? 'battery' : 'ac',
  );
  const hasDevice = line.devices.length > 0 || line.circuitId !== undefined;
  const question: ConductorQuestion = {
    ...base,
    deviceA: deviceA ?? (hasDevice ? plannedDeviceA : undefined),
    faults: faultsOf(installation, line, deviceA, laid.insulation),
  };
  return { line, carried, laidAs, question, device, deviceA, plannedDeviceA };
}
