import { hypot } from '../../values/elementary.ts';
import type { ProtectiveDeviceType } from '../../catalogue/partTypes.ts';
import { fixedWiringOhm } from '../../codes/leads.ts';
import { isMagnetic, MAGNETIC_BANDS, MAGNETIC_MS } from '../../codes/magneticTrip.ts';
import type { Circuit, Partition } from '../../installation/facts.ts';
import type { CompiledStack, Installation } from '../../installation/installation.ts';
import { isCarriedInIsland } from '../../installation/partitionKinds.ts';
import { all, field, type Known, known, mapKnown, unknownAt } from '../../values/known.ts';
import type { Path } from '../../values/problem.ts';
import type { Line } from '../../values/quantities.ts';
import { cableOf } from '../wiring/cableLines.ts';
import { circuitLineId } from '../wiring/circuitLine.ts';
import { serviceLoopM } from '../wiring/conductorLength.ts';
import { boardWayOhm, HOTTEST_CONDUCTOR_C } from './gridWay.ts';
import { generatorFault, type SourceFault, stackFault, typeOfAll } from './sourceFaults.ts';

/** A residual-current device trips on a leakage above this share of its rating. */
export const LEAKAGE_SHARE = 0.3;

/** Whether the instantaneous release of a device opens on a fault. */
export type Trip = 'yes' | 'uncertain' | 'no';

/** What feeds a fault. */
export type FaultSource = 'grid' | 'island' | 'generator';

export interface FaultAnswer {
  readonly source: FaultSource;
  /** Line to neutral at the end of the circuit, A: the least there is, by which a release is judged. */
  readonly currentA: number;
  /** The most there is, all its lines bolted together, by which the heat in a conductor is judged, A. */
  readonly mostA: number;
  /** The most there is between a line and earth, A. */
  readonly earthMostA: number;
  /** For how long the source gives it, ms; undefined: for as long as it takes. */
  readonly lastsMs: number | undefined;
  readonly trip: Trip;
}

/** Fault protection of one circuit, by what feeds it. */
export interface CircuitProtection {
  readonly circuit: Circuit;
  readonly board: string;
  /** Rating and curve of its device in words; unknown while either is. */
  readonly device: Known<string>;
  readonly answers: readonly { readonly source: FaultSource; readonly answer: Known<FaultAnswer> }[];
  /** Residual-current type that the set wants, where its type says so. */
  readonly residualDevice: string | undefined;
}

interface Device {
  readonly ratedA: number;
  readonly curve: 'B' | 'C' | 'D';
}

/** Voltage and resistance of a way from a source to the end of a circuit. */
interface Loop {
  readonly lineVoltageV: number;
  /** Out and back, in the cable of the circuit. */
  readonly cableOhm: number;
  /** Out and back from the grid to the board, in what is stated of the cables there. */
  readonly upstreamOhm: number;
  /** The same as warm as k of its insulation is tabulated for. */
  readonly warmOhm: number;
  /** As warm, as it lies in a fault of all its lines. */
  readonly boltedOhm: number;
}

/**
 * Yes: at or above the upper edge of the band, for as long as the release takes. No: below the lower edge, or the source gives up
 * sooner. Uncertain: between.
 */
export function tripOf({ ratedA, curve }: Device, currentA: number, lastsMs: number | undefined): Trip {
  const { from, to } = MAGNETIC_BANDS[curve];
  if (currentA < from * ratedA || (lastsMs !== undefined && lastsMs < MAGNETIC_MS)) return 'no';
  return currentA >= to * ratedA ? 'yes' : 'uncertain';
}

function deviceOf(circuit: Circuit, types: Readonly<Record<string, ProtectiveDeviceType>>): Known<Device> {
  const path: Path = ['circuits', circuit.id, 'device'];
  const type = circuit.device?.typeId === undefined ? undefined : types[circuit.device.typeId];
  const ratedA = circuit.device?.ratedA ?? type?.ratedA;
  const curve = circuit.device?.curve ?? type?.curve;
  const missing = [
    ...(ratedA === undefined ? [[...path, 'ratedA']] : []),
    ...(isMagnetic(curve) ? [] : [[...path, 'curve']]),
  ];
  return ratedA === undefined || !isMagnetic(curve) ? unknownAt(...missing) : known({ ratedA, curve });
}

/**
 * How often the resistance of one conductor lies in the worst fault at the end of a cable: out and back where it has one line; once
 * where two or three are bolted together, which between two of three lines counts 15 % too much.
 */
export const waysBack = (lineCount: number): 1 | 2 => (lineCount === 1 ? 2 : 1);

/** With what is left at its ends: the longer way gives the least fault current. */
const cableOhms = (
  installation: Installation,
  circuit: Circuit,
  warmC: number,
): Known<Pick<Loop, 'cableOhm' | 'warmOhm' | 'boltedOhm'>> =>
  mapKnown(
    all({
      lengthM: field(circuit.cable?.lengthM, 'circuits', circuit.id, 'cable', 'lengthM'),
      areaMm2: field(circuit.cable?.areaMm2, 'circuits', circuit.id, 'cable', 'areaMm2'),
    }),
    ({ lengthM, areaMm2 }) => {
      const loopM = serviceLoopM(installation, cableOf(installation, circuitLineId(circuit)));
      const at = (conductorC: number): number => fixedWiringOhm(lengthM + loopM, areaMm2, conductorC);
      return {
        cableOhm: 2 * at(HOTTEST_CONDUCTOR_C),
        warmOhm: 2 * at(warmC),
        boltedOhm: waysBack(circuit.lines?.length ?? 1) * at(warmC),
      };
    },
  );

/** I = V / (V / I_p + |Z|): impedances are added as if in line, which gives the least current. */
const throughLoop = ({ lineVoltageV, upstreamOhm, cableOhm }: Loop, prospectiveA: number): number =>
  lineVoltageV / (lineVoltageV / prospectiveA + upstreamOhm + cableOhm);

/** I = V / √((V / I_p)² + R²): a supply that is all reactance ahead of a cable that is all resistance gives the most. */
const mostThrough = (ohm: number, { lineVoltageV }: Loop, prospectiveA: number): number =>
  lineVoltageV / hypot(lineVoltageV / prospectiveA, ohm);

/** I = min(I_source, V / |Z|): a source of limited current drives it through any cable that its voltage can. */
const limited = ({ lineVoltageV, cableOhm: ohm }: Loop, sourceA: number): number =>
  ohm === 0 ? sourceA : Math.min(sourceA, lineVoltageV / ohm);

const weakest = (found: readonly SourceFault[]): SourceFault =>
  found.reduce((a, b) => (b.currentA < a.currentA ? b : a));

/** Places of the lines a circuit stands on; the one with the least fault current governs. */
function lineIndices(circuit: Circuit, lines: readonly Line[]): Known<readonly number[]> {
  return mapKnown(field(circuit.lines, 'circuits', circuit.id, 'lines'), (own) =>
    own.map((line) => lines.indexOf(line)),
  );
}

function islandAnswer(
  compiled: CompiledStack,
  circuit: Circuit,
  lines: readonly Line[],
  loop: Loop,
): Known<Omit<FaultAnswer, 'trip'>> {
  const on = lineIndices(circuit, lines);
  if (!on.known) return on;
  const faults = on.value.map((line) => stackFault(compiled, line, loop.lineVoltageV));
  const values = faults.flatMap((one) => (one.known ? [one.value] : []));
  const unknown = faults.find((one) => !one.known);
  if (unknown !== undefined) return unknown;
  const { currentA: sourceA, lastsMs } = weakest(values);
  const currentA = limited(loop, sourceA);
  return known({ source: 'island', currentA, mostA: currentA, earthMostA: currentA, lastsMs });
}

function answersOf(
  installation: Installation,
  compiled: CompiledStack | undefined,
  partition: Partition,
  circuit: Circuit,
  warmC: number = HOTTEST_CONDUCTOR_C,
): CircuitProtection['answers'] {
  const { site, supply, generators } = installation;
  const device = deviceOf(circuit, installation.circuitDeviceTypes);
  const loop = all({
    lineVoltageV: field(site.lineVoltageV, 'site', 'lineVoltageV'),
    cable: cableOhms(installation, circuit, warmC),
    supply,
  });
  const judged = (
    source: FaultSource,
    make: (loop: Loop, lines: readonly Line[]) => Known<Omit<FaultAnswer, 'trip'>>,
  ) => {
    const given = all({ device, loop });
    if (!given.known) return { source, answer: given };
    const { lineVoltageV, cable, supply: lines } = given.value.loop;
    const upstreamOhm = 2 * boardWayOhm(installation, partition.id);
    const found = make({ lineVoltageV, upstreamOhm, ...cable }, lines.lines);
    const answer = mapKnown(found, (one): FaultAnswer => ({
      ...one,
      trip: tripOf(given.value.device, one.currentA, one.lastsMs),
    }));
    return { source, answer };
  };
  const own = generators.filter(
    ({ generator }) => generator.stackId === undefined || generator.stackId === partition.stackId,
  );
  return [
    ...(site.grid === 'none'
      ? []
      : [
          judged('grid', (way) =>
            mapKnown(field(site.prospectiveFaultA, 'site', 'prospectiveFaultA'), (prospectiveA) => ({
              source: 'grid',
              currentA: throughLoop(way, prospectiveA),
              mostA: mostThrough(way.boltedOhm, way, prospectiveA),
              earthMostA: mostThrough(way.warmOhm, way, prospectiveA),
              lastsMs: undefined,
            })),
          ),
        ]),
    ...(partition.kind === 'generator-only'
      ? []
      : [
          judged('island', (way, lines) =>
            compiled === undefined
              ? unknownAt(['partitions', partition.id, 'stackId'])
              : islandAnswer(compiled, circuit, lines, way),
          ),
        ]),
    ...own.map((set) =>
      judged('generator', (way) =>
        mapKnown(generatorFault(set, way.lineVoltageV), ({ currentA: sourceA, lastsMs }) => {
          const currentA = limited(way, sourceA);
          return { source: 'generator', currentA, mostA: currentA, earthMostA: currentA, lastsMs };
        }),
      ),
    ),
  ];
}

/**
 * What feeds a fault at the end of one circuit, and whether its device opens: with a cable as stated, or as one asks; the most there is
 * at the temperature that one asks for, °C.
 */
export function circuitFaults(
  installation: Installation,
  circuit: Circuit,
  warmC?: number,
): CircuitProtection['answers'] {
  const partition = installation.partitions.find(({ id }) => id === circuit.partitionId);
  if (partition === undefined) return [];
  const compiled = installation.stacks.find(({ stack }) => stack.id === partition.stackId);
  const answers = answersOf(installation, compiled, partition, circuit, warmC);
  return isCarriedInIsland(partition) || partition.kind === 'generator-only'
    ? answers
    : answers.filter(({ source }) => source === 'grid');
}

/**
 * Fault protection of every circuit that is live without the grid: a line-to-neutral fault at its far end, fed by the grid, by the
 * inverters in island, and by each generator. Whether the instantaneous release of its device opens is said of each; earth faults and
 * faults that no device opens are for residual-current devices and for the inverter that shuts down.
 */
export function faultProtection(installation: Installation): CircuitProtection[] {
  const boards = installation.partitions.filter(
    (partition) => isCarriedInIsland(partition) || partition.kind === 'generator-only',
  );
  return boards.flatMap((partition) => {
    const compiled = installation.stacks.find(({ stack }) => stack.id === partition.stackId);
    const residualDevice = compiled?.type.known === true ? compiled.type.value.residualDevice : undefined;
    return installation.circuits
      .filter(({ partitionId }) => partitionId === partition.id)
      .map((circuit) => ({
        circuit,
        board: partition.name,
        device: mapKnown(
          deviceOf(circuit, installation.circuitDeviceTypes),
          ({ ratedA, curve }) => `${curve} ${ratedA} A`,
        ),
        answers: answersOf(installation, compiled, partition, circuit),
        residualDevice,
      }));
  });
}

/** Leakage of the filters of a set, all its units together, mA; unknown while its type does not say. */
export function filterLeakageMa(compiled: CompiledStack): Known<number> {
  const { stack } = compiled;
  const type = typeOfAll(compiled);
  if (!type.known) return type;
  const { id, filterLeakageMa: ofOne } = type.value;
  return mapKnown(field(ofOne, 'types', id, 'filterLeakageMa'), (ma) => ma * stack.units.length);
}
