import type { InverterType } from '../../catalogue/inverterType.ts';
import { field, type Known, known, unknownAt } from '../../values/known.ts';
import type { Path } from '../../values/problem.ts';
import type { Unit } from '../facts.ts';
import type { CompiledStack } from '../installation.ts';
import type { ModeKind } from '../modeKinds.ts';
import type { Part, Port, TerminalName } from '../network.ts';
import { unitLines } from '../unitLines.ts';
import type { Given } from './given.ts';
import { islandBesides } from '../fedSets.ts';
import { ALWAYS, closedIn, type Laying, neutralPole, takesOf } from './laying.ts';

/** One inverter with its ports, and the outputs that lead to a backed-up side. */
export interface LaidUnit {
  readonly unit: Unit;
  readonly number: number;
  readonly part: Part;
  readonly grid: Port | undefined;
  readonly generator: Port | undefined;
  /** By the id of the output; '' where the type has one only. */
  readonly outputs: readonly { readonly outputId: string; readonly port: Port }[];
}

/** In which modes an inverter makes voltage or follows what comes in. */
const RUNS_IN: readonly ModeKind[] = [
  'on-grid',
  'island',
  'generator-port',
  'transfer-switch',
  'generator-inlet',
];

/** In which modes a unit joins its grid port to its backup port. */
const FOLLOWS_GRID: readonly ModeKind[] = ['on-grid', 'transfer-switch'];

export const unitPartId = (stackId: string, unitId: string): string => `unit ${stackId}/${unitId}`;

export const unitLabel = (stacks: number, stackName: string, number: number): string =>
  stacks > 1 ? `unit ${number} of ${stackName}` : `unit ${number}`;

/** The conductors at the AC ports of a unit: its lines, and a neutral unless it makes only line to line. */
function unitNames({ stack }: CompiledStack, unit: Unit, given: Given): Known<TerminalName[]> {
  const { supply } = given;
  const lines = unitLines(stack, stack.arrangement ?? 'one-unit', supply);
  const own = lines.known ? lines.value.get(unit.id) : undefined;
  if (own === undefined)
    return lines.known ? known(['PE']) : unknownAt(['stacks', stack.id, 'units', unit.id, 'line']);
  const named = own.flatMap((index): TerminalName[] => {
    const line = supply.lines[index];
    return line === undefined ? [] : [line];
  });
  const hasNeutral = stack.arrangement !== 'split-phase-autotransformer';
  return known([...named, ...(hasNeutral ? (['N'] as const) : []), 'PE']);
}

/** Whether a unit stands on the service side and feeds nothing in island. */
const feedsNothing = (type: InverterType | undefined): boolean => type?.backupOutlet === 'none';

/** A generator ahead of the grid ports of other sets leaves this one in island; inlets on the service board are taken for the grid. */
const modesOfGridPort = (given: Given, stackId: string): readonly ModeKind[] => {
  const { generators } = given.design;
  const island = islandBesides(stackId, generators);
  const follows = FOLLOWS_GRID.filter((kind) => !island.includes(kind));
  return generators.some(
    (one) => one.connection === 'inlet' && one.stackId === stackId && one.inletAt === 'service-board',
  )
    ? [...follows, 'generator-inlet']
    : follows;
};

/** The type of a unit: its own, else that of its set. */
export function unitTypeOf(given: Given, { stack, type }: CompiledStack, unit: Unit): Known<InverterType> {
  if (unit.inverterTypeId === undefined) return type;
  const from: Path = ['stacks', stack.id, 'units', unit.id, 'inverterTypeId'];
  return given.find('inverter', unit.inverterTypeId, from);
}

/** Lays one inverter: grid, backup and generator port, and the relays between them. */
export function layUnit(laying: Laying, given: Given, compiled: CompiledStack, unit: Unit): LaidUnit {
  const { stack } = compiled;
  const number = stack.units.indexOf(unit) + 1;
  const from: Path = ['stacks', stack.id, 'units', unit.id];
  const own = unitTypeOf(given, compiled, unit);
  const type = own.known ? own.value : undefined;
  const mounted = given.design.place?.mounted.find(
    (one) => one.part === 'unit' && one.stackId === stack.id && one.partId === unit.id,
  );
  const part = laying.part({
    id: unitPartId(stack.id, unit.id),
    kind: 'inverter',
    label: unitLabel(given.stacks.length, stack.name, number),
    from,
    stackId: stack.id,
    unitId: unit.id,
    ...(type === undefined ? {} : { typeName: type.name, rating: `${type.ratedVa / 1000} kVA` }),
    ...(mounted === undefined ? {} : { mountedId: mounted.id }),
  });
  if (stack.arrangement === 'dc-side-box')
    return { unit, number, part, grid: undefined, generator: undefined, outputs: [] };
  if (stack.arrangement === undefined) laying.gaps.push(['stacks', stack.id, 'arrangement']);
  if (!own.known) laying.gaps.push(...own.missing);
  const names = unitNames(compiled, unit, given);
  if (!names.known) laying.gaps.push(...names.missing);
  if (!names.known) return { unit, number, part, grid: undefined, generator: undefined, outputs: [] };
  const typePath: Path = type === undefined ? ['stacks', stack.id, 'inverterTypeId'] : ['types', type.id];
  const takes = (port: string) => takesOf(type?.terminals, port, typePath);
  const grid = laying.port(part, 'grid', names.value, { label: 'grid port', takes: takes('grid') });
  const outputs = feedsNothing(type)
    ? []
    : (type?.outputs ?? [{ id: '', name: 'backup output' }]).map(({ id, name }) => ({
        outputId: type?.outputs === undefined ? '' : id,
        port: laying.port(part, 'backup', names.value, {
          key: `backup ${id}`,
          label: name,
          takes: takes(id === '' ? 'backup' : id),
        }),
      }));
  const rule =
    type === undefined
      ? unknownAt(['stacks', stack.id, 'inverterTypeId'])
      : field(type.transferNeutral, 'types', type.id, 'transferNeutral');
  const where = { stackId: stack.id, unitId: unit.id };
  const [main, ...others] = outputs;
  if (main === undefined) return { unit, number, part, grid, generator: undefined, outputs };
  const withGrid = closedIn(...modesOfGridPort(given, stack.id));
  laying.poles(grid, main.port, { lines: withGrid, neutral: neutralPole(rule, withGrid) }, where);
  for (const { port } of others) laying.poles(main.port, port, { lines: ALWAYS, neutral: ALWAYS }, where);
  const hasGeneratorPort = type?.generatorPortA !== undefined && type.generatorPortA !== 'none';
  const isWanted = given.design.generators.some(
    (one) => one.connection === 'generator-port' && one.stackId === stack.id,
  );
  const generator =
    hasGeneratorPort || isWanted
      ? laying.port(part, 'generator', names.value, { label: 'generator port', takes: takes('generator') })
      : undefined;
  if (generator !== undefined) {
    const withSet = closedIn(...(isWanted ? (['generator-port'] as const) : []));
    laying.poles(generator, main.port, { lines: withSet, neutral: neutralPole(rule, withSet) }, where);
  }
  laying.sources.push({
    id: part.id,
    partId: part.id,
    kind: 'inverter',
    terminals: main.port.terminals.flatMap(({ id, name }) => (name === 'N' || name === 'PE' ? [] : [id])),
    // A set that stops when one of its units is lost runs in no such mode.
    runsIn: type?.lostUnit === 'set-stops' ? RUNS_IN : [...RUNS_IN, 'unit-lost'],
    unit: where,
  });
  return { unit, number, part, grid, generator, outputs };
}
