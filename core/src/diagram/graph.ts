import type { Installation } from '../installation/installation.ts';
import type { Network, Part, Run } from '../installation/network.ts';
import { formatNumber } from '../words/quantity.ts';

/** What a node is drawn as. */
export type SymbolKind =
  | 'grid'
  | 'board'
  | 'bus'
  | 'inverter'
  | 'breaker'
  | 'isolator'
  | 'changeover'
  | 'bypass'
  | 'contactor'
  | 'relay-kit'
  | 'autotransformer'
  | 'generator'
  | 'array'
  | 'bank'
  | 'bar'
  | 'instrument'
  | 'controller'
  | 'earth';

export interface DiagramNode {
  readonly id: string;
  readonly symbol: SymbolKind;
  /** The parts it stands for: one, or all modules of a bank. */
  readonly partIds: readonly string[];
  /** First what it is, then type and rating. */
  readonly lines: readonly string[];
  readonly widthPx: number;
  readonly heightPx: number;
  /** Where its lines come in and leave, from its left edge. */
  readonly axisPx: number;
}

export interface DiagramEdge {
  readonly id: string;
  readonly from: string;
  readonly to: string;
  /** On which of its contacts a changeover is met; everything else is met on its axis. */
  readonly side: 'axis' | 'normal' | 'alternate';
  readonly use: Run['use'] | 'comms';
  readonly runIds: readonly string[];
  /** Conductors and cable, as "3 + N + PE, 10 mm², 2.4 m". */
  readonly mark: string;
}

/** The single line before it is laid out: what is drawn and what joins it. Plain data. */
export interface Diagram {
  readonly nodes: readonly DiagramNode[];
  readonly edges: readonly DiagramEdge[];
}

const CHAR_PX = 6;
const LINE_PX = 13;

/** What stands beside a symbol, at most so many characters wide. */
const MOST_CHARS = 20;
const shorten = (text: string): string =>
  text.length > MOST_CHARS ? `${text.slice(0, MOST_CHARS - 1)}…` : text;

const SYMBOL_OF: Readonly<Partial<Record<Part['kind'], SymbolKind>>> = {
  grid: 'grid',
  board: 'board',
  'ac-bus': 'bus',
  inverter: 'inverter',
  'transfer-device': 'changeover',
  bypass: 'bypass',
  inlet: 'isolator',
  contactor: 'contactor',
  'relay-kit': 'relay-kit',
  autotransformer: 'autotransformer',
  generator: 'generator',
  array: 'array',
  module: 'bank',
  bar: 'bar',
  meter: 'instrument',
  sensor: 'instrument',
  controller: 'controller',
  'earth-point': 'earth',
  electrode: 'earth',
};

const DEVICE_WORDS: Readonly<Record<NonNullable<Part['role']>, string>> = {
  'service-main': 'service main',
  'grid-isolator': 'isolator',
  'unit-grid': 'grid side',
  'unit-output': 'output',
  'board-main': 'main',
  'generator-device': 'generator',
  'battery-unit': 'battery',
  'battery-group': 'group',
  'battery-module': 'module',
  'dc-switch': 'DC switch',
  'enable-switch': 'enable',
  'meter-device': 'meter',
  'control-device': 'controls',
  circuit: 'device',
};

function symbolOf(part: Part): SymbolKind | undefined {
  if (part.kind !== 'device') return SYMBOL_OF[part.kind];
  // It parts no line: a plain switch, and none where there is none.
  if (part.role === 'enable-switch')
    return part.fitted?.known === true && part.fitted.value === 'none' ? undefined : 'bypass';
  return part.role === 'grid-isolator' || part.role === 'dc-switch' ? 'isolator' : 'breaker';
}

function linesOf(part: Part, circuits: number): string[] {
  if (part.kind === 'device') {
    const name = part.role === undefined ? part.label : DEVICE_WORDS[part.role];
    const state =
      part.fitted?.known === true && part.fitted.value === 'none'
        ? 'not fitted'
        : part.ratedA?.known === true
          ? `${formatNumber(part.ratedA.value)} A`
          : 'not known';
    return [name, state];
  }
  const lines = [part.label];
  if (part.typeName !== undefined) lines.push(shorten(part.typeName.replace(/^Sample /, '')));
  if (part.rating !== undefined && part.kind !== 'module') lines.push(part.rating);
  if (part.kind === 'board' && part.partitionId !== undefined)
    lines.push(circuits === 1 ? '1 circuit' : `${circuits} circuits`);
  return lines.map(shorten);
}

/** Size of a node: its symbol, and its words beside it; bars carry their words above them. */
function sized(
  id: string,
  symbol: SymbolKind,
  partIds: readonly string[],
  lines: readonly string[],
): DiagramNode {
  const wordsPx = Math.max(...lines.map((line) => line.length)) * CHAR_PX;
  const isBar = symbol === 'board' || symbol === 'bus' || symbol === 'bar';
  const symbolPx = isBar
    ? Math.max(110, wordsPx + 12)
    : symbol === 'inverter' || symbol === 'changeover'
      ? 56
      : 34;
  const textPx = lines.length * LINE_PX;
  return {
    id,
    symbol,
    partIds,
    lines,
    widthPx: isBar ? symbolPx : symbolPx + wordsPx + 8,
    heightPx: isBar
      ? textPx + 14
      : Math.max(symbol === 'inverter' || symbol === 'changeover' ? 56 : 44, textPx + 4),
    axisPx: symbolPx / 2,
  };
}

/** Conductors of a run in short: three lines with neutral and earth are "3 + N + PE". */
function markOf(network: Network, runs: readonly Run[]): string {
  const [run] = runs;
  if (run === undefined) return '';
  const names = network.conductors.filter(({ runId }) => runId === run.id).map(({ name }) => name);
  const lines = names.filter((name) => name.startsWith('L'));
  const poles = names.some((name) => name.startsWith('DC'))
    ? ['+ −']
    : [
        lines.length > 1 ? String(lines.length) : (lines[0] ?? ''),
        ...(names.includes('N') ? ['N'] : []),
        ...(names.includes('PE') ? ['PE'] : []),
      ].filter((part) => part !== '');
  const cable = [
    ...(run.areaMm2.known ? [`${formatNumber(run.areaMm2.value)} mm²`] : []),
    ...(run.lengthM.known ? [`${formatNumber(run.lengthM.value)} m`] : []),
  ];
  return [poles.join(' + '), ...cable].join(', ');
}

/** Which node a part is drawn in. Modules of a bank are one node; circuits hang on their board and are counted there. */
function nodeOf(part: Part): string | undefined {
  if (part.circuitId !== undefined) return undefined;
  const isOfBank = part.kind === 'module' || part.role === 'battery-module';
  return isOfBank && part.stackId !== undefined ? `bank ${part.stackId}` : part.id;
}

/** The single line of an installation as nodes and edges, sources above what they feed, batteries below their inverters. */
export function diagramOf({ circuits }: Installation, network: Network): Diagram {
  const counts = new Map<string, number>();
  for (const { partitionId } of circuits)
    if (partitionId !== undefined) counts.set(partitionId, (counts.get(partitionId) ?? 0) + 1);
  const members = new Map<string, Part[]>();
  for (const part of network.parts) {
    const id = nodeOf(part);
    if (id === undefined || symbolOf(part) === undefined) continue;
    const list = members.get(id);
    if (list === undefined) members.set(id, [part]);
    else list.push(part);
  }
  const nodes = [...members].flatMap(([id, parts]): DiagramNode[] => {
    const [part] = parts.filter((one) => one.kind !== 'device' || parts.length === 1);
    const symbol = part === undefined ? undefined : symbolOf(part);
    if (part === undefined || symbol === undefined) return [];
    const fitted = parts.filter(
      (one) => one.kind === 'module' && !(one.fitted?.known === true && one.fitted.value === 'none'),
    );
    const lines =
      part.kind === 'module'
        ? [fitted.length === 1 ? '1 module' : `${fitted.length} modules`, ...linesOf(part, 0).slice(1)]
        : linesOf(part, counts.get(part.partitionId ?? '') ?? 0);
    return [
      sized(
        id,
        symbol,
        parts.map((one) => one.id),
        lines,
      ),
    ];
  });
  return {
    nodes: besideTheirUnits(network, nodes),
    edges: edgesOf(network, new Set(nodes.map(({ id }) => id))),
  };
}

/** What belongs to a unit stands beside it: nodes in the order of the network, those of a unit moved next to it. */
function besideTheirUnits(network: Network, nodes: readonly DiagramNode[]): DiagramNode[] {
  const parts = new Map(network.parts.map((part, at) => [part.id, { part, at }]));
  const unitAt = new Map(
    network.parts.flatMap((part, at) =>
      part.kind === 'inverter' ? [[`${part.stackId ?? ''} ${part.unitId ?? ''}`, at]] : [],
    ),
  );
  const placeOf = (node: DiagramNode): number => {
    const found = parts.get(node.partIds[0] ?? '');
    if (found === undefined) return Infinity;
    const at = unitAt.get(`${found.part.stackId ?? ''} ${found.part.unitId ?? ''}`) ?? found.at;
    // What feeds a unit from above comes before it, so that it is laid above.
    return found.part.kind === 'array' || found.part.role === 'dc-switch' ? at - 0.5 : at;
  };
  return nodes
    .map((node) => ({ node, at: placeOf(node) }))
    .sort((a, b) => a.at - b.at)
    .map(({ node }) => node);
}

function edgesOf(network: Network, nodes: ReadonlySet<string>): DiagramEdge[] {
  const partById = new Map(network.parts.map((part) => [part.id, part]));
  const nodeOfPart = (partId: string | undefined): string | undefined => {
    const part = partId === undefined ? undefined : partById.get(partId);
    const node = part === undefined ? undefined : nodeOf(part);
    return node !== undefined && nodes.has(node) ? node : undefined;
  };
  const partOfPort = new Map(network.ports.map((port) => [port.id, port.partId]));
  const roleOf = new Map(network.ports.map((port) => [port.id, port.role]));
  const sideOf = (run: Run | undefined): DiagramEdge['side'] => {
    const role = roleOf.get(run?.b ?? '');
    return role === 'normal' || role === 'alternate' ? role : 'axis';
  };
  const byEnds = new Map<string, { from: string; to: string; runs: Run[] }>();
  for (const run of network.runs) {
    const a = nodeOfPart(partOfPort.get(run.a));
    const b = nodeOfPart(partOfPort.get(run.b));
    if (a === undefined || b === undefined || a === b) continue;
    // Batteries hang below: their leads are drawn from the inverter down.
    const [from, to] = run.use === 'battery' ? [b, a] : [a, b];
    const key = `${from} → ${to}`;
    const found = byEnds.get(key);
    if (found === undefined) byEnds.set(key, { from, to, runs: [run] });
    else found.runs.push(run);
  }
  const cables = [...byEnds].map(([id, { from, to, runs }]): DiagramEdge => ({
    id,
    from,
    to,
    side: sideOf(runs[0]),
    use: runs[0]?.use ?? 'ac',
    runIds: runs.map((run) => run.id),
    mark: markOf(network, runs),
  }));
  const links = network.links.flatMap(({ id, kind, a, b }): DiagramEdge[] => {
    const isEnable = partById.get(b.partId)?.role === 'enable-switch';
    if (kind !== 'meter-bus' && kind !== 'sensor-pair' && !isEnable) return [];
    // A switch stands above what it lets run.
    const [upper, lower] = isEnable ? [b, a] : [a, b];
    const [from, to] = [nodeOfPart(upper.partId), nodeOfPart(lower.partId)];
    return from === undefined || to === undefined
      ? []
      : [{ id, from, to, side: 'axis', use: 'comms', runIds: [], mark: '' }];
  });
  return [...cables, ...links];
}
