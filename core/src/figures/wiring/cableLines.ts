import { boardPartId } from '../../installation/build/boards.ts';
import type { Installation } from '../../installation/installation.ts';
import type { Network, Part, Port, Run, TerminalName } from '../../installation/network.ts';
import { all, field, known, type Known, mapKnown, unknownAt } from '../../values/known.ts';
import type { Path } from '../../values/problem.ts';
import { groupBy } from '../../values/groupBy.ts';
import { remember } from '../../values/remember.ts';
import type { Branch } from '../bank/bankLay.ts';
import { bankCircuitOf } from '../bank/ofSet.ts';
import type { ProtectiveDeviceType } from '../../catalogue/partTypes.ts';
import type { Cable, Circuit } from '../../installation/facts.ts';

/** Where a cable ends. A battery lead between two modules ends at parts whose ports the drawing does not tell apart. */
export interface End {
  readonly partId: string;
  readonly label: string;
  readonly port: Port | undefined;
}

/** A breaker, fuse or switch in a cable, as far as it is stated. */
export interface LineDevice {
  /** The part that it is in the network. */
  readonly partId: string | undefined;
  readonly label: string;
  readonly ratedA: Known<number>;
  readonly isFuse: boolean;
  readonly curve: string | undefined;
  readonly path: Path;
}

/** One cable from end to end with the devices in it: what somebody pulls, cuts and lands. */
export interface CableLine {
  /** Unique, and the same as long as its ends are. */
  readonly id: string;
  readonly label: string;
  readonly ends: readonly [End, End];
  /** The devices in it; of a circuit its own. */
  readonly devices: readonly LineDevice[];
  readonly names: readonly TerminalName[];
  readonly use: Run['use'];
  readonly lengthM: Known<number>;
  readonly areaMm2: Known<number>;
  /** Where its length and size are typed. */
  readonly lengthPath: Path;
  readonly areaPath: Path;
  /** What somebody has said of it. */
  readonly cable: Cable | undefined;
  /** The circuit that it is the cable of. */
  readonly circuit: Circuit | undefined;
  /** The place of the design that made it. */
  readonly from: Path;
  /** For a lead of a battery bank: its resistance in the bank. */
  readonly branch: { readonly stackId: string; readonly id: string } | undefined;
}

/** Fields of the design that hold length and size of a cable of their own. */
const TYPED: ReadonlySet<string | number> = new Set([
  'acLead',
  'batteryLead',
  'inverterLead',
  'lead',
  'cable',
  'groupLead',
]);

interface Joined {
  readonly network: Network;
  readonly ports: ReadonlyMap<string, Port>;
  readonly parts: ReadonlyMap<string, Part>;
  readonly runsAt: ReadonlyMap<string, readonly Run[]>;
  readonly portsOf: ReadonlyMap<string, readonly Port[]>;
}

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

/** A fuse for alternating current: what a DC fuse lets pass for long is its maker's to say. */
const isFuseKind = (device: string | undefined): boolean => device === 'fuse';

/** A device that the design says is there, or does not deny. */
function deviceOf(part: Part): LineDevice[] {
  if (part.fitted?.known === true && part.fitted.value === 'none') return [];
  return [
    {
      partId: part.id,
      label: part.label,
      ratedA: part.ratedA ?? unknownAt(part.from),
      isFuse: isFuseKind(part.device?.device),
      curve: undefined,
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

const KNOWN_ELSEWHERE = (run: Run): boolean => TYPED.has(run.from.at(-1) ?? '') || run.use === 'earth';

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
      devices: [...back.devices.toReversed(), ...on.devices].flatMap(deviceOf),
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

const LEADS: ReadonlySet<Branch['kind']> = new Set(['module-lead', 'link', 'group-lead']);

const isSamePlace = (a: Branch['at'], b: Branch['at']): boolean =>
  'source' in a ? 'source' in b && a.source === b.source : 'resistor' in b && a.resistor === b.resistor;

/** The leads of a bank that is solved as a network; undefined where it is not known, or is one string. */
function bankLeads(
  compiled: Installation['stacks'][number],
  joined: Joined,
  cables: ReadonlyMap<string, Cable>,
): CableLine[] | undefined {
  const circuit = bankCircuitOf(compiled);
  if (!circuit.known || typeof circuit.value === 'string') return undefined;
  const { stack } = compiled;
  const { branches } = circuit.value;
  const endAt = (part: Part | undefined): End => {
    const port = joined.portsOf.get(part?.id ?? '')?.[0];
    return { partId: part?.id ?? stack.id, label: part?.label ?? stack.name, port };
  };
  const own = joined.network.parts.filter(({ stackId }) => stackId === stack.id);
  const bars = endAt(own.find(({ kind }) => kind === 'bar'));
  const moduleEnd = (id: string): End =>
    endAt(own.find(({ kind, moduleId }) => kind === 'module' && moduleId === id));
  return branches
    .filter(({ kind, areaMm2 }) => LEADS.has(kind) && areaMm2 !== Infinity)
    .map((branch): CableLine => {
      const id = `bank ${stack.id} ${branch.id}`;
      const [first = bars, second = bars] = (branch.moduleIds ?? []).map(moduleEnd);
      return {
        id,
        label: `${branch.label} of ${stack.name}`,
        ends: [first, second],
        devices: branches
          .filter(({ kind, at }) => kind === 'device' && isSamePlace(at, branch.at))
          .map(({ label, ratedA, path }) => ({
            partId: undefined,
            label,
            ratedA: ratedA ?? unknownAt(path),
            isFuse: false,
            curve: undefined,
            path,
          })),
        names: ['DC+', 'DC−'],
        use: 'battery',
        lengthM: field(branch.lengthM, ...branch.path.slice(0, -1).map(String), 'lengthM'),
        areaMm2: field(branch.areaMm2, ...branch.path.map(String)),
        lengthPath: [...branch.path.slice(0, -1), 'lengthM'],
        areaPath: branch.path,
        cable: cables.get(id),
        circuit: undefined,
        from: branch.path,
        branch: { stackId: stack.id, id: branch.id },
      };
    });
}

/** A battery lead whose length follows from the wall plan is as long as the bank is solved with. */
function asSolved(line: CableLine, joined: Joined, installation: Installation): CableLine {
  const port = line.ends.find(({ port: one }) => one?.role === 'battery');
  const inverter = port && joined.parts.get(port.partId);
  if (inverter?.kind !== 'inverter') return line;
  const compiled = installation.stacks.find(({ stack }) => stack.id === inverter.stackId);
  const circuit = compiled && bankCircuitOf(compiled);
  if (circuit?.known !== true || typeof circuit.value === 'string') return line;
  const tap = circuit.value.taps.find(({ unitId }) => unitId === inverter.unitId);
  return tap === undefined ? line : { ...line, lengthM: known(tap.leadM) };
}

const cablesOf = remember(
  (cables: readonly Cable[]) => new Map(cables.map((cable) => [cable.lineId, cable])),
);
const NO_CABLES: readonly Cable[] = [];
const cableMap = ({ wiring }: Installation): ReadonlyMap<string, Cable> =>
  cablesOf(wiring?.cables ?? NO_CABLES);

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

/** The conductors of a circuit: two lines are line to line and need no neutral; one and three have it. */
const circuitNames = ({ lines }: Circuit): TerminalName[] => [
  ...(lines ?? []),
  ...(lines?.length === 2 ? [] : (['N'] as const)),
  'PE',
];

/** What the cable of a circuit follows from beside the circuit. */
interface CircuitSurroundings {
  readonly type: ProtectiveDeviceType | undefined;
  readonly cable: Cable | undefined;
  readonly port: Port;
  readonly boardLabel: string;
}

function layLine(circuit: Circuit, { type, cable, port, boardLabel }: CircuitSurroundings): CableLine {
  const from = ['circuits', circuit.id];
  const { device } = circuit;
  const lengthPath = [...from, 'cable', 'lengthM'];
  const areaPath = [...from, 'cable', 'areaMm2'];
  return {
    id: `circuit ${circuit.id}`,
    label: circuit.name,
    ends: [
      { partId: port.partId, label: boardLabel, port },
      { partId: `circuit ${circuit.id}`, label: circuit.name, port: undefined },
    ],
    devices:
      device === undefined
        ? []
        : [
            {
              partId: undefined,
              label: `device of ${circuit.name}`,
              ratedA: field(device.ratedA ?? type?.ratedA, ...from, 'device', 'ratedA'),
              isFuse: isFuseKind(type?.device) || (device.curve ?? type?.curve) === 'gG',
              curve: device.curve ?? type?.curve,
              path: [...from, 'device'],
            },
          ],
    names: circuitNames(circuit),
    use: 'ac',
    lengthM: field(circuit.cable?.lengthM, ...lengthPath),
    areaMm2: field(circuit.cable?.areaMm2, ...areaPath),
    lengthPath,
    areaPath,
    cable,
    from,
    circuit,
    branch: undefined,
  };
}

interface LaidLine {
  readonly around: CircuitSurroundings;
  readonly line: CableLine;
}

/** The last cable of each circuit: most edits touch one circuit, and the others keep theirs. */
const laidLines = new WeakMap<Circuit, LaidLine>();

/** The cable of a circuit, from its board to what hangs on it; the same object for as long as nothing around it changes. */
function circuitLine(circuit: Circuit, around: CircuitSurroundings): CableLine {
  const before = laidLines.get(circuit);
  if (
    before?.around.type === around.type &&
    before?.around.cable === around.cable &&
    before?.around.port === around.port &&
    before.around.boardLabel === around.boardLabel
  )
    return before.line;
  const line = layLine(circuit, around);
  laidLines.set(circuit, { around, line });
  return line;
}

/** The cables of all circuits that have a board. */
function circuitLines(network: Network, installation: Installation): CableLine[] {
  const boards = new Map(
    network.ports.flatMap((port) => (port.role === 'bus' ? [[port.partId, port] as const] : [])),
  );
  const labels = new Map(installation.partitions.map(({ id, name }) => [id, name]));
  const cables = cableMap(installation);
  return installation.circuits.flatMap((circuit) => {
    const { partitionId, device } = circuit;
    const port = partitionId === undefined ? undefined : boards.get(boardPartId(partitionId));
    if (partitionId === undefined || port === undefined) return [];
    return [
      circuitLine(circuit, {
        type: device?.typeId === undefined ? undefined : installation.circuitDeviceTypes[device.typeId],
        cable: cables.get(`circuit ${circuit.id}`),
        port,
        boardLabel: labels.get(partitionId) ?? partitionId,
      }),
    ];
  });
}

/** The cables of service, grid side, outputs, boards, generators, strings, battery and earths. */
export const spineLines = remember((installation: Installation): Known<readonly CableLine[]> =>
  mapKnown(installation.network, (network) => spineOf(network, installation)),
);

/**
 * Every cable of the installation from end to end, devices in it and not at its end. Not known while the network is not.
 */
export const cableLines = remember((installation: Installation): Known<readonly CableLine[]> =>
  mapKnown(all({ network: installation.network, spine: spineLines(installation) }), ({ network, spine }) => [
    ...spine,
    ...circuitLines(network, installation),
  ]),
);
