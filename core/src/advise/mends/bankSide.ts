import { tabulatedSizes } from '../../codes/ampacity.ts';
import { LEAD_SIZES_MM2 } from '../../codes/leads.ts';
import { leadSizeWords } from '../../codes/leadSizes.ts';
import { codeProfile } from '../../codes/profile.ts';
import type { Design, Stack } from '../../design/schema.ts';
import { bankOfSet } from '../../figures/bank/ofSet.ts';
import { applyEdits } from '../../design/applyEdits.ts';
import { readDesign } from '../../design/read.ts';
import type { CompiledStack } from '../../installation/installation.ts';
import { isOwnBank } from '../../installation/ownBank.ts';
import { sharingFixes } from '../sharing.ts';
import { type Candidate, freeId, inBank, inStack, once, type Trouble, typesAtHand } from './candidate.ts';

const MORE_MODULES = 12;
const MORE_SIZES = 8;
const RESERVE_STEP = 0.05;
const STEP_W = 50;

/** More modules of the type of the bank, joined as the others are. */
export function moreModules({ compiled, cause }: Trouble): Candidate[] {
  if (compiled === undefined || typeof compiled.stack.bank !== 'object') return [];
  return [
    {
      id: 'more-modules',
      title: (step) => (step === 1 ? 'One more battery module' : `${step} more battery modules`),
      most: MORE_MODULES,
      // Energy only adds up; a current may be shared worse by more of them.
      isRising: cause.worst.check === 'bank.autonomy',
      make: (design, step) =>
        inBank(compiled.stack.id, (bank) => {
          const modules = [...bank.modules];
          const like = bank.modules.at(-1);
          for (let more = 0; more < step; more += 1)
            modules.push({
              id: freeId('m', modules),
              ...(like?.stateOfCharge === undefined ? {} : { stateOfCharge: like.stateOfCharge }),
            });
          return { ...bank, modules };
        })(design),
    },
  ];
}

const FEWER_MODULES = 8;

/** A bank without its last modules, and without the comms leads to them. */
function without(bank: Bank, count: number): Bank {
  const modules = bank.modules.slice(0, -count);
  const ids = new Set(['host', ...modules.map(({ id }) => id)]);
  const { comms } = bank;
  if (comms === undefined) return { ...bank, modules };
  const stays = (id: string): boolean => ids.has(id);
  return {
    ...bank,
    modules,
    comms: {
      ...comms,
      links: comms.links.filter(({ from, to }) => stays(from) && stays(to)),
      ...(comms.terminated === undefined ? {} : { terminated: comms.terminated.filter(stays) }),
      ...(comms.offBus === undefined ? {} : { offBus: comms.offBus.filter(stays) }),
    },
  };
}

/** Fewer modules of the same type: the last of them go. */
export function fewerModules({ compiled, design }: Trouble): Candidate[] {
  if (compiled === undefined || typeof compiled.stack.bank !== 'object') return [];
  const { modules } = compiled.stack.bank;
  const named = new Set(design.devices.flatMap(({ moduleId }) => moduleId ?? []));
  // What something else is said of stays.
  const free = [...modules].reverse().findIndex(({ id }) => named.has(id));
  return [
    {
      id: 'fewer-modules',
      title: (step) => (step === 1 ? 'One battery module fewer' : `${step} battery modules fewer`),
      most: Math.min(FEWER_MODULES, modules.length - 1, free < 0 ? modules.length : free),
      make: (draft, step) => inBank(compiled.stack.id, (bank) => without(bank, step))(draft),
    },
  ];
}

/** Another battery type of the same voltage from the catalogue, smallest first. */
export function otherBatteries(trouble: Trouble): Candidate[] {
  const { compiled } = trouble;
  const bank = compiled && bankOfSet(compiled);
  if (compiled === undefined || bank?.known !== true || bank.value === 'none') return [];
  const { type: now } = bank.value;
  return typesAtHand(trouble)
    .flatMap((type) =>
      type.kind === 'battery' &&
      type.id !== now.id &&
      type.joining === now.joining &&
      type.chemistry === now.chemistry &&
      Math.abs(type.nominalV - now.nominalV) <= 0.01 * now.nominalV &&
      type.capacityAh >= now.capacityAh
        ? [type]
        : [],
    )
    .sort((a, b) => a.capacityAh - b.capacityAh)
    .map((type) =>
      once(
        `battery-${type.id}`,
        `Another battery type: ${type.name}`,
        inBank(compiled.stack.id, (one) => ({ ...one, batteryTypeId: type.id })),
      ),
    );
}

/** A higher reserve for outages. */
export function higherReserve({ compiled }: Trouble): Candidate[] {
  const bank = compiled?.stack.bank;
  if (compiled === undefined || typeof bank !== 'object' || bank.reserveSoc === undefined) return [];
  const now = bank.reserveSoc;
  const at = (step: number): number => Math.min(1, Number((now + step * RESERVE_STEP).toFixed(2)));
  return [
    {
      id: 'reserve',
      title: (step) => `Keep a backup reserve of ${Math.round(at(step) * 100)} %`,
      most: Math.max(0, Math.floor((1 - now) / RESERVE_STEP + 1e-9)),
      isRising: true,
      goesOn: true,
      make: inBankStep(compiled.stack.id, (one, step) => ({ ...one, reserveSoc: at(step) })),
    },
  ];
}

type Bank = Exclude<Stack['bank'], 'none' | undefined>;

const inBankStep =
  (stackId: string, change: (bank: Bank, step: number) => Bank) =>
  (design: Design, step: number): Design =>
    inBank(stackId, (bank) => change(bank, step))(design);

type LeadKey = 'lead' | 'inverterLead' | 'groupLead';
const LEAD_WORDS: Record<LeadKey, string> = {
  lead: 'Leads of the modules',
  inverterLead: 'Battery leads of the inverters',
  groupLead: 'Leads of the groups',
};

/** Sizes of the practice of the job above the one that is laid. */
const above = ({ site }: CompiledStack, areaMm2: number): readonly number[] =>
  (site.codeProfile === undefined ? LEAD_SIZES_MM2 : tabulatedSizes(site.codeProfile))
    .filter((area) => area > areaMm2)
    .slice(0, MORE_SIZES);

/** Thicker leads of one kind, size by size. */
export function thickerLeads({ compiled }: Trouble, keys: readonly LeadKey[]): Candidate[] {
  const bank = compiled?.stack.bank;
  if (compiled === undefined || typeof bank !== 'object') return [];
  return keys.flatMap((key): Candidate[] => {
    const now = bank[key]?.areaMm2;
    if (now === undefined) return [];
    const sizes = above(compiled, now);
    return [
      {
        id: `thicker-${key}`,
        title: (step) => `${LEAD_WORDS[key]}: ${leadSizeWords(sizes[step - 1] ?? now)}`,
        most: sizes.length,
        make: inBankStep(compiled.stack.id, (one, step) => ({
          ...one,
          [key]: { ...one[key], areaMm2: sizes[step - 1] ?? now },
        })),
      },
    ];
  });
}

/** Another battery device: a standard rating above or below, or a type from the catalogue. */
export function otherDevices(trouble: Trouble): Candidate[] {
  const { compiled } = trouble;
  const bank = compiled?.stack.bank;
  if (compiled === undefined || typeof bank !== 'object') return [];
  const { id } = compiled.stack;
  const rated = compiled.breakerA.known ? compiled.breakerA.value : 0;
  const nearest = <T>(list: readonly T[], of: (one: T) => number): T[] =>
    [...list].sort((a, b) => Math.abs(of(a) - rated) - Math.abs(of(b) - rated));
  if (bank.breakerTypeId === undefined)
    return nearest(codeProfile('metric').standardBatteryDeviceA, (amperes) => amperes)
      .filter((amperes) => amperes !== rated)
      .map((amperes) =>
        once(
          `breaker-${amperes}`,
          `A battery device of ${amperes} A`,
          inBank(id, (one) => ({ ...one, breakerA: amperes })),
        ),
      );
  const types = typesAtHand(trouble).flatMap((type) =>
    type.kind === 'protective-device' &&
    (type.device === 'dc-breaker' || type.device === 'dc-fuse') &&
    type.id !== bank.breakerTypeId
      ? [type]
      : [],
  );
  return nearest(types, ({ ratedA }) => ratedA).map((type) =>
    once(
      `breaker-${type.id}`,
      `Another battery device: ${type.name}`,
      inBank(id, (one) => ({ ...one, breakerTypeId: type.id })),
    ),
  );
}

/** Ways to make the modules share more evenly. */
export function evenSharing({ compiled, design, catalogue }: Trouble): Candidate[] {
  if (compiled === undefined) return [];
  return sharingFixes(design, catalogue, compiled.stack.id).map(({ id, label, edits }) =>
    once(`sharing-${id}`, label, (draft) => {
      const applied = applyEdits(draft, edits);
      const read = applied.ok ? readDesign(applied.value, catalogue) : applied;
      return read.ok ? read.value : undefined;
    }),
  );
}

/** Lower charge settings: to what the bank, its modules and the inverters take. */
export function gentlerCharging({ compiled, cause }: Trouble): Candidate[] {
  const bank = compiled && bankOfSet(compiled);
  if (compiled === undefined || bank?.known !== true || bank.value === 'none') return [];
  const { stack } = compiled;
  const { value, limit, check } = cause.worst;
  const units = isOwnBank(stack) ? 1 : stack.units.length;
  // What all of them may charge with is a limit of its own; a module or a lead is held by its part of what is set.
  const ofAll = check === 'bank.charge' ? (limit ?? Infinity) : Infinity;
  const mostA = Math.min(bank.value.chargeA, ofAll);
  const isPart = check !== 'bank.charge' && value !== undefined && limit !== undefined && value > limit;
  const share = isPart ? limit / value : 1;
  const amperes = Math.floor(Math.min((stack.chargeCurrentA ?? Infinity) * share, mostA / units));
  const watts = Math.floor((mostA * bank.value.nominalV) / units / STEP_W) * STEP_W;
  const capped = (now: number | undefined): number | undefined =>
    now === undefined ? undefined : Math.min(now, watts);
  return [
    once('charge-setting', `Charge with at most ${amperes} A a unit`, (design) =>
      inStack(stack.id, (one) => {
        const grid = capped(one.gridChargeW);
        const generator = capped(one.generatorChargeW);
        return {
          ...one,
          chargeCurrentA: Math.min(one.chargeCurrentA ?? amperes, amperes),
          ...(grid === undefined ? {} : { gridChargeW: grid }),
          ...(generator === undefined ? {} : { generatorChargeW: generator }),
        };
      })(design),
    ),
  ];
}
