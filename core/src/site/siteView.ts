import { FAULT_KINDS, possibleFaults } from './siteFaults.ts';
import type { Exercise } from './apprentice.ts';
import { INSTRUMENT_KINDS, INSTRUMENTS, type InstrumentKind, measuringPlaces } from './instruments.ts';
import { meanSoc } from './siteBank.ts';
import { messagesOf, SITE_MESSAGES } from './siteMessages.ts';
import type { SitePlan } from './siteTypes.ts';
import type { SiteState } from './siteState.ts';
import { modeOf } from './siteStep.ts';

/** What a panel shows of a site as it stands: true figures, not those of an instrument. */
export function siteView(plan: SitePlan, state: SiteState, exercise: Exercise | undefined) {
  // Who looks for a fault is not shown it: neither the list, nor what the set says of itself, but on its display.
  const isBlind = exercise !== undefined && exercise.result === undefined;
  return {
    timeS: state.timeS,
    mode: modeOf(plan, state),
    hasGrid: plan.hasGrid,
    isGridPresent: state.isGridPresent,
    isGridClosed: state.isGridClosed,
    position: state.position,
    sun: state.sun,
    lines: state.lines.map(({ voltageV, loadA, loadW, gridW }, index) => ({
      line: plan.supply.lines[index] ?? 'L1',
      voltageV,
      loadA,
      loadW,
      gridW,
      testLoadW: state.testLoadW[index] ?? 0,
    })),
    boards: plan.boards.map(({ name, partId }) => ({ name, isLive: state.live.has(partId) })),
    sets: plan.sets.map((_, at) => setView(plan, state, at, isBlind)),
    circuits: plan.circuits.map(({ circuitId, name }, index) => ({
      circuitId,
      name,
      isOn: state.circuits[index]?.isOn ?? false,
      watts: state.circuits[index]?.watts ?? 0,
    })),
    generators: plan.generators.map(({ generatorId, name, connection }, index) => ({
      generatorId,
      name,
      connection,
      phase: state.generators[index]?.phase ?? 'off',
      isCalled: state.generators[index]?.isCalled ?? false,
      watts: state.generators[index]?.watts ?? 0,
      litres: state.generators[index]?.litres ?? 0,
    })),
    faults: isBlind ? [] : [...state.faults],
    events: isBlind ? [] : state.events.slice(-40),
    exercise:
      exercise === undefined
        ? undefined
        : {
            lines: exercise.result === undefined ? exercise.lines.map(unjudged) : [...exercise.lines],
            isTesterProven: exercise.isTesterProven,
            provenDead: exercise.provenDead.length,
            ...(exercise.result === undefined
              ? {}
              : { result: { ...exercise.result, why: [...exercise.result.why] } }),
          },
  };
}

/** While the exercise runs, whether a measurement was needed would give the fault away. */
const unjudged = (line: Exercise['lines'][number]): Exercise['lines'][number] => ({
  ...line,
  worth: line.worth === 'dangerous' || line.worth === 'wrong' ? line.worth : 'noted',
});

function setView(plan: SitePlan, state: SiteState, at: number, isBlind: boolean) {
  const set = plan.sets[at];
  const now = state.sets[at];
  if (set === undefined || now === undefined) throw new Error('A state belongs to its plan.');
  return {
    stackId: set.stackId,
    name: set.name,
    phase: now.phase,
    reason: isBlind ? '' : now.reason,
    isBatteryClosed: now.isBatteryClosed,
    hasBattery: set.bank !== 'none',
    soc: meanSoc(now),
    batteryV: now.batteryV,
    batteryA: now.batteryA,
    loadW: now.loadW,
    chargeW: now.chargeW,
    sunW: now.sunW,
    settings: now.settings,
    messages: (isBlind ? [] : messagesOf(plan, state, set, now)).map(
      (id) => SITE_MESSAGES.find((one) => one.id === id)?.words ?? id,
    ),
    units: set.units.map(({ unit, label, lines }, index) => ({
      unitId: unit.id,
      label,
      lines: lines.map((line) => plan.supply.lines[line] ?? 'L1'),
      isOn: now.units[index]?.isOn ?? false,
      watts: now.units[index]?.watts ?? 0,
      currentA: now.units[index]?.currentA ?? 0,
      firmware: now.units[index]?.firmware ?? '',
      address: now.units[index]?.address ?? 0,
    })),
    modules: set.modules.map(({ module, label }, index) => ({
      moduleId: module.id,
      label,
      soc: now.modules[index]?.soc ?? 0,
      currentA: now.modules[index]?.currentA ?? 0,
      voltageV: now.modules[index]?.voltageV ?? 0,
      isJoined: now.modules[index]?.isJoined ?? false,
    })),
  };
}

/** What stays while a site runs: the faults it can have, where it can be measured, and what was left out. */
export function siteMenu(plan: SitePlan) {
  return {
    faults: possibleFaults(plan).map((fault) => ({
      ...fault,
      words: FAULT_KINDS[fault.kind].words,
      difficulty: FAULT_KINDS[fault.kind].difficulty,
    })),
    places: measuringPlaces(plan).map((place) => ({ ...place, takes: [...place.takes] })),
    instruments: INSTRUMENT_KINDS.map((kind: InstrumentKind) => ({
      kind,
      words: INSTRUMENTS[kind].words,
      unit: INSTRUMENTS[kind].unit,
      ranges: [...INSTRUMENTS[kind].ranges],
    })),
    leftOut: [...plan.leftOut],
  };
}
