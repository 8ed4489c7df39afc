import type { Installation } from '../installation/installation.ts';
import type { Bond, ClosedIn, Contact, Network, NetworkSource } from '../installation/network.ts';
import { type Known, mapKnown, uniquePaths } from '../values/known.ts';
import type { Path } from '../values/problem.ts';
import { remember, rememberBy } from '../values/remember.ts';
import { type Mode, modesOf } from './modes.ts';
import { indexed, type Nets, netsWith } from './nets.ts';
import { pathBetween } from './path.ts';

/** The neutral of live boards that are joined by it, with the bonds that stand on it. */
export interface LiveNeutral {
  /** Part ids of the live boards on this neutral. */
  readonly boards: readonly string[];
  /** Bonds that stand on it for certain. */
  readonly bonds: readonly string[];
  /** Bonds that may stand on it as well: a relay or a switched pole is not known. */
  readonly perhaps: readonly string[];
  readonly missing: readonly Path[];
}

/** Sources that meet on one network though nothing keeps them in step. */
export interface Clash {
  readonly sources: readonly [string, string];
  readonly path: readonly string[];
  /** Empty where it is certain. */
  readonly missing: readonly Path[];
}

/** Voltage from inside on the terminals of a grid that is away. */
export interface BackFeed {
  readonly source: string;
  readonly path: readonly string[];
  readonly missing: readonly Path[];
}

/** What follows from a mode: plain data. */
export interface ModeFacts {
  readonly modeId: string;
  /** Contacts that are closed in this mode and not in every mode. */
  readonly closed: readonly string[];
  readonly running: readonly string[];
  /** Boards with the sources they are live from. */
  readonly live: readonly { readonly partId: string; readonly sources: readonly string[] }[];
  readonly dark: readonly string[];
  readonly neutrals: readonly LiveNeutral[];
  readonly clashes: readonly Clash[];
  readonly backFeed: BackFeed | undefined;
}

type Unit = NonNullable<Contact['unit']>;

const isLost = ({ lostUnit }: Mode, unit: Unit | undefined): boolean =>
  unit !== undefined && lostUnit?.stackId === unit.stackId && lostUnit.unitId === unit.unitId;

type Shut = 'closed' | 'open' | readonly Path[];

function shutIn(mode: Mode, closedIn: ClosedIn, unit: Unit | undefined): Shut {
  return isLost(mode, unit) ? 'open' : (closedIn[mode.kind] ?? 'open');
}

/** Whether a contact is closed in a mode, open, or not known. */
export function positionOf(contact: Contact, mode: Mode): 'closed' | 'open' | 'unknown' {
  const shut = shutIn(mode, contact.closedIn, contact.unit);
  return typeof shut === 'string' ? shut : 'unknown';
}

/** Whether a bond is closed in a mode, open, or not known. */
export function bondPosition(network: Network, bond: Bond, mode: Mode): 'closed' | 'open' | 'unknown' {
  const shut = shutOfBond(network, mode, bond);
  return typeof shut === 'string' ? shut : 'unknown';
}

/** Both readings of a mode: with what is not known open, and with it closed. Nothing in between can be worse than both. */
interface Readings {
  readonly sure: Nets;
  readonly perhaps: Nets;
  readonly missing: readonly Path[];
  readonly isSure: (contact: Contact) => boolean;
  readonly isPerhaps: (contact: Contact) => boolean;
}

function readingsOf(network: Network, mode: Mode): Readings {
  const missing: Path[] = [];
  const isSure = (contact: Contact): boolean => shutIn(mode, contact.closedIn, contact.unit) === 'closed';
  const isPerhaps = (contact: Contact): boolean => shutIn(mode, contact.closedIn, contact.unit) !== 'open';
  for (const { contact } of indexed(network).switched) {
    const shut = shutIn(mode, contact.closedIn, contact.unit);
    if (typeof shut !== 'string') missing.push(...shut);
  }
  const sure = netsWith(network, isSure);
  const perhaps = missing.length === 0 ? sure : netsWith(network, isPerhaps);
  return { sure, perhaps, missing: uniquePaths(missing), isSure, isPerhaps };
}

/** The terminals of a network by number, by what they belong to. */
const places = remember((network: Network) => {
  const { numberOf } = indexed(network);
  const boards = network.parts.flatMap(({ id, kind }) => {
    if (kind !== 'board') return [];
    const bus = network.ports.find((port) => port.partId === id && port.role === 'bus');
    return bus === undefined ? [] : [{ partId: id, bus }];
  });
  const at = (terminal: string): number => numberOf.get(terminal) ?? -1;
  return {
    at,
    boards: boards.map(({ partId, bus }) => ({
      partId,
      lines: bus.terminals.flatMap(({ id, name }) => (name === 'N' || name === 'PE' ? [] : [at(id)])),
      neutral: bus.terminals.flatMap(({ id, name }) => (name === 'N' ? [at(id)] : []))[0],
    })),
  };
});

/** The nets that running sources make live, each with its sources. */
function liveNets(
  network: Network,
  nets: Nets,
  running: readonly NetworkSource[],
): ReadonlyMap<number, ReadonlySet<string>> {
  const { at } = places(network);
  const live = new Map<number, Set<string>>();
  for (const { id, terminals } of running)
    for (const terminal of terminals) {
      const net = nets.find(at(terminal));
      const sources = live.get(net);
      if (sources === undefined) live.set(net, new Set([id]));
      else sources.add(id);
    }
  return live;
}

/** Groups of sources that are in step in a mode, as one word for each source. */
function stepOf(network: Network, mode: Mode): (source: string) => string {
  const group = new Map<string, string>();
  const rootOf = (source: string): string => {
    const next = group.get(source);
    return next === undefined || next === source ? source : rootOf(next);
  };
  for (const { sources, modes } of network.inStep) {
    if (!modes.includes(mode.kind)) continue;
    const [first, ...others] = sources;
    if (first === undefined) continue;
    for (const other of others) group.set(rootOf(other), rootOf(first));
  }
  return rootOf;
}

/** Two of some sources that nothing keeps in step; undefined where all of them are. */
function apart(
  network: Network,
  mode: Mode,
  stepOfSource: (source: string) => string,
  sources: ReadonlySet<string>,
): readonly [string, string] | undefined {
  const [a, b] = new Map([...sources].reverse().map((id) => [stepOfSource(id), id])).values();
  if (a !== undefined && b !== undefined) return [a, b];
  // An inverter follows one grid or generator: it brings no two of them in step with each other.
  const led = network.sources.filter(({ id, kind }) => kind !== 'inverter' && sources.has(id));
  const areListed = (one: string, other: string): boolean =>
    network.inStep.some(
      ({ sources: listed, modes }) =>
        modes.includes(mode.kind) && listed.includes(one) && listed.includes(other),
    );
  for (const [at, { id }] of led.entries()) {
    const other = led.slice(at + 1).find((next) => !areListed(id, next.id));
    if (other !== undefined) return [id, other.id];
  }
  return undefined;
}

function clashesOf(
  network: Network,
  mode: Mode,
  running: readonly NetworkSource[],
  readings: Readings,
): Clash[] {
  const stepOfSource = stepOf(network, mode);
  const seen = new Set<string>();
  const clashes: Clash[] = [];
  const terminalsOf = new Map(running.map(({ id, terminals }) => [id, terminals]));
  const look = (nets: Nets, isClosed: (contact: Contact) => boolean, missing: readonly Path[]): void => {
    for (const sources of liveNets(network, nets, running).values()) {
      const [a, b] = apart(network, mode, stepOfSource, sources) ?? [];
      if (a === undefined || b === undefined || seen.has(`${a} ${b}`)) continue;
      seen.add(`${a} ${b}`);
      const path = pathBetween(network, isClosed, terminalsOf.get(a) ?? [], new Set(terminalsOf.get(b)));
      clashes.push({ sources: [a, b], path, missing });
    }
  };
  look(readings.sure, readings.isSure, []);
  if (readings.perhaps !== readings.sure) look(readings.perhaps, readings.isPerhaps, readings.missing);
  return clashes;
}

function backFeedOf(
  network: Network,
  running: readonly NetworkSource[],
  readings: Readings,
): BackFeed | undefined {
  const grid = network.sources.find(({ kind }) => kind === 'grid');
  if (grid === undefined || running.includes(grid)) return undefined;
  const { at } = places(network);
  const look = (
    nets: Nets,
    isClosed: (contact: Contact) => boolean,
    missing: readonly Path[],
  ): BackFeed | undefined => {
    const live = liveNets(network, nets, running);
    for (const terminal of grid.terminals) {
      // A generator is named before an inverter that only follows it.
      const [source] = [...(live.get(nets.find(at(terminal))) ?? [])].sort();
      if (source === undefined) continue;
      const from = running.find(({ id }) => id === source)?.terminals ?? [];
      return { source, path: pathBetween(network, isClosed, from, new Set(grid.terminals)), missing };
    }
    return undefined;
  };
  return (
    look(readings.sure, readings.isSure, []) ??
    (readings.perhaps === readings.sure
      ? undefined
      : look(readings.perhaps, readings.isPerhaps, readings.missing))
  );
}

function neutralsOf(
  network: Network,
  mode: Mode,
  live: ReadonlySet<string>,
  { sure, perhaps, missing }: Readings,
): LiveNeutral[] {
  const { at, boards } = places(network);
  const byNet = new Map<number, { boards: string[]; neutral: number }>();
  for (const { partId, neutral } of boards) {
    if (!live.has(partId) || neutral === undefined) continue;
    const net = sure.find(neutral);
    const found = byNet.get(net);
    if (found === undefined) byNet.set(net, { boards: [partId], neutral });
    else found.boards.push(partId);
  }
  return [...byNet].map(([net, { boards: on, neutral }]) => {
    const bonds: string[] = [];
    const maybe: string[] = [];
    const bondsMissing: Path[] = [];
    for (const bond of network.bonds) {
      const shut = shutOfBond(network, mode, bond);
      if (shut === 'open') continue;
      const where = at(bond.neutral);
      if (shut === 'closed' && sure.find(where) === net) bonds.push(bond.id);
      else if (perhaps.find(where) === perhaps.find(neutral)) {
        maybe.push(bond.id);
        if (shut !== 'closed') bondsMissing.push(...shut);
      }
    }
    return {
      boards: on,
      bonds,
      perhaps: maybe,
      missing: maybe.length === 0 ? [] : uniquePaths([...bondsMissing, ...missing]),
    };
  });
}

/** A relay goes with the unit it sits in, where relays are set unit by unit. */
function shutOfBond(network: Network, mode: Mode, { closedIn, partId, from }: Bond): Shut {
  const isUnits = from.includes('units') && network.sources.some(({ id }) => id === partId);
  const unit = isUnits ? network.sources.find(({ id }) => id === partId)?.unit : undefined;
  return shutIn(mode, closedIn, unit);
}

function factsIn(network: Network, mode: Mode): ModeFacts {
  const running = network.sources.filter(
    ({ runsIn, unit }) => runsIn.includes(mode.kind) && !isLost(mode, unit),
  );
  const readings = readingsOf(network, mode);
  const live = liveNets(network, readings.sure, running);
  const boards = places(network).boards.map(({ partId, lines }) => ({
    partId,
    sources: [...new Set(lines.flatMap((line) => [...(live.get(readings.sure.find(line)) ?? [])]))],
  }));
  const lit = boards.filter(({ sources }) => sources.length > 0);
  return {
    modeId: mode.id,
    closed: indexed(network).switched.flatMap(({ contact }) =>
      readings.isSure(contact) ? [contact.id] : [],
    ),
    running: running.map(({ id }) => id),
    live: lit,
    dark: boards.flatMap(({ partId, sources }) => (sources.length === 0 ? [partId] : [])),
    neutrals: neutralsOf(network, mode, new Set(lit.map(({ partId }) => partId)), readings),
    clashes: clashesOf(network, mode, running, readings),
    backFeed: backFeedOf(network, running, readings),
  };
}

/**
 * Walks the installation in each of its modes: which boards are live and from what, how many bonds stand on each live neutral, which
 * sources meet, and whether the grid is fed from inside. Not known while the network is not.
 */
export const walkOf = rememberBy(
  (installation: Installation) => [installation.network, modesOf(installation)],
  (installation): Known<ReadonlyMap<string, ModeFacts>> =>
    mapKnown(
      installation.network,
      (network) => new Map(modesOf(installation).map((mode) => [mode.id, factsIn(network, mode)])),
    ),
);

/** A port with what makes its conductors live in a mode. */
export interface EnergisedPort {
  readonly portId: string;
  readonly partId: string;
  readonly lines: readonly { readonly name: string; readonly sources: readonly string[] }[];
}

/** Every port that is live in a mode, with its sources; circuits are live with their board. */
export function energisedPorts(network: Network, mode: Mode): EnergisedPort[] {
  const running = network.sources.filter(
    ({ runsIn, unit }) => runsIn.includes(mode.kind) && !isLost(mode, unit),
  );
  const { sure } = readingsOf(network, mode);
  const live = liveNets(network, sure, running);
  const { numberOf } = indexed(network);
  return network.ports.flatMap(({ id, partId, terminals }) => {
    const lines = terminals.flatMap((terminal) => {
      const at = numberOf.get(terminal.id);
      const sources = at === undefined ? undefined : live.get(sure.find(at));
      return sources === undefined ? [] : [{ name: terminal.name, sources: [...sources] }];
    });
    return lines.length === 0 ? [] : [{ portId: id, partId, lines }];
  });
}

/** The way from what makes a board live to the board, as part ids. */
export function pathToBoard(network: Network, mode: Mode, partId: string): string[] {
  const { isSure } = readingsOf(network, mode);
  const bus = network.ports.find((port) => port.partId === partId && port.role === 'bus');
  const from = network.sources
    .filter(({ runsIn, unit }) => runsIn.includes(mode.kind) && !isLost(mode, unit))
    .flatMap(({ terminals }) => terminals);
  const to = new Set(
    bus?.terminals.flatMap(({ id, name }) => (name === 'N' || name === 'PE' ? [] : [id])) ?? [],
  );
  return pathBetween(network, isSure, from, to);
}

/** The way from a bond to the neutral of a board, as part ids. */
export function pathToBond(network: Network, mode: Mode, bondId: string, boardId: string): string[] {
  const { isPerhaps } = readingsOf(network, mode);
  const bond = network.bonds.find(({ id }) => id === bondId);
  const bus = network.ports.find((port) => port.partId === boardId && port.role === 'bus');
  const to = new Set(bus?.terminals.flatMap(({ id, name }) => (name === 'N' ? [id] : [])) ?? []);
  return bond === undefined ? [] : pathBetween(network, isPerhaps, [bond.neutral], to);
}
