import { log10 } from '../values/elementary.ts';
import { IDLE_V, isBusPair } from '../figures/comms/linkFigures.ts';
import { heardIn, pulledLinks } from './siteBus.ts';
import { LONGER_M, placeKey, WEAK_OHM } from './siteFaults.ts';
import { messagesOf, SITE_MESSAGES } from './siteMessages.ts';
import type { SiteModule, SitePlan, SiteSet, SiteUnit } from './siteTypes.ts';
import { newestOf, type SiteState } from './siteState.ts';
import { gridVoltage, modeOf } from './siteStep.ts';
import { gainOf, siteValues } from './siteValues.ts';

/** Instruments that a person chooses from, each with its ranges; the resolution is a two-thousandth of the range. */
export const INSTRUMENTS = {
  tester: { words: 'Two-pole voltage tester', unit: 'V', ranges: [1000] },
  'dc-voltmeter': { words: 'DC voltmeter', unit: 'V', ranges: [0.2, 2, 20, 200, 1000] },
  'ac-voltmeter': { words: 'True-RMS voltmeter', unit: 'V', ranges: [2, 20, 200, 750] },
  'ac-clamp': { words: 'AC clamp meter', unit: 'A', ranges: [4, 40, 400] },
  'dc-clamp': { words: 'DC clamp meter', unit: 'A', ranges: [4, 40, 400] },
  ohmmeter: { words: 'Ohmmeter', unit: 'Ω', ranges: [2, 200, 20000] },
  tape: { words: 'Tape', unit: 'm', ranges: [20] },
  display: { words: 'Display', unit: '', ranges: [1] },
} as const;
export type InstrumentKind = keyof typeof INSTRUMENTS;
export const INSTRUMENT_KINDS = Object.keys(INSTRUMENTS) as readonly InstrumentKind[];

/** What an instrument can be held to. */
export interface MeasuringPlace {
  readonly id: string;
  readonly words: string;
  readonly takes: readonly InstrumentKind[];
  /** Live terminals can be touched here. */
  readonly isBare: boolean;
}

export interface Shown {
  /** What stands on the instrument, with as many digits as its range has. */
  readonly text: string;
  readonly value: number | undefined;
  /** What was dangerous about it. */
  readonly danger: string | undefined;
}

const DC: readonly InstrumentKind[] = ['dc-voltmeter', 'tester', 'ohmmeter'];
const AC: readonly InstrumentKind[] = ['ac-voltmeter', 'tester', 'ohmmeter'];

/** Everywhere that can be measured at this site. */
export function measuringPlaces(plan: SitePlan): readonly MeasuringPlace[] {
  const named = new Map(plan.network.parts.map(({ id, label }) => [id, label]));
  const sets = plan.sets.flatMap(({ stackId, units, modules }): MeasuringPlace[] => [
    ...modules.flatMap(({ module, label }): MeasuringPlace[] => {
      const at = placeKey(stackId, module.id);
      return [
        { id: `module:${at}`, words: `${label}, + to − at its terminals`, takes: DC, isBare: true },
        { id: `lead:${at}`, words: `${label}, its lead`, takes: ['dc-clamp', 'tape'], isBare: false },
        { id: `joint:${at}`, words: `${label}, from lug to terminal`, takes: ['dc-voltmeter'], isBare: true },
      ];
    }),
    ...units.flatMap(({ unit, label }): MeasuringPlace[] => {
      const at = placeKey(stackId, unit.id);
      return [
        { id: `port:${at}`, words: `${label}, battery port + to −`, takes: DC, isBare: true },
        { id: `output:${at}`, words: `${label}, its output cable`, takes: ['ac-clamp'], isBare: false },
        { id: `display:${at}`, words: `${label}, its display`, takes: ['display'], isBare: false },
      ];
    }),
  ]);
  const lines = plan.supply.lines.flatMap((line): MeasuringPlace[] => [
    { id: `grid:${line}`, words: `Grid isolator, ${line} to neutral`, takes: AC, isBare: true },
    { id: `board:${line}`, words: `Backed-up board, ${line} to neutral`, takes: AC, isBare: true },
    { id: `feed:${line}`, words: `Feed of the backed-up board, ${line}`, takes: ['ac-clamp'], isBare: false },
  ]);
  return [
    ...lines,
    { id: 'neutral:earth', words: 'Backed-up board, neutral to earth', takes: AC, isBare: true },
    ...sets,
    ...plan.installation.arrays
      .filter(({ array }) => array.coupling === 'dc')
      .map(({ array }): MeasuringPlace => ({
        id: `string:${array.id}`,
        words: `Strings of ${array.name}, + to − at the switch`,
        takes: DC,
        isBare: true,
      })),
    ...plan.network.links.filter(isBusPair).map((link): MeasuringPlace => ({
      id: `link:${link.id}`,
      words: `Pair at ${named.get(link.b.partId) ?? link.b.partId}, from ${named.get(link.a.partId) ?? link.a.partId}`,
      takes: ['dc-voltmeter'],
      isBare: false,
    })),
    ...plan.instruments.map(({ id, label }): MeasuringPlace => ({
      id: `meter:${id}`,
      words: `${label}, its display`,
      takes: ['display'],
      isBare: false,
    })),
  ];
}

function findUnit(
  plan: SitePlan,
  at: string,
): { set: SiteSet; unit: SiteUnit; now: [number, number] } | undefined {
  for (const [index, set] of plan.sets.entries())
    for (const [position, unit] of set.units.entries())
      if (placeKey(set.stackId, unit.unit.id) === at) return { set, unit, now: [index, position] };
  return undefined;
}

function findModule(
  plan: SitePlan,
  at: string,
): { set: SiteSet; module: SiteModule; now: [number, number] } | undefined {
  for (const [index, set] of plan.sets.entries())
    for (const [position, module] of set.modules.entries())
      if (placeKey(set.stackId, module.module.id) === at) return { set, module, now: [index, position] };
  return undefined;
}

/** What a module shows at its terminals, V: its cells cannot be switched off. */
function moduleV(plan: SitePlan, state: SiteState, at: string): number | undefined {
  const found = findModule(plan, at);
  if (found === undefined) return undefined;
  const volts = state.sets[found.now[0]]?.modules[found.now[1]]?.voltageV ?? 0;
  const isReversed = state.faults.some((fault) => fault.kind === 'polarity-swapped' && fault.at === at);
  return isReversed ? -volts : volts;
}

/** Volts from lug to terminal: the current of the module through its joint; a good one has next to nothing. */
const GOOD_JOINT_OHM = 0.0001;
function jointV(plan: SitePlan, state: SiteState, at: string): number | undefined {
  const found = findModule(plan, at);
  if (found === undefined) return undefined;
  const amps = Math.abs(state.sets[found.now[0]]?.modules[found.now[1]]?.currentA ?? 0);
  const isWeak = state.faults.some((fault) => fault.kind === 'terminal-weak' && fault.at === at);
  return amps * (isWeak ? WEAK_OHM : GOOD_JOINT_OHM);
}

function leadM(plan: SitePlan, state: SiteState, at: string): number | undefined {
  const found = findModule(plan, at);
  const bank = found?.set.compiled.stack.bank;
  if (found === undefined || typeof bank !== 'object') return undefined;
  const planned = found.module.module.lead?.lengthM ?? bank.lead?.lengthM ?? 0;
  return (
    planned +
    (state.faults.some((fault) => fault.kind === 'lead-lengthened' && fault.at === at) ? LONGER_M : 0)
  );
}

/** Strings stand under their voltage in daylight: a share of it already in little light. */
function stringV(plan: SitePlan, state: SiteState, arrayId: string): number | undefined {
  const found = plan.installation.arrays.find(({ array }) => array.id === arrayId);
  if (found?.moduleType.known !== true) return undefined;
  const volts = (found.array.modulesPerString ?? 0) * found.moduleType.value.vocV;
  const light = state.sun > 0 ? 0.9 + 0.1 * state.sun : 0;
  const isReversed = state.faults.some((fault) => fault.kind === 'polarity-swapped' && fault.at === arrayId);
  return volts * light * (isReversed ? -1 : 1);
}

const middle = ({ min, max }: { readonly min: number; readonly max: number }): number => (min + max) / 2;

/** A pair that something drives shows its idle voltage; behind a lead that is pulled there is nothing. */
function pairV(plan: SitePlan, state: SiteState, linkId: string): number | undefined {
  const link = plan.network.links.find(({ id }) => id === linkId);
  if (link === undefined) return undefined;
  if (pulledLinks(state.faults).has(linkId)) return 0;
  const set = plan.sets.find(({ units, stackId }) =>
    [link.a.partId, link.b.partId].some(
      (part) => units.some(({ sourceId }) => sourceId === part) || part.startsWith(`module ${stackId}/`),
    ),
  );
  if (set === undefined) return middle(IDLE_V);
  const heard = heardIn(plan, set, state.faults);
  const isReached = (part: string): boolean =>
    set.units.some(({ sourceId, unit }) => sourceId === part && heard.units.has(unit.id)) ||
    set.modules.some(
      ({ module }) => part === `module ${set.stackId}/${module.id}` && heard.modules.has(module.id),
    );
  return isReached(link.b.partId) ? middle(set.type.pairIdleV ?? IDLE_V) : 0;
}

/** With its neutral bonded there is next to nothing between neutral and earth; without, the filters of the equipment set it. */
function neutralV(plan: SitePlan, state: SiteState): number {
  const kind = modeOf(plan, state);
  if (!state.lines.some(({ voltageV }) => voltageV > 0)) return 0;
  const board = plan.boards.find(({ partition }) => partition.stackId !== undefined)?.partId ?? '';
  const bonds = plan.modes.get(kind)?.neutrals.find(({ boards }) => boards.includes(board))?.bonds ?? [];
  return bonds.length > 0 ? 0.4 : plan.lineVoltageV * 0.4;
}

/** The figure at a place, V, A or m; undefined where there is nothing of that kind. */
function figureAt(
  plan: SitePlan,
  state: SiteState,
  placeId: string,
  kind: InstrumentKind,
): number | undefined {
  const colon = placeId.indexOf(':');
  const [what, at] = [placeId.slice(0, colon), placeId.slice(colon + 1)];
  const line = plan.supply.lines.findIndex((one) => one === at);
  switch (what) {
    case 'module':
      return moduleV(plan, state, at);
    case 'lead': {
      if (kind === 'tape') return leadM(plan, state, at);
      const found = findModule(plan, at);
      return found === undefined ? undefined : state.sets[found.now[0]]?.modules[found.now[1]]?.currentA;
    }
    case 'joint':
      return jointV(plan, state, at);
    case 'port':
    case 'output': {
      const found = findUnit(plan, at);
      const unit = found === undefined ? undefined : state.sets[found.now[0]]?.units[found.now[1]];
      return what === 'port' ? unit?.batteryV : unit?.currentA;
    }
    case 'grid':
      return gridVoltage(plan, state);
    case 'board':
      return state.lines[line]?.voltageV;
    case 'feed':
      return state.lines[line]?.loadA;
    case 'neutral':
      return neutralV(plan, state);
    case 'string':
      return stringV(plan, state, at);
    case 'link':
      return pairV(plan, state, at);
    default:
      return undefined;
  }
}

/** What stands on the display of a unit or a meter. */
function displayAt(plan: SitePlan, state: SiteState, placeId: string): string | undefined {
  const colon = placeId.indexOf(':');
  const [what, at] = [placeId.slice(0, colon), placeId.slice(colon + 1)];
  if (what === 'meter') {
    const index = plan.instruments.findIndex(({ id }) => id === at);
    const watts = siteValues(plan, state)[`instrument.${index + 1}.powerW`];
    return watts === undefined || watts === null ? undefined : `${Math.round(watts)} W`;
  }
  const found = findUnit(plan, at);
  const set = found === undefined ? undefined : state.sets[found.now[0]];
  const unit = set?.units[found?.now[1] ?? -1];
  if (found === undefined || set === undefined || unit === undefined) return undefined;
  if (!isAwake(state, found.set, found.unit, unit.isOn)) return 'Dark.';
  const { settings } = set;
  const reported = messagesOf(plan, state, found.set, set).map(
    (id) => SITE_MESSAGES.find((one) => one.id === id)?.words ?? id,
  );
  return [
    `${set.phase}.`,
    `Address ${unit.address}.`,
    `Firmware ${unit.firmware}${unit.firmware === newestOf(found.set) ? '' : ', not the newest of the set'}.`,
    `Set for ${settings.count} units, backup ${settings.backup ? 'on' : 'off'}, charge ${Math.round(settings.chargeA)} A, clock ${settings.isClockSet ? 'set' : 'not set'}.`,
    reported.length === 0 ? 'No message.' : `Reports: ${reported.join('; ')}.`,
  ].join(' ');
}

const isAwake = (state: SiteState, set: SiteSet, { unit }: SiteUnit, isOn: boolean): boolean =>
  isOn &&
  !state.faults.some(({ kind, at }) => kind === 'unit-dropped' && at === placeKey(set.stackId, unit.id));

const LIVE_V = 50;
const DIGITS = 2000;

/** Holds an instrument in a range to a place. Too small a range shows that it is over; an ohmmeter on live terminals is dangerous. */
export function measure(
  plan: SitePlan,
  state: SiteState,
  place: MeasuringPlace,
  kind: InstrumentKind,
  range: number,
): Shown {
  if (!place.takes.includes(kind))
    return { text: 'Nothing can be read here with this.', value: undefined, danger: undefined };
  if (kind === 'display')
    return { text: displayAt(plan, state, place.id) ?? 'Dark.', value: undefined, danger: undefined };
  const figure = figureAt(plan, state, place.id, kind);
  if (figure === undefined) return { text: 'Nothing.', value: undefined, danger: undefined };
  if (kind === 'tester')
    return { text: Math.abs(figure) < LIVE_V ? 'No voltage' : 'Live', value: figure, danger: undefined };
  if (kind === 'ohmmeter') {
    const isLive = Math.abs(figure) >= LIVE_V;
    return {
      text: isLive ? 'The instrument is destroyed.' : 'Open',
      value: undefined,
      danger: isLive ? 'An ohmmeter was held to live terminals.' : undefined,
    };
  }
  const shown = figure * (kind === 'tape' ? 1 : gainOf(state.seed, `${kind} ${place.id}`));
  if (Math.abs(shown) > range) return { text: 'Over the range', value: undefined, danger: undefined };
  const resolution = range / DIGITS;
  const digits = Math.max(0, Math.ceil(-log10(resolution) - 1e-9));
  const value = Number(shown.toFixed(digits));
  return { text: `${value.toFixed(digits)} ${INSTRUMENTS[kind].unit}`, value, danger: undefined };
}
