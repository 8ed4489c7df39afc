import type { TerminalRow } from '../../catalogue/common.ts';
import type { ReadTerminal } from '../facts.ts';
import { all, field, type Known, known, mapKnown, unknownAt } from '../../values/known.ts';
import type { Path } from '../../values/problem.ts';
import { MODE_KINDS, type ModeKind } from '../modeKinds.ts';
import type {
  Bond,
  ClosedIn,
  CommsLink,
  Conductor,
  Contact,
  FedAlone,
  InStep,
  Interlock,
  Network,
  NetworkProblem,
  NetworkSource,
  Part,
  Port,
  PortRole,
  Run,
  TerminalName,
  Use,
} from '../network.ts';

/**
 * What a terminal takes, by its type and by what was read off it: the type goes before, what it leaves open is filled. Without a type's
 * range one has to be read in full, from the thinnest to the thickest.
 */
function filled(ofType: Known<TerminalRow>, read: ReadTerminal | undefined): Known<TerminalRow> {
  if (read === undefined) return ofType;
  const { id, portId, minMm2, maxMm2, ...landing } = read;
  if (ofType.known) return known({ ...landing, ...ofType.value });
  const range = all({
    minMm2: field(minMm2, 'wiring', 'terminals', id, 'minMm2'),
    maxMm2: field(maxMm2, 'wiring', 'terminals', id, 'maxMm2'),
  });
  return mapKnown(range, (given) => ({ port: portId, ...given, ...landing }));
}

/** The network while it is being laid. Written to by the builders only. */
export class Laying {
  private readonly read: ReadonlyMap<string, ReadTerminal>;

  /** @param read Terminal data that somebody has read off the equipment. */
  constructor(read: readonly ReadTerminal[] = []) {
    this.read = new Map(read.map((one) => [one.portId, one]));
  }

  readonly parts: Part[] = [];
  readonly ports: Port[] = [];
  readonly runs: Run[] = [];
  readonly conductors: Conductor[] = [];
  readonly contacts: Contact[] = [];
  readonly bonds: Bond[] = [];
  readonly sources: NetworkSource[] = [];
  readonly inStep: InStep[] = [];
  readonly interlocks: Interlock[] = [];
  readonly links: CommsLink[] = [];
  readonly problems: NetworkProblem[] = [];
  readonly gaps: Path[] = [];

  part(part: Part): Part {
    this.parts.push(part);
    return part;
  }

  /** A port with one terminal for each name. */
  port(
    part: Part,
    role: PortRole,
    names: readonly TerminalName[],
    more: {
      readonly label?: string;
      readonly takes?: Known<TerminalRow>;
      readonly key?: string;
      readonly fed?: FedAlone;
    } = {},
  ): Port {
    const id = `${part.id} ${more.key ?? role}`;
    const port: Port = {
      id,
      partId: part.id,
      role,
      label: more.label ?? role,
      terminals: names.map((name) => ({ id: `${id} ${name}`, name })),
      takes: filled(more.takes ?? unknownAt([...part.from, 'terminals']), this.read.get(id)),
      ...(more.fed === undefined ? {} : { fed: more.fed }),
    };
    this.ports.push(port);
    return port;
  }

  /** A cable between two ports: a conductor for each name that both have. */
  run(
    a: Port,
    b: Port,
    more: {
      readonly use: Use;
      readonly from: Path;
      readonly lengthM?: Known<number>;
      readonly areaMm2?: Known<number>;
      readonly routeId?: string;
    },
  ): void {
    if (a.id === b.id) {
      this.problems.push({ path: more.from, message: 'joins a part to itself' });
      return;
    }
    const id = `${a.id} to ${b.id}`;
    this.runs.push({
      id,
      a: a.id,
      b: b.id,
      use: more.use,
      lengthM: more.lengthM ?? unknownAt([...more.from, 'lengthM']),
      areaMm2: more.areaMm2 ?? unknownAt([...more.from, 'areaMm2']),
      ...(more.routeId === undefined ? {} : { routeId: more.routeId }),
      from: more.from,
    });
    for (const one of a.terminals) {
      const other = b.terminals.find(({ name }) => name === one.name);
      if (other !== undefined)
        this.conductors.push({ id: `${id} ${one.name}`, runId: id, a: one.id, b: other.id, name: one.name });
    }
  }

  /** Poles from one port of a part to another: lines as stated, the neutral by a rule of its own, earth for good. */
  poles(
    a: Port,
    b: Port,
    closed: { readonly lines: ClosedIn; readonly neutral: ClosedIn },
    unit?: Contact['unit'],
  ): void {
    for (const one of a.terminals) {
      const other = b.terminals.find(({ name }) => name === one.name);
      if (other === undefined) continue;
      const isNeutral = one.name === 'N';
      this.contacts.push({
        id: `${one.id} – ${other.id}`,
        partId: a.partId,
        a: one.id,
        b: other.id,
        pole: isNeutral ? 'neutral' : 'line',
        closedIn: one.name === 'PE' ? ALWAYS : isNeutral ? closed.neutral : closed.lines,
        ...(unit === undefined || one.name === 'PE' ? {} : { unit }),
      });
    }
  }

  network(): Network {
    const { parts, ports, runs, conductors, contacts, bonds, sources } = this;
    const { inStep, interlocks, links, problems, gaps } = this;
    return {
      parts,
      ports,
      runs,
      conductors,
      contacts,
      bonds,
      sources,
      inStep,
      interlocks,
      links,
      problems,
      gaps,
    };
  }
}

/** Closed in the modes named. */
export const closedIn = (...modes: readonly ModeKind[]): ClosedIn =>
  Object.fromEntries(modes.map((mode) => [mode, 'closed']));

/** Closed in every mode. */
export const ALWAYS: ClosedIn = closedIn(...MODE_KINDS);

export const NEVER: ClosedIn = {};

/** Closed in the modes named, if that were known: the places that would have to say it. */
export const unknownIn = (modes: readonly ModeKind[], ...missing: readonly Path[]): ClosedIn =>
  Object.fromEntries(modes.map((mode) => [mode, missing]));

/** The neutral pole of a switch: with its lines, for good, or not known. */
export function neutralPole(rule: Known<'solid' | 'switched'>, lines: ClosedIn): ClosedIn {
  if (rule.known) return rule.value === 'solid' ? ALWAYS : lines;
  const open = MODE_KINDS.filter((mode) => lines[mode] === undefined);
  return { ...lines, ...unknownIn(open, ...rule.missing) };
}

/** What the terminals of a port take, by the name the type prints beside it. */
export function takesOf(
  terminals: readonly TerminalRow[] | undefined,
  port: string,
  from: Path,
): Known<TerminalRow> {
  const found = terminals?.find((row) => row.port === port);
  return found === undefined ? unknownAt([...from, 'terminals']) : { known: true, value: found };
}
