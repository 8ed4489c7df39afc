import { unknownAt, type Known, known } from '../../values/known.ts';
import type { Path } from '../../values/problem.ts';
import type { CompiledStack } from '../installation.ts';
import type { ClosedIn, Port } from '../network.ts';
import { islandBesides } from '../fedSets.ts';
import type { Given } from './given.ts';
import { closedIn, type Laying, unknownIn } from './laying.ts';
import type { LaidUnit } from './units.ts';

const IN_ISLAND = ['island', 'unit-lost', 'generator-inlet'] as const;

/** Whether a set closes a neutral–earth relay in island: as it is set, else as its type does. */
function relayOf({ stack, type }: CompiledStack): Known<'on' | 'off'> {
  if (stack.neutralEarthRelay === 'off') return known('off');
  if (!type.known) return type;
  switch (type.value.neutralEarthRelay) {
    case 'yes':
      return known('on');
    case 'no':
      return known('off');
    case 'external-kit':
      return stack.relayKit === undefined
        ? unknownAt(['stacks', stack.id, 'relayKit'])
        : known(stack.relayKit === 'fitted' ? 'on' : 'off');
    case undefined:
      return unknownAt(['types', type.value.id, 'neutralEarthRelay']);
  }
}

const hasPortGenerator = (stackId: string, generators: Given['design']['generators']): boolean =>
  generators.some((one) => one.stackId === stackId && one.connection === 'generator-port');

/** The modes in which the relay is closed: in island, and while a generator feeds the generator port as the type says. */
function whenClosed({ type, stack }: CompiledStack, generators: Given['design']['generators']): ClosedIn {
  const island = closedIn(...IN_ISLAND, ...islandBesides(stack.id, generators));
  if (!hasPortGenerator(stack.id, generators)) return island;
  const rule = type.known ? type.value.relayWithGenerator : undefined;
  if (rule === 'open') return island;
  if (rule === 'closed') return { ...island, ...closedIn('generator-port') };
  const path: Path = type.known
    ? ['types', type.value.id, 'relayWithGenerator']
    : ['stacks', stack.id, 'inverterTypeId'];
  return { ...island, ...unknownIn(['generator-port'], path) };
}

/**
 * The neutral–earth relay of a set. Where relays are set unit by unit each that is on makes a bond; else the set closes one, at
 * its output.
 */
export function layRelay(
  laying: Laying,
  compiled: CompiledStack,
  units: readonly LaidUnit[],
  bus: Port,
  generators: Given['design']['generators'],
): void {
  const { stack } = compiled;
  const neutral = bus.terminals.find(({ name }) => name === 'N');
  if (neutral === undefined || units.every(({ outputs }) => outputs.length === 0)) return;
  const from: Path = ['stacks', stack.id, 'neutralEarthRelay'];
  const shut = whenClosed(compiled, generators);
  const setByUnit = units.filter(({ unit }) => unit.neutralEarthRelay !== undefined);
  if (setByUnit.length > 0) {
    for (const { unit, part } of setByUnit)
      if (unit.neutralEarthRelay === 'on')
        laying.bonds.push({
          id: `relay ${part.id}`,
          partId: part.id,
          label: `the relay of ${part.label}`,
          neutral: neutral.id,
          closedIn: shut,
          from: [...part.from, 'neutralEarthRelay'],
        });
    return;
  }
  const relay = relayOf(compiled);
  if (relay.known && relay.value === 'off') return;
  const isKit = compiled.type.known && compiled.type.value.neutralEarthRelay === 'external-kit';
  const kit = isKit
    ? laying.part({
        id: `relay-kit ${stack.id}`,
        kind: 'relay-kit',
        label: 'relay kit',
        from,
        stackId: stack.id,
      })
    : undefined;
  const host = units.find(({ unit }) => unit.id === stack.hostUnitId) ?? units[0];
  laying.bonds.push({
    id: `relay ${stack.id}`,
    partId: kit?.id ?? host?.part.id ?? bus.partId,
    label: kit === undefined ? `the relay of ${stack.name}` : `the relay kit of ${stack.name}`,
    neutral: neutral.id,
    closedIn: relay.known
      ? shut
      : unknownIn(
          [
            ...IN_ISLAND,
            ...islandBesides(stack.id, generators),
            ...(hasPortGenerator(stack.id, generators) ? (['generator-port'] as const) : []),
          ],
          ...relay.missing,
        ),
    from: relay.known ? from : (relay.missing[0] ?? from),
  });
}
