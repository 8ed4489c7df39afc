import type { EquipmentType } from '../catalogue/schema.ts';
import type { ProtectiveDeviceType } from '../catalogue/partTypes.ts';
import type { Design } from '../design/schema.ts';
import { isIsolator, type CableLine, type LineDevice } from '../figures/wiring/cableLine.ts';
import { cableLines } from '../figures/wiring/cableLines.ts';
import { faultsAtDevice } from '../figures/protection/placeFaults.ts';
import { poleVoltageV, stringVoltageV } from '../figures/wiring/deviceVoltage.ts';
import { belongsOf, belongsTo } from '../installation/belongs.ts';
import type { Installation } from '../installation/installation.ts';
import type { Part } from '../installation/network.ts';
import { type AskedLine, askLine } from '../sizing/askLine.ts';
import { carriesA } from '../sizing/judgeSize.ts';
import { uniquePaths, unknownAt } from '../values/known.ts';
import type { Path } from '../values/problem.ts';
import { largestDeviceA } from '../codes/deviceFor.ts';
import { isAtLeastMm2 } from '../codes/leadSizes.ts';
import { isMagnetic, MAGNETIC_BANDS } from '../codes/magneticTrip.ts';

/** A place in a cable whose device has no type, and the type of the library that fits it. */
export interface TypedDevice {
  readonly label: string;
  readonly type: ProtectiveDeviceType;
  /** The part in the network; undefined for the device of a circuit. */
  readonly part: Part | undefined;
  readonly circuitId: string | undefined;
  /** What is not stated of a source that could feed a fault there: what the type opens is held against the others alone. */
  readonly faultMissing: readonly Path[];
}

/** What comes of looking for types: those found, and the places for which the library has none. */
export interface DeviceChoice {
  readonly found: readonly TypedDevice[];
  readonly without: readonly string[];
}

/** A device and the cable that it is judged in. */
interface Place {
  readonly line: CableLine;
  readonly device: LineDevice;
}

/** Devices of a battery are chosen with its leads, in Stack. */
const isOfBattery = ({ use }: CableLine): boolean => use === 'battery';
/** What a switch alone may do, a switch alone is put in for. */
const SWITCHES: ReadonlySet<LineDevice['role']> = new Set(['grid-isolator', 'dc-switch']);

/** A circuit of which nobody has named a device. */
const unnamed = (line: CableLine): LineDevice => ({
  partId: undefined,
  label: `device of ${line.label}`,
  ratedA: unknownAt([...line.from, 'device']),
  isFuse: false,
  curve: undefined,
  role: 'circuit',
  figures: undefined,
  typeId: undefined,
  takes: unknownAt([...line.from, 'device']),
  ports: [],
  path: [...line.from, 'device'],
});

/**
 * Every device once that has no type and is not denied; where it ends several cables, in the first, which feeds it. The main of the
 * service is there before anybody plans: it is read, not chosen.
 */
function placesOf(lines: readonly CableLine[]): Place[] {
  const seen = new Set<string>();
  return lines.flatMap((line) => {
    if (isOfBattery(line)) return [];
    const listed = [...line.devices, ...line.endDevices];
    const devices = listed.length === 0 && line.circuit !== undefined ? [unnamed(line)] : listed;
    return devices.flatMap((device): Place[] => {
      const key = device.partId ?? line.id;
      if (seen.has(key)) return [];
      seen.add(key);
      return device.typeId === undefined && device.role !== 'service-main' ? [{ line, device }] : [];
    });
  });
}

/** The largest device of the circuits of each board, A: the main above them has at least that. */
function largestBelow({ circuits, circuitDeviceTypes }: Installation): ReadonlyMap<string, number> {
  const largest = new Map<string, number>();
  for (const { partitionId, device } of circuits) {
    const ratedA = device?.ratedA ?? circuitDeviceTypes[device?.typeId ?? '']?.ratedA;
    if (partitionId === undefined || ratedA === undefined) continue;
    largest.set(partitionId, Math.max(ratedA, largest.get(partitionId) ?? 0));
  }
  return largest;
}

/** What stands around a device: the largest of the circuits below it, and what may stand ahead of the thing that it feeds, A. */
interface Bounds {
  readonly belowA: number;
  readonly behindA: number | undefined;
}

/** The rating a device should have, A: the one stated; of a guard what its load and the circuits below want, and what its cable allows. */
function ratingOf(
  { device, line }: Place,
  { plannedDeviceA, question, carried, laidAs }: AskedLine,
  { belowA, behindA }: Bounds,
): { readonly atLeastA: number; readonly atMostA: number } | undefined {
  if (device.ratedA.known) return { atLeastA: device.ratedA.value, atMostA: device.ratedA.value };
  if (SWITCHES.has(device.role)) return { atLeastA: carried.currentA, atMostA: Infinity };
  if (plannedDeviceA === undefined) return undefined;
  const { areaMm2 } = line;
  const carriesMostA = areaMm2.known
    ? carriesA({ profile: question.profile, ...laidAs }, areaMm2.value)
    : undefined;
  const atMostA =
    areaMm2.known && carriesMostA !== undefined
      ? largestDeviceA(question.profile, carriesMostA, areaMm2.value)
      : Infinity;
  return { atLeastA: Math.max(plannedDeviceA, belowA), atMostA: Math.min(atMostA, behindA ?? Infinity) };
}

const KINDS: Readonly<Record<'ac' | 'dc', readonly ProtectiveDeviceType['device'][]>> = {
  ac: ['circuit-breaker'],
  dc: ['dc-breaker', 'dc-fuse'],
};

function kindsFor({ role }: LineDevice, isDc: boolean): readonly ProtectiveDeviceType['device'][] {
  if (SWITCHES.has(role)) return isDc ? ['dc-isolator'] : ['isolator'];
  return isDc ? KINDS.dc : KINDS.ac;
}

function fits({ line, device }: Place, type: ProtectiveDeviceType, needV: number, faultA: number): boolean {
  const isDc = line.names.includes('DC+');
  if (!kindsFor(device, isDc).includes(type.device) || type.ratedV < needV) return false;
  if (device.curve !== undefined && type.curve !== device.curve) return false;
  const poles = line.names.filter((name) => name !== 'N' && name !== 'PE').length;
  if (type.poles < poles) return false;
  const row = type.terminals?.find(({ port }) => port === 'line');
  const { areaMm2 } = line;
  const isLanded =
    row === undefined ||
    !areaMm2.known ||
    (isAtLeastMm2(row.maxMm2, areaMm2.value) && isAtLeastMm2(areaMm2.value, row.minMm2));
  if (!isLanded) return false;
  // What can flow there is the same whatever stands there: the figures of a type are asked of it alone.
  return isIsolator(type) || (type.breakingA ?? 0) >= faultA;
}

/** The most that any source of known current drives into a fault at a place, and what is not known of the others. */
function faultAt(
  installation: Installation,
  { line, device }: Place,
): { readonly mostA: number; readonly missing: readonly Path[] } {
  const currents = faultsAtDevice(installation, line, device).map(({ currentA }) => currentA);
  return {
    mostA: Math.max(0, ...currents.map((one) => (one.known ? one.value : 0))),
    missing: uniquePaths(currents.flatMap((one) => (one.known ? [] : one.missing))),
  };
}

/** Whether its magnetic release lets a start pass for certain. */
const standsStart = ({ curve, ratedA }: ProtectiveDeviceType, startA: number): boolean =>
  !isMagnetic(curve) || startA < MAGNETIC_BANDS[curve].from * ratedA;

/** Smallest rating first, then fewest poles, then the one that opens more. */
const smaller = (a: ProtectiveDeviceType, b: ProtectiveDeviceType): number =>
  a.ratedA - b.ratedA || a.poles - b.poles || (a.breakingA ?? 0) - (b.breakingA ?? 0);

/**
 * For every device of lines and circuits that has no type the smallest of a catalogue that fits its place: kind, poles, voltage, rating
 * as stated or else for the load and the circuits below, curve as stated or else one that lets the starts pass, breaking capacity for
 * what can flow there, and terminals for the conductor. Devices of batteries are chosen with their leads. A place whose load is not known
 * is passed over.
 */
export function typesForDevices(
  installation: Installation,
  catalogue: readonly EquipmentType[],
): DeviceChoice {
  const lines = cableLines(installation);
  if (!lines.known) return { found: [], without: [] };
  const types = catalogue.filter((type) => type.kind === 'protective-device').sort(smaller);
  const parts = new Map(
    installation.network.known ? installation.network.value.parts.map((part) => [part.id, part]) : [],
  );
  const belowA = largestBelow(installation);
  const found: TypedDevice[] = [];
  const without: string[] = [];
  for (const place of placesOf(lines.value)) {
    const asked = askLine(installation, place.line);
    const part = parts.get(place.device.partId ?? '');
    const bounds: Bounds = {
      belowA: belowA.get(part?.role === 'board-main' ? (part.partitionId ?? '') : '') ?? 0,
      behindA: part?.fed?.mostDeviceA,
    };
    const rating = asked?.known === true ? ratingOf(place, asked.value, bounds) : undefined;
    const needV =
      place.line.use === 'pv' && part !== undefined
        ? stringVoltageV(installation, part)
        : poleVoltageV(installation, place.line.names.filter((name) => name.startsWith('L')).length);
    if (rating === undefined || !needV.known) continue;
    const fault = faultAt(installation, place);
    const able = types.filter(
      (one) =>
        one.ratedA >= rating.atLeastA - 1e-9 &&
        one.ratedA <= rating.atMostA + 1e-9 &&
        fits(place, one, needV.value, fault.mostA),
    );
    const startA = asked?.known === true ? (asked.value.question.start?.currentA ?? 0) : 0;
    const type = able.find((one) => standsStart(one, startA)) ?? able[0];
    const { label } = place.device;
    if (type === undefined) without.push(label);
    else
      found.push({
        label,
        type,
        part,
        circuitId: place.line.circuit?.id,
        // A switch opens no fault.
        faultMissing: isIsolator(type) ? [] : fault.missing,
      });
  }
  return { found, without };
}

/** How many devices have no type; quick, for what only wants to know whether there is something to choose. */
export function untypedCount(installation: Installation): number {
  const lines = cableLines(installation);
  return lines.known ? placesOf(lines.value).length : 0;
}

/** Writes the types into a draft of the design: places that nobody has spoken of yet are listed as fitted. */
export function takeTypes(draft: Design, found: readonly TypedDevice[], newId: () => string): void {
  for (const { type, part, circuitId } of found) {
    const circuit = draft.circuits.find(({ id }) => id === circuitId);
    if (circuit !== undefined) circuit.device = { typeId: type.id };
    if (part?.role === undefined || part.role === 'circuit') continue;
    const { role } = part;
    const of = belongsOf(part);
    const listed = draft.devices.find((one) => belongsTo(one, role, of));
    const device = listed ?? { id: newId(), role, ...of };
    if (listed === undefined) draft.devices.push(device);
    device.typeId = type.id;
    device.fitted = 'yes';
    delete device.ratedA;
  }
}
