import { hypot } from '../../values/elementary.ts';
import type { Installation } from '../../installation/installation.ts';
import type { Part } from '../../installation/network.ts';
import { energisers } from '../../modes/energisers.ts';
import { field, type Known, known, mapKnown, unknownAt } from '../../values/known.ts';
import { groupBy } from '../../values/groupBy.ts';
import type { Path } from '../../values/problem.ts';
import { remember } from '../../values/remember.ts';
import { bankFault } from '../bank/bankFault.ts';
import { bankOfSet } from '../bank/ofSet.ts';
import { capabilityWithout } from '../capability/capability.ts';
import type { CableLine, LineDevice } from '../wiring/cableLine.ts';
import { allStrings } from '../pv/strings.ts';
import { gridWays, type Way } from './gridWay.ts';
import { generatorFault, stackFault } from './sourceFaults.ts';

/** What feeds a fault at a device. */
export type PlaceSource = 'grid' | 'island' | 'generator' | 'bank' | 'strings';

/** The most that one source drives into a bolted fault at a device. */
export interface PlaceFault {
  readonly source: PlaceSource;
  readonly currentA: Known<number>;
  /** Cables on the way whose length or size nobody has stated count as nothing: with them it can only be less. */
  readonly uncounted: readonly Path[];
}

/**
 * I = V / √((V / I_p)² + R²) with R of one conductor where two or three lines are bolted together, out and back where there is one:
 * a source that is all reactance ahead of a cable that is all resistance gives the most.
 */
function gridFault(installation: Installation, way: Way): Known<number> {
  const { site, supply, lineVoltageV } = installation;
  if (!supply.known) return supply;
  if (!lineVoltageV.known) return lineVoltageV;
  const volts = lineVoltageV.value;
  const ohm = supply.value.lines.length === 1 ? 2 * way.ohm : way.ohm;
  return mapKnown(
    field(site.prospectiveFaultA, 'site', 'prospectiveFaultA'),
    (prospectiveA) => volts / hypot(volts / prospectiveA, ohm),
  );
}

const sumOf = (found: readonly Known<number>[]): Known<number> => {
  const missing = found.flatMap((one) => (one.known ? [] : one.missing));
  return missing.length > 0
    ? unknownAt(...missing)
    : known(found.reduce((sum, one) => sum + (one.known ? one.value : 0), 0));
};

/** What all inverters of the sets that can feed a place give together: cables on the way are not counted. */
function islandFault(installation: Installation, feeding: ReadonlySet<string>): Known<number> | undefined {
  const { lineVoltageV, network } = installation;
  if (!network.known) return undefined;
  const sets = new Set(
    network.value.parts.flatMap(({ id, kind, stackId }) =>
      kind === 'inverter' && stackId !== undefined && feeding.has(id) ? [stackId] : [],
    ),
  );
  const stacks = installation.stacks.filter(({ stack }) => sets.has(stack.id));
  if (stacks.length === 0) return undefined;
  if (!lineVoltageV.known) return lineVoltageV;
  const volts = lineVoltageV.value;
  return sumOf(
    stacks.map((compiled) => {
      const lines = compiled.supply.known ? compiled.supply.value.lines.map((_, index) => index) : [0];
      const faults = lines.map((line) => stackFault(compiled, line, volts));
      const open = faults.find((one) => !one.known);
      const capability = capabilityWithout(compiled);
      // What the planning takes off for unequal sharing is there in a fault.
      const whole = 1 + (capability.known ? capability.value.sharing : 0);
      return open ?? known(Math.max(...faults.map((one) => (one.known ? one.value.currentA * whole : 0))));
    }),
  );
}

function generatorsFault(
  installation: Installation,
  feeding: ReadonlySet<string>,
): Known<number> | undefined {
  const { lineVoltageV, network } = installation;
  if (!network.known) return undefined;
  const ids = new Set(
    network.value.parts.flatMap(({ id, kind, generatorId }) =>
      kind === 'generator' && generatorId !== undefined && feeding.has(id) ? [generatorId] : [],
    ),
  );
  const sets = installation.generators.filter(({ generator }) => ids.has(generator.id));
  if (sets.length === 0) return undefined;
  if (!lineVoltageV.known) return lineVoltageV;
  const volts = lineVoltageV.value;
  return sumOf(sets.map((set) => mapKnown(generatorFault(set, volts), ({ currentA }) => currentA)));
}

const byPort = remember((_installation: Installation) => new Map<string, readonly PlaceFault[]>());

/** The sources of alternating current at a port, each with the most it gives there: once for each port. */
function faultsAtPort(installation: Installation, portId: string): readonly PlaceFault[] {
  const made = byPort(installation);
  const before = made.get(portId);
  if (before !== undefined) return before;
  const found = faultsAt(installation, portId);
  made.set(portId, found);
  return found;
}

function faultsAt(installation: Installation, portId: string): PlaceFault[] {
  const live = energisers(installation);
  if (!live.known || !installation.network.known) return [];
  const feeding = new Set(live.value.get(portId) ?? []);
  const way = gridWays(installation).get(portId);
  const island = islandFault(installation, feeding);
  const generator = generatorsFault(installation, feeding);
  return [
    ...(way === undefined
      ? []
      : [
          {
            source: 'grid' as const,
            currentA: gridFault(installation, way),
            uncounted: way.missing,
          },
        ]),
    ...(island === undefined ? [] : [{ source: 'island' as const, currentA: island, uncounted: [] }]),
    ...(generator === undefined
      ? []
      : [{ source: 'generator' as const, currentA: generator, uncounted: [] }]),
  ];
}

/**
 * What the bank drives through one of its devices: the whole bank through the device of an inverter; through that of a module or a
 * group what is on the stronger side of it, I = U_max / R · max(k, n − k) / n for k of n modules behind it.
 */
function bankPlace(
  installation: Installation,
  stackId: string | undefined,
  role: Part['role'],
): PlaceFault[] {
  const compiled = installation.stacks.find(({ stack }) => stack.id === stackId);
  const bank = compiled && bankOfSet(compiled);
  if (compiled === undefined || bank === undefined) return [];
  if (!bank.known) return [{ source: 'bank', currentA: bank, uncounted: [] }];
  if (bank.value === 'none') return [];
  const { parallelCount } = bank.value;
  const size = typeof compiled.stack.bank === 'object' ? (compiled.stack.bank.groupSize ?? 1) : 1;
  const own = role === 'battery-group' ? size : role === 'battery-module' ? 1 : parallelCount;
  const share = Math.max(own, parallelCount - own) / parallelCount;
  return [
    {
      source: 'bank',
      currentA: mapKnown(bankFault(compiled, bank.value), ({ amperes }) => amperes * share),
      uncounted: [],
    },
  ];
}

/** What the strings behind a DC switch drive into a short: I = n · I_sc · 1.25. */
function stringsPlace(installation: Installation, part: Part): PlaceFault[] {
  const strings = allStrings(installation).filter(
    ({ array, place }) =>
      array.id === part.arrayId && place.stackId === part.stackId && place.unitId === part.unitId,
  );
  if (strings.length === 0) return [];
  return [
    {
      source: 'strings',
      currentA: sumOf(
        strings.map(({ moduleType, place }) =>
          mapKnown(moduleType, ({ iscA }) => 1.25 * iscA * place.strings),
        ),
      ),
      uncounted: [],
    },
  ];
}

/** The sources of a bolted fault right behind a device of a cable, each with the most it drives through the device. */
export function faultsAtDevice(
  installation: Installation,
  line: CableLine,
  device: LineDevice,
): PlaceFault[] {
  const { network } = installation;
  if (!network.known) return [];
  const { partId } = device;
  const part = partId === undefined ? undefined : network.value.parts.find(({ id }) => id === partId);
  if (line.use === 'battery')
    return bankPlace(installation, part?.stackId ?? line.branch?.stackId, device.role);
  if (line.use === 'pv') return part === undefined ? [] : stringsPlace(installation, part);
  // What an output for controls drives into a fault is limited inside the inverter.
  if (line.use === 'earth' || line.use === 'control') return [];
  // Of a cable with several devices each counts as if it stood at the end that more can flow into.
  const both = line.ends.flatMap(({ port }) =>
    port === undefined ? [] : faultsAtPort(installation, port.id),
  );
  return [...groupBy(both, ({ source }) => source).values()].map(worst);
}

const worst = (found: readonly PlaceFault[]): PlaceFault =>
  found.reduce((most, one) => {
    if (!most.currentA.known || !one.currentA.known) return most.currentA.known ? one : most;
    return one.currentA.value > most.currentA.value ? one : most;
  });
