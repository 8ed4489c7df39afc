import { boardPartId } from '../../installation/build/boards.ts';
import type { Installation } from '../../installation/installation.ts';
import type { Network, Part, Run, TerminalName } from '../../installation/network.ts';
import { all, field, type Known, mapKnown, unknownAt } from '../../values/known.ts';
import type { Path } from '../../values/problem.ts';
import { groupBy } from '../../values/groupBy.ts';
import { lazy } from '../../values/lazy.ts';
import { remember, rememberBy } from '../../values/remember.ts';
import type { Cable, Circuit } from '../../installation/facts.ts';
import { type Chunk, chunksOf } from '../loads/chunks.ts';
import { asSolved, bankLeads } from './bankLeads.ts';
import { type CableLine, type End, isFuseKind, type Joined, type LineDevice } from './cableLine.ts';
import { circuitLine, circuitLineId } from './circuitLine.ts';

/** Fields of the design that hold length and size of a cable of their own. */
const TYPED: ReadonlySet<string | number> = new Set([
  'acLead',
  'batteryLead',
  'inverterLead',
  'lead',
  'cable',
  'groupLead',
]);

function runsByPort(runs: readonly Run[]): Map<string, Run[]> {
  const ends = runs.flatMap((run) => [run.a, run.b].map((port) => ({ port, run })));
  return new Map(
    [...groupBy(ends, ({ port }) => port)].map(([port, some]) => [port, some.map(({ run }) => run)]),
  );
}

const joinedOf = (network: Network): Joined => ({
  network,
  ports: new Map(network.ports.map((port) => [port.id, port])),
  parts: new Map(network.parts.map((part) => [part.id, part])),
  runsAt: runsByPort(network.runs),
  portsOf: groupBy(network.ports, ({ partId }) => partId),
});

/** The one run on the other side of a device that stands in a line; undefined where the line ends or divides. */
function beyond(
  joined: Joined,
  portId: string,
): { readonly device: Part; readonly run: Run; readonly portId: string } | undefined {
  const port = joined.ports.get(portId);
  const device = port && joined.parts.get(port.partId);
  if (port === undefined || device?.kind !== 'device') return undefined;
  const other = joined.portsOf.get(device.id)?.find(({ id }) => id !== port.id);
  const here = joined.runsAt.get(port.id) ?? [];
  const there = other === undefined ? [] : (joined.runsAt.get(other.id) ?? []);
  const [run] = there;
  return here.length === 1 && there.length === 1 && run !== undefined && other !== undefined
    ? { device, run, portId: other.id }
    : undefined;
}

/** A device that the design says is there, or does not deny. */
function deviceOf(joined: Joined, part: Part): LineDevice[] {
  if (part.fitted?.known === true && part.fitted.value === 'none') return [];
  const ports = joined.portsOf.get(part.id) ?? [];
  return [
    {
      partId: part.id,
      label: part.label,
      ratedA: part.ratedA ?? unknownAt(part.from),
      isFuse: isFuseKind(part.device?.device),
      curve: part.device?.curve,
      role: part.role,
      figures: part.device,
      typeId: part.deviceTypeId,
      takes: ports[0]?.takes ?? unknownAt([...part.from, 'typeId']),
      ports,
      path: part.from,
    },
  ];
}

/** Follows a line from one end of a run to where it ends. */
function follow(
  joined: Joined,
  from: Run,
  startId: string,
): { readonly runs: Run[]; readonly devices: Part[]; readonly endId: string } {
  const runs: Run[] = [];
  const devices: Part[] = [];
  let endId = startId;
  for (let next = beyond(joined, endId); next !== undefined; next = beyond(joined, endId)) {
    if (next.run === from || runs.includes(next.run)) break;
    runs.push(next.run);
    devices.push(next.device);
    endId = next.run.a === next.portId ? next.run.b : next.run.a;
  }
  return { runs, devices, endId };
}

function endOf({ ports, parts }: Joined, portId: string): End {
  const port = ports.get(portId);
  const part = port && parts.get(port.partId);
  const label = part?.label ?? portId;
  const isOneOfMany = part?.kind === 'inverter' || part?.kind === 'transfer-device';
  return {
    partId: port?.partId ?? portId,
    label: isOneOfMany && port !== undefined ? `${label}, ${port.label}` : label,
    port,
  };
}

/** A figure that a run has from the design, or that the cable list gives. */
function figure(
  typed: Run | undefined,
  cable: Cable | undefined,
  lineId: string,
  key: 'lengthM' | 'areaMm2',
): { readonly value: Known<number>; readonly path: Path } {
  if (typed !== undefined) return { value: typed[key], path: [...typed.from, key] };
  const path = ['wiring', 'cables', cable?.id ?? lineId, key];
  return { value: field(cable?.[key], ...path), path };
}

const KNOWN_ELSEWHERE = ({ from, use }: Run): boolean =>
  TYPED.has(from.at(-1) ?? '') || (use === 'earth' && from[0] === 'earthPoints');

function lineOf(
  joined: Joined,
  run: Run,
  cables: ReadonlyMap<string, Cable>,
): { readonly line: CableLine; readonly runs: readonly Run[] } {
  const back = follow(joined, run, run.a);
  const on = follow(joined, run, run.b);
  const runs = [...back.runs.toReversed(), run, ...on.runs];
  const ends: [End, End] = [endOf(joined, back.endId), endOf(joined, on.endId)];
  const id = `${back.endId} to ${on.endId}`;
  const cable = cables.get(id);
  const placed = runs.filter(KNOWN_ELSEWHERE);
  const typed = placed.find((one) => one.areaMm2.known || one.lengthM.known) ?? placed[0];
  const strung = runs.find(({ use }) => use === 'pv');
  const lengthM = figure(typed?.use === 'earth' ? undefined : typed, cable, id, 'lengthM');
  const areaMm2 = figure(typed, cable, id, 'areaMm2');
  return {
    runs,
    line: {
      id,
      label: `${ends[0].label} to ${ends[1].label}`,
      ends,
      devices: [...back.devices.toReversed(), ...on.devices].flatMap((part) => deviceOf(joined, part)),
      endDevices: ends.flatMap(({ partId }) => {
        const part = joined.parts.get(partId);
        return part?.kind === 'device' && part.role !== undefined ? deviceOf(joined, part) : [];
      }),
      names: namesOf(ends),
      use: (strung ?? run).use,
      from: (strung ?? typed ?? run).from,
      lengthM: lengthM.value,
      areaMm2: areaMm2.value,
      lengthPath: lengthM.path,
      areaPath: areaMm2.path,
      cable,
      circuit: undefined,
      branch: undefined,
    },
  };
}

const namesOf = ([a, b]: readonly [End, End]): TerminalName[] =>
  (a.port?.terminals ?? [])
    .map(({ name }) => name)
    .filter((name) => b.port?.terminals.some((other) => other.name === name) === true);

const cablesOf = remember(
  (cables: readonly Cable[]) => new Map(cables.map((cable) => [cable.lineId, cable])),
);
const NO_CABLES: readonly Cable[] = [];
const cableMap = ({ wiring }: Installation): ReadonlyMap<string, Cable> =>
  cablesOf(wiring?.cables ?? NO_CABLES);

/** What somebody has said of a cable, by the id of its line. */
export const cableOf = (installation: Installation, lineId: string): Cable | undefined =>
  cableMap(installation).get(lineId);

/** Every cable but those of circuits: the network is laid without them, and stays the same while only circuits change. */
function spineOf(network: Network, installation: Installation): readonly CableLine[] {
  const joined = joinedOf(network);
  const cables = cableMap(installation);
  const solved = installation.stacks.map((compiled) => ({
    id: compiled.stack.id,
    leads: bankLeads(compiled, joined, cables),
  }));
  const isSolved = new Set(solved.flatMap(({ id, leads }) => (leads === undefined ? [] : [id])));
  const isModule = ({ partId }: End): boolean => {
    const part = joined.parts.get(partId);
    return part?.kind === 'module' && part.stackId !== undefined && isSolved.has(part.stackId);
  };
  const lines: CableLine[] = [];
  const taken = new Set<Run>();
  for (const run of network.runs) {
    if (taken.has(run)) continue;
    const { line, runs } = lineOf(joined, run, cables);
    for (const one of runs) taken.add(one);
    if (!line.ends.some(isModule)) lines.push(asSolved(line, joined, installation));
  }
  return [...lines, ...solved.flatMap(({ leads }) => leads ?? [])];
}

/** The cables of circuits, and of those the ones that have a size, and the ones that have a device. */
interface CircuitLines {
  readonly lines: readonly CableLine[];
  readonly sized: readonly CableLine[];
  readonly guarded: readonly CableLine[];
}

const isSized = ({ areaMm2 }: CableLine): boolean => areaMm2.known;
const isGuarded = ({ devices, endDevices }: CableLine): boolean =>
  devices.length > 0 || endDevices.length > 0;

interface LaidChunk {
  readonly around: readonly unknown[];
  readonly laid: CircuitLines;
}

const laidChunks = new WeakMap<Chunk, LaidChunk>();

/** The cables of all circuits that have a board, chunk by chunk. */
function circuitLines(network: Network, installation: Installation): readonly CircuitLines[] {
  const { partitions, wiring, circuitDeviceTypes } = installation;
  const around = [network, partitions, wiring?.cables, circuitDeviceTypes];
  const layLine = lazy(() => linesOn(network, installation));
  return chunksOf(installation.circuits).map((chunk) => {
    const before = laidChunks.get(chunk);
    if (before?.around.every((one, at) => one === around[at]) === true) return before.laid;
    const lines = chunk.circuits.flatMap(layLine());
    const laid = { lines, sized: lines.filter(isSized), guarded: lines.filter(isGuarded) };
    laidChunks.set(chunk, { around, laid });
    return laid;
  });
}

/** Lays the cable of a circuit; of one without a board none. */
function linesOn(network: Network, installation: Installation): (circuit: Circuit) => CableLine[] {
  const buses = new Map(
    network.ports.flatMap((port) => (port.role === 'bus' ? [[port.partId, port] as const] : [])),
  );
  const boards = new Map(installation.partitions.map(({ id }) => [id, buses.get(boardPartId(id))]));
  const labels = new Map(installation.partitions.map(({ id, name }) => [id, name]));
  const cables = cableMap(installation);
  return (circuit) => {
    const { partitionId, device } = circuit;
    const port = partitionId === undefined ? undefined : boards.get(partitionId);
    if (partitionId === undefined || port === undefined) return [];
    const type = device?.typeId === undefined ? undefined : installation.circuitDeviceTypes[device.typeId];
    const cable = cables.size === 0 ? undefined : cables.get(circuitLineId(circuit));
    return [circuitLine(circuit, type, cable, port, labels.get(partitionId) ?? partitionId)];
  };
}

/** The cables of service, grid side, outputs, boards, generators, strings, battery and earths. */
export const spineLines = rememberBy(
  ({ network, wiring }: Installation) => [network, wiring?.cables],
  (installation): Known<readonly CableLine[]> =>
    mapKnown(installation.network, (network) => spineOf(network, installation)),
);

const laidLines = remember((installation: Installation) =>
  mapKnown(all({ network: installation.network, spine: spineLines(installation) }), ({ network, spine }) => ({
    spine,
    ofCircuits: circuitLines(network, installation),
  })),
);

/**
 * Every cable of the installation from end to end, devices in it and not at its end. Not known while the network is not.
 */
export const cableLines = remember((installation: Installation): Known<readonly CableLine[]> =>
  mapKnown(laidLines(installation), ({ spine, ofCircuits }) =>
    spine.concat(...ofCircuits.map(({ lines }) => lines)),
  ),
);

/** Every cable by its id. */
export const linesById = remember((installation: Installation): Known<ReadonlyMap<string, CableLine>> =>
  mapKnown(cableLines(installation), (lines) => new Map(lines.map((line) => [line.id, line]))),
);

/** The cables whose size is known. */
export const sizedLines = remember((installation: Installation): Known<readonly CableLine[]> =>
  mapKnown(laidLines(installation), ({ spine, ofCircuits }) =>
    spine.filter(isSized).concat(...ofCircuits.map(({ sized }) => sized)),
  ),
);

/** The cables with a device in them, or at their end. */
export const guardedLines = remember((installation: Installation): Known<readonly CableLine[]> =>
  mapKnown(laidLines(installation), ({ spine, ofCircuits }) =>
    spine.filter(isGuarded).concat(...ofCircuits.map(({ guarded }) => guarded)),
  ),
);
