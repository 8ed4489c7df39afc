import { analyse } from '../checks/analyse.ts';
import type { EquipmentType } from '../catalogue/schema.ts';
import type { Design } from '../design/schema.ts';
import { bankCircuitOf, bankOfSet } from '../figures/bank/ofSet.ts';
import { capabilityWithout } from '../figures/capability/capability.ts';
import { transferTime } from '../figures/capability/transferTime.ts';
import { generatorRating } from '../figures/generator/rating.ts';
import { floorSoc } from '../figures/bank/nearEmpty.ts';
import { engineOf } from '../rehearse/engine.ts';
import type { CompiledStack, Installation } from '../installation/installation.ts';
import { isOwnBank } from '../installation/ownBank.ts';
import type { Supply } from '../installation/supply.ts';
import { statedOf } from '../installation/stated.ts';
import { unitLines } from '../installation/unitLines.ts';
import { modesOf } from '../modes/modes.ts';
import { walkOf } from '../modes/walk.ts';
import { all, field, type Known, known, mapKnown } from '../values/known.ts';
import type { Path } from '../values/problem.ts';
import { describePlace } from '../words/places.ts';
import { assumedOfSet } from './siteAssumed.ts';
import { siteCircuits } from './siteLoads.ts';
import { siteBoards, siteInstruments, siteModules, siteUnits, sunAcOn } from './siteParts.ts';
import type { SiteSet, SiteGenerator, SitePlan } from './siteTypes.ts';

function setOf(
  installation: Installation,
  compiled: CompiledStack,
  supply: Supply,
  counts: { units: number; modules: number },
): Known<SiteSet> {
  const { stack } = compiled;
  const stated = typeof stack.bank === 'object' ? stack.bank : undefined;
  const given = all({
    type: compiled.type,
    capability: capabilityWithout(compiled),
    bank: bankOfSet(compiled),
    circuit: bankCircuitOf(compiled),
    transfer: transferTime(compiled),
    lines: unitLines(stack, stack.arrangement ?? 'one-unit', supply),
    // Where discharge ends decides when boards go dark: nothing stands in for it.
    cutoffSoc:
      stated === undefined ? known(0) : field(stated.cutoffSoc, 'stacks', stack.id, 'bank', 'cutoffSoc'),
  });
  return mapKnown(given, ({ type, capability, bank, circuit, transfer, lines, cutoffSoc }): SiteSet => {
    const { units, hasAcLeads } = siteUnits(installation, compiled, lines, counts.units);
    const onBoards = installation.arrays.filter(
      ({ array }) =>
        array.coupling === 'ac' && compiled.partitions.some(({ id }) => id === array.partitionId),
    );
    return {
      compiled,
      stackId: stack.id,
      name: stack.name,
      type,
      capability,
      units,
      hasAcLeads,
      modules: siteModules(compiled, counts.modules),
      bank,
      circuit: typeof circuit === 'string' ? undefined : circuit,
      lineShares: lineShares(
        supply,
        units.map((unit) => unit.lines),
      ),
      isOwnBank: isOwnBank(stack),
      isClosedLoop: stated?.comms?.loop === 'closed',
      transferMs: transfer.ms,
      reconnectS: type.reconnectDelayS ?? DEFAULT_RECONNECT_S,
      floorSoc: bank === 'none' ? 0 : floorSoc(cutoffSoc, bank.type),
      leastSoc: bank === 'none' ? 0 : floorSoc(0, bank.type),
      chargeA: stack.chargeCurrentA ?? type.maxChargeA,
      gridChargeW: stack.gridChargeW ?? 0,
      generatorChargeW: stack.generatorChargeW,
      arrays: installation.arrays.flatMap(({ array }) => {
        const unitIds = (array.places ?? []).flatMap((place) =>
          place.stackId === stack.id ? [place.unitId] : [],
        );
        return array.coupling === 'ac' || unitIds.length === 0 ? [] : [{ id: array.id, unitIds }];
      }),
      sunAcW: sunAcOn(onBoards),
      sunStaysWithGenerator: onBoards.some(({ array }) => array.withGenerator === 'stays'),
    };
  });
}

/** Units draw alike, each from its own lines in equal parts. */
function lineShares(supply: Supply, unitsOn: readonly (readonly number[])[]): number[] {
  const count = Math.max(1, unitsOn.length);
  return supply.lines.map((_, line) =>
    unitsOn.reduce((sum, on) => sum + (on.includes(line) ? 1 / on.length / count : 0), 0),
  );
}

/** How long the simulated units watch a grid that comes, where their type does not say, s. */
const DEFAULT_RECONNECT_S = 60;

function generatorsOf(installation: Installation, leftOut: string[]): SiteGenerator[] {
  return installation.generators.flatMap((compiled): SiteGenerator[] => {
    const { generator } = compiled;
    const given = all({ type: compiled.type, rating: generatorRating(compiled) });
    if (!given.known || generator.connection === undefined) {
      leftOut.push(`${generator.name} is left out: its type, rating or connection is not known.`);
      return [];
    }
    const { type, rating } = given.value;
    const { mostW, idleLPerH, lPerKwh, fuelL, leftOut: unknown } = engineOf(compiled, type, rating);
    leftOut.push(...unknown);
    if (type.droop === undefined)
      leftOut.push(`The droop of ${generator.name} is not stated: its frequency stands still.`);
    const set = installation.stacks.find(({ stack }) => stack.id === generator.stackId);
    if (generator.connection === 'generator-port' && set?.stack.generatorChargeW === undefined)
      leftOut.push(`What is charged with from ${generator.name} is not known: nothing is played.`);
    return [
      {
        generatorId: generator.id,
        name: generator.name,
        connection: generator.connection,
        start: type.start,
        stackId: generator.stackId,
        warmUpS: type.warmUpS,
        mostW,
        droop: type.droop,
        idleLPerH,
        lPerKwh,
        fuelL,
      },
    ];
  });
}

/** What a site cannot be played without, as a sentence. */
export interface SiteRefusal {
  readonly ok: false;
  readonly sentence: string;
}

/** A design as a site that can run in time; or what is missing for that, in a sentence. */
export function sitePlan(
  design: Design,
  catalogue: readonly EquipmentType[],
): { readonly ok: true; readonly plan: SitePlan } | SiteRefusal {
  const { installation } = analyse(design, catalogue);
  const base = all({
    supply: installation.supply,
    lineVoltageV: installation.lineVoltageV,
    frequencyHz: field(installation.site.frequencyHz, 'site', 'frequencyHz'),
    network: installation.network,
    walk: walkOf(installation),
    sets:
      installation.stacks.length === 0
        ? ({ known: false, missing: [['stacks']] } as const)
        : known(installation.stacks),
  });
  if (!base.known) return refusal(installation, base.missing);
  const { supply, network, walk, lineVoltageV, frequencyHz } = base.value;
  const missing: Path[] = [];
  const sets: SiteSet[] = [];
  const counts = { units: 1, modules: 1 };
  for (const compiled of installation.stacks) {
    const set = setOf(installation, compiled, supply, counts);
    if (!set.known) return refusal(installation, set.missing);
    sets.push(set.value);
    counts.units += set.value.units.length;
    counts.modules += set.value.modules.length;
  }
  const circuits = siteCircuits(installation.circuits, supply, missing);
  const leftOut: string[] = [];
  const generators = generatorsOf(installation, leftOut);
  if (missing.length > 0)
    leftOut.push(`What is not stated of some loads is left out: ${places(installation, missing)}.`);
  for (const set of sets) leftOut.push(...assumedOfSet(set, installation));
  const instruments = siteInstruments(installation, supply);
  for (const { label, at } of instruments)
    if (at === undefined) leftOut.push(`Where ${label} looks is not known: it reads nothing.`);
  return {
    ok: true,
    plan: {
      design,
      installation,
      network,
      supply,
      lineVoltageV,
      frequencyHz,
      hasGrid: installation.site.grid !== 'none',
      sets,
      boards: siteBoards(installation, network),
      circuits,
      generators,
      instruments,
      modes: new Map(
        modesOf(installation).flatMap(({ id, kind }) => {
          const facts = walk.get(id);
          return kind === 'unit-lost' || facts === undefined ? [] : [[kind, facts] as const];
        }),
      ),
      leftOut,
    },
  };
}

const MOST_PLACES = 5;

function places(installation: Installation, missing: readonly Path[]): string {
  const words = missing.slice(0, MOST_PLACES).map((path) => describePlace(statedOf(installation), path));
  return missing.length > MOST_PLACES
    ? `${words.join('; ')} and ${missing.length - MOST_PLACES} more`
    : words.join('; ');
}

const refusal = (installation: Installation, missing: readonly Path[]): SiteRefusal => ({
  ok: false,
  sentence: `This site cannot be simulated yet. Not known: ${places(installation, missing)}.`,
});
