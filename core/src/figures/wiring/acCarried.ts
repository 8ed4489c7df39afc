import type { InverterType } from '../../catalogue/inverterType.ts';
import type { Circuit, Partition, Unit } from '../../installation/facts.ts';
import type { CompiledGenerator, CompiledStack, Installation } from '../../installation/installation.ts';
import type { Supply } from '../../installation/supply.ts';
import type { FedAlone } from '../../installation/network.ts';
import { unitLines } from '../../installation/unitLines.ts';
import { add, type Complex, magnitude, ZERO } from '../../network/complex.ts';
import { all, field, type Known, known, mapKnown, unknownAt } from '../../values/known.ts';
import { remember } from '../../values/remember.ts';
import { formatNumber } from '../../words/quantity.ts';
import { gridChargingW, setChargeW } from '../capability/acCharge.ts';
import { capabilityWithout, linesMadeBy } from '../capability/capability.ts';
import { buildingBoard, generatorBoard, islandBoard, onGridBoard } from '../loads/boards.ts';
import { type Board, compileBoard } from '../loads/board.ts';
import { betweenLinesV, type CarriedStart, continuousOf, type Hardest, hardestOf } from './carried.ts';

/** A current with its power factor, and where it comes from. */
export interface Flow {
  readonly currentA: number;
  readonly powerFactor: number;
  readonly because: string;
  readonly start?: CarriedStart | undefined;
}

const amperes = (value: number): string => `${formatNumber(value)} A`;

/** The larger of some currents; what is not known of one leaves the larger not known. */
function largest(flows: readonly Known<Flow>[]): Known<Flow> {
  const unknown = flows.find((one) => !one.known);
  if (unknown !== undefined) return unknown;
  const found = flows.flatMap((one) => (one.known ? [one.value] : []));
  return known(found.reduce((a, b) => (b.currentA > a.currentA ? b : a)));
}

const flowOf = (hardest: Hardest, because: string): Flow => ({
  currentA: hardest.currentA,
  powerFactor: hardest.powerFactor,
  because: `${because}: ${amperes(hardest.currentA)}`,
});

function loadFlow(
  { lineVoltageV }: Installation,
  powers: Known<readonly Complex[]>,
  because: string,
  share = 1,
): Known<Flow> {
  return mapKnown(all({ powers, volts: lineVoltageV }), (given) => {
    const hardest = hardestOf(given.powers, given.volts);
    return flowOf({ ...hardest, currentA: hardest.currentA * share }, because);
  });
}

/** Starts shorter than this are inrush: gone before a voltage could be called lost. */
const SHORTEST_START_S = 0.1;

/** The start that draws most, of those that some places see at a voltage each. */
function startOf(starts: Board['starts']['knownPart'], volts: number): CarriedStart | undefined {
  let worst: CarriedStart | undefined;
  for (const { label, steps } of starts.flat())
    for (const { power, durationS } of steps) {
      const va = magnitude(power);
      if (durationS < SHORTEST_START_S || va / volts <= (worst?.currentA ?? 0)) continue;
      worst = { label, currentA: va / volts, powerFactor: Math.abs(power.re) / va };
    }
  return worst;
}

function ofCircuits(installation: Installation, circuits: readonly Circuit[], because: string): Known<Flow> {
  const given = all({ supply: installation.supply, volts: installation.lineVoltageV });
  if (!given.known) return given;
  const { supply, volts } = given.value;
  const board = compileBoard(circuits, supply, {
    electronicThirdHarmonic: installation.defaults.electronicThirdHarmonic.value,
  });
  const [first] = circuits;
  const isPair = circuits.length === 1 && first?.lines?.length === 2;
  return mapKnown(continuousOf(known(board)), (powers) => {
    const flow = flowOf(hardestOf(powers, volts), because);
    if (!isPair) return { ...flow, start: startOf(board.starts.knownPart, volts) };
    // Between two lines the angle that counts is that to the voltage between them, which the power of both together has.
    const whole = powers.reduce(add, ZERO);
    const va = magnitude(whole);
    return {
      ...flow,
      powerFactor: va === 0 ? 1 : Math.abs(whole.re) / va,
      start: startOf([board.totalStarts], betweenLinesV(supply, volts)),
    };
  });
}

/** Flows of circuits on a supply: each worked out once, since most edits leave most circuits alone. */
const circuitFlows = remember((_supply: Supply) => new WeakMap<Circuit, Known<Flow>>());

/** What hangs on one circuit. */
export function circuitFlow(installation: Installation, circuit: Circuit): Known<Flow> {
  if (circuit.items.length === 0) return unknownAt(['circuits', circuit.id, 'items']);
  const { supply } = installation;
  if (!supply.known) return supply;
  const flows = circuitFlows(supply.value);
  const flow = flows.get(circuit) ?? ofCircuits(installation, [circuit], 'expected peak of the circuit');
  flows.set(circuit, flow);
  return flow;
}

/** All circuits of a board. */
export const boardFlow = (installation: Installation, partition: Partition): Known<Flow> =>
  ofCircuits(
    installation,
    installation.circuits.filter(({ partitionId }) => partitionId === partition.id),
    `expected peak of ${partition.name}`,
  );

/** The whole building with charging from the grid. */
export const serviceFlow = (installation: Installation): Known<Flow> =>
  loadFlow(
    installation,
    continuousOf(buildingBoard(installation), (line) => gridChargingW(installation, line)),
    'whole building with charging',
  );

/** Loads that go through a set on grid, with what it charges there. */
const throughGrid = (compiled: CompiledStack): Known<readonly Complex[]> =>
  continuousOf(onGridBoard(compiled), (line) => setChargeW(compiled, line, 'gridChargeW'));

const onlyCharging = (installation: Installation, compiled: CompiledStack): Known<readonly Complex[]> =>
  continuousOf(
    mapKnown(compiled.supply, (supply) =>
      compileBoard([], supply, {
        electronicThirdHarmonic: installation.defaults.electronicThirdHarmonic.value,
      }),
    ),
    (line) => setChargeW(compiled, line, 'gridChargeW'),
  );

/** Rated current of one unit on each line it makes: S / (m · V). */
function ratedA({ stack, supply }: CompiledStack, type: InverterType, volts: number): number {
  const lines = supply.known ? supply.value.lines.length : 1;
  return type.ratedVa / linesMadeBy(stack.arrangement ?? 'one-unit', type, lines) / volts;
}

/** The type of a unit: its own where it differs from the set. */
export function typeOfUnit(
  installation: Installation,
  compiled: CompiledStack,
  unit: Unit,
): Known<InverterType> {
  if (unit.inverterTypeId === undefined || unit.inverterTypeId === compiled.stack.inverterTypeId)
    return compiled.type;
  const own = installation.types.find(({ id }) => id === unit.inverterTypeId);
  return own?.kind === 'inverter'
    ? known(own)
    : unknownAt(['stacks', compiled.stack.id, 'units', unit.id, 'inverterTypeId']);
}

/** Whether the loads of a set go around it on grid, through a transfer device of its own. */
const isBypassed = ({ transferDevice }: CompiledStack): boolean =>
  transferDevice.known && transferDevice.value !== 'none';

/** A unit's part of what its lines carry: (1 + ε) / n of each. */
function partOfUnit(
  installation: Installation,
  compiled: CompiledStack,
  unit: Unit,
  powers: Known<readonly Complex[]>,
): Known<readonly Complex[]> {
  const { stack, supply } = compiled;
  const lines = mapKnown(supply, (given) => unitLines(stack, stack.arrangement ?? 'one-unit', given));
  const own = lines.known ? lines.value : lines;
  const given = all({ powers, own, capability: capabilityWithout(compiled) });
  return mapKnown(given, ({ powers: sums, own: places, capability }) => {
    const on = places.get(unit.id) ?? [];
    return on.map((line): Complex => {
      const n = capability.unitsOnLine[line] ?? 1;
      const sharing = n > 1 ? installation.defaults.currentSharingTolerance.value : 0;
      const share = (1 + sharing) / Math.max(1, n);
      const sum = sums[line] ?? { re: 0, im: 0 };
      return { re: sum.re * share, im: sum.im * share };
    });
  });
}

function ratedFlow(installation: Installation, compiled: CompiledStack, unit: Unit): Known<Flow> {
  const given = all({ type: typeOfUnit(installation, compiled, unit), volts: installation.lineVoltageV });
  return mapKnown(given, ({ type, volts }) => {
    const currentA = ratedA(compiled, type, volts);
    return { currentA, powerFactor: 1, because: `rated current of the unit: ${amperes(currentA)}` };
  });
}

/** A backup output: what the unit can give, or its part of what goes through it on grid. */
export const outputFlow = (installation: Installation, compiled: CompiledStack, unit: Unit): Known<Flow> =>
  largest([
    ratedFlow(installation, compiled, unit),
    ...(isBypassed(compiled)
      ? []
      : [
          loadFlow(
            installation,
            partOfUnit(installation, compiled, unit, continuousOf(onGridBoard(compiled))),
            'its part of what goes through on grid',
          ),
        ]),
  ]);

/** A grid port: what the unit can give back, or its part of loads and charging. */
export const gridPortFlow = (installation: Installation, compiled: CompiledStack, unit: Unit): Known<Flow> =>
  largest([
    ratedFlow(installation, compiled, unit),
    loadFlow(
      installation,
      partOfUnit(
        installation,
        compiled,
        unit,
        isBypassed(compiled) ? onlyCharging(installation, compiled) : throughGrid(compiled),
      ),
      'its part of loads and charging on grid',
    ),
  ]);

/** All that goes between a set and the service board. */
export function setGridFlow(installation: Installation, compiled: CompiledStack): Known<Flow> {
  const given = all({
    type: compiled.type,
    capability: capabilityWithout(compiled),
    volts: installation.lineVoltageV,
  });
  const ratedOfSet = mapKnown(given, ({ type, capability, volts }): Flow => {
    const currentA = Math.max(...capability.unitsOnLine) * ratedA(compiled, type, volts);
    return {
      currentA,
      powerFactor: 1,
      because: `rated current of the units on a line: ${amperes(currentA)}`,
    };
  });
  return largest([
    ratedOfSet,
    loadFlow(
      installation,
      isBypassed(compiled) ? onlyCharging(installation, compiled) : throughGrid(compiled),
      'loads and charging of the set on grid',
    ),
  ]);
}

/** All that a set feeds, whatever feeds it. */
export const setLoadFlow = (installation: Installation, compiled: CompiledStack): Known<Flow> =>
  largest(
    [onGridBoard, islandBoard, generatorBoard].map((board) =>
      loadFlow(installation, continuousOf(board(compiled)), 'everything behind the set'),
    ),
  );

/** What a generator may give on each of its lines: S / (m · V), as on its plate. */
export const generatorFlow = ({ lineVoltageV }: Installation, { type }: CompiledGenerator): Known<Flow> =>
  mapKnown(all({ type, volts: lineVoltageV }), ({ type: set, volts }) => {
    const currentA = set.ratedVa / set.lines / volts;
    return { currentA, powerFactor: 1, because: `rated current of the generator: ${amperes(currentA)}` };
  });

/** A generator port takes no more than its limit, nor than the generator gives. */
export function generatorPortFlow(
  installation: Installation,
  compiled: CompiledStack,
  generator: CompiledGenerator,
): Known<Flow> {
  return mapKnown(generatorFlow(installation, generator), (flow) => {
    const portA = compiled.type.known ? compiled.type.value.generatorPortA : undefined;
    return typeof portA === 'number' && portA < flow.currentA
      ? { currentA: portA, powerFactor: 1, because: `limit of the generator port: ${amperes(portA)}` }
      : flow;
  });
}

/** An AC-coupled array: P / (m · V). */
export function arrayFlow({ lineVoltageV, supply, arrays }: Installation, arrayId: string): Known<Flow> {
  const found = arrays.find(({ array }) => array.id === arrayId)?.array;
  const given = all({
    watts: field(found?.ratedAcW, 'arrays', arrayId, 'ratedAcW'),
    volts: lineVoltageV,
    supply,
  });
  return mapKnown(given, ({ watts, volts, supply: lines }) => {
    const currentA = watts / lines.lines.length / volts;
    return { currentA, powerFactor: 1, because: `rated AC power of the array: ${amperes(currentA)}` };
  });
}

const FED_WORDS: Readonly<Record<FedAlone['what'], string>> = {
  meter: 'what the meter takes',
  controls: 'what the controls of the transfer device take',
};

/** What a meter, or the controls of a transfer device, takes through a cable of its own, all of it on one line: I = S / V. */
export const fedFlow = (
  { lineVoltageV }: Installation,
  { what, takesVa, volts: own }: FedAlone,
): Known<Flow & { readonly volts: number }> =>
  mapKnown(all({ takesVa, volts: own ?? lineVoltageV }), ({ takesVa: va, volts }) => ({
    volts,
    currentA: va / volts,
    powerFactor: 1,
    because: `${FED_WORDS[what]}: ${formatNumber(va)} VA / ${formatNumber(volts)} V = ${amperes(va / volts)}`,
  }));

/** An autotransformer carries the neutral current that it is rated for, half of it on each line. */
export const autotransformerFlow = ({ autotransformer, stack }: CompiledStack): Known<Flow> =>
  autotransformer.known && autotransformer.value !== 'none'
    ? known({
        currentA: autotransformer.value.neutralA,
        powerFactor: 1,
        because: `rated neutral current of the autotransformer: ${amperes(autotransformer.value.neutralA)}`,
      })
    : unknownAt(['stacks', stack.id, 'autotransformerTypeId']);
