import { shareBank } from '../figures/bank/bankShare.ts';
import { formatQuantity } from '../words/quantity.ts';
import { bankNow } from './siteBank.ts';
import { heardIn } from './siteBus.ts';
import { commandSite, plantFault } from './siteCommands.ts';
import {
  AGED_FACTOR,
  FAULT_KINDS,
  LONGER_M,
  placeKey,
  possibleFaults,
  type SiteFault,
  WEAK_OHM,
} from './siteFaults.ts';
import { messagesOf, SITE_MESSAGES } from './siteMessages.ts';
import type { SitePlan, SiteSet } from './siteTypes.ts';
import { newSite, putRight, type SiteState } from './siteState.ts';
import { runSite } from './siteStep.ts';

const SEED = 1;
const SETTLE_S = 90;

/** Brings a site up whole and takes its grid away: the plain island that everything is held against. */
function islandOf(plan: SitePlan, fault: SiteFault | undefined): SiteState {
  const state = newSite(plan, SEED);
  putRight(plan, state);
  if (fault !== undefined) plantFault(plan, state, fault);
  for (const { stackId } of plan.sets) commandSite(plan, state, { do: 'battery', stackId, closed: true });
  commandSite(plan, state, { do: 'units', on: true });
  commandSite(plan, state, { do: 'sun', share: 0.5 });
  runSite(plan, state, SETTLE_S);
  commandSite(plan, state, { do: 'isolator', closed: true });
  runSite(plan, state, SETTLE_S);
  commandSite(plan, state, { do: 'grid', present: false });
  runSite(plan, state, 5);
  return state;
}

/** Current of each module at half of what the set carries, with and without a fault in the bank. */
function sharingWords(plan: SitePlan, set: SiteSet, fault: SiteFault): string[] {
  const { circuit } = set;
  if (circuit === undefined) return [];
  const { modules: now } = newSite(plan, SEED).sets[plan.sets.indexOf(set)] ?? { modules: [] };
  const loadW = set.capability.totalW / 2;
  const powers = set.units.map(() => loadW / set.units.length / set.type.efficiency);
  const share = shareBank(bankNow(set, circuit, now, [fault]), powers);
  if (share.kind !== 'solved') return [];
  const at = set.modules.findIndex(({ module }) => placeKey(set.stackId, module.id) === fault.at);
  const own = share.modules[at]?.currentA ?? 0;
  const others = share.modules.filter((_, index) => index !== at).map(({ currentA }) => currentA);
  const mean = others.reduce((sum, one) => sum + one, 0) / Math.max(1, others.length);
  return [
    `At ${formatQuantity(loadW, 'W')} it gives ${formatQuantity(own, 'A')} where the others give ${formatQuantity(mean, 'A')} each: they wear for it.`,
  ];
}

/** What a fault is, in the figures that it changes. */
function causeWords(plan: SitePlan, fault: SiteFault): string[] {
  const set = plan.sets.find(({ stackId }) => fault.at.startsWith(`${stackId}/`));
  switch (fault.kind) {
    case 'comms-lead-pulled': {
      return plan.sets.flatMap((one) => {
        const all = heardIn(plan, one, []);
        const left = heardIn(plan, one, [fault]);
        return [
          ...(left.modules.size < all.modules.size
            ? [
                `Over what is left the host of ${one.name} hears ${left.modules.size} of ${all.modules.size} modules.`,
              ]
            : []),
          ...(left.units.size < all.units.size
            ? [
                `Over what is left ${left.units.size} of ${all.units.size} units of ${one.name} hear each other.`,
              ]
            : []),
        ];
      });
    }
    case 'module-aged':
      return [
        `Its inner resistance is ${AGED_FACTOR} times that of the others.`,
        ...(set === undefined ? [] : sharingWords(plan, set, fault)),
      ];
    case 'lead-lengthened':
      return [
        `Its lead is ${LONGER_M} m longer, on both poles.`,
        ...(set === undefined ? [] : sharingWords(plan, set, fault)),
      ];
    case 'terminal-weak':
      return [
        `Its joint has ${WEAK_OHM * 1000} mΩ: it warms with the square of the current, and a loose one burns.`,
        ...(set === undefined ? [] : sharingWords(plan, set, fault)),
      ];
    case 'sensor-turned':
      return [
        'What it reads has the other sign: the set takes import for export, and charges when it should give.',
      ];
    case 'polarity-swapped':
      return [
        'Plus stands where minus belongs. Joined like that, a module is a short circuit and a string is destroyed with its input.',
      ];
    default:
      return [];
  }
}

/** What a fault does to this installation: its cause in figures, then what an outage looks like with it and without it, from the walk. */
export function explainFault(plan: SitePlan, fault: SiteFault): readonly string[] {
  const place =
    possibleFaults(plan).find(({ kind, at }) => kind === fault.kind && at === fault.at)?.place ?? fault.at;
  const sound = islandOf(plan, undefined);
  const ill = islandOf(plan, fault);
  const dark = plan.boards.filter(({ partId }) => sound.live.has(partId) && !ill.live.has(partId));
  const told = plan.sets.flatMap((set, at) => {
    const [was, is] = [sound.sets[at], ill.sets[at]];
    if (was === undefined || is === undefined) return [];
    const before = messagesOf(plan, sound, set, was);
    const after = messagesOf(plan, ill, set, is).filter((id) => !before.includes(id));
    const words = after.map((id) => SITE_MESSAGES.find((one) => one.id === id)?.words ?? id);
    return [
      ...(words.length > 0 ? [`${set.name} reports: ${words.join('; ')}.`] : []),
      ...(is.reason !== '' && is.reason !== was.reason
        ? [`In an outage ${set.name} is ${is.phase}: ${is.reason}.`]
        : []),
    ];
  });
  const isQuiet = dark.length === 0 && told.length === 0;
  return [
    `${FAULT_KINDS[fault.kind].words}: ${place}.`,
    ...causeWords(plan, fault),
    ...told,
    ...(dark.length > 0
      ? [`Dark in an outage, and live without it: ${dark.map(({ name }) => name).join(', ')}.`]
      : []),
    ...(isQuiet ? ['Nothing reports it, and every board stays live: only a measurement finds it.'] : []),
  ];
}
