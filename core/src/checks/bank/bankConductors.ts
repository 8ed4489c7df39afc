import { leadAmpacityA } from '../../codes/leadAmpacity.ts';
import { codeProfile } from '../../codes/profile.ts';
import type { Branch, BranchKind } from '../../figures/bank/bankLay.ts';
import type { BankCircuit } from '../../figures/bank/bankCircuit.ts';
import { branchCurrents } from '../../figures/bank/branchCurrents.ts';
import { chargeShareOf } from '../../figures/bank/chargeShare.ts';
import type { CompiledBank } from '../../figures/bank/bank.ts';
import type { CompiledStack } from '../../installation/installation.ts';
import { all, field, type Known, known, uniquePaths, unknownAt } from '../../values/known.ts';
import type { Path } from '../../values/problem.ts';
import { remember } from '../../values/remember.ts';
import { type Check, type Measurement, checkOf } from '../check.ts';
import { bankOf } from '../support/bank.ts';
import { lowestV } from '../../figures/bank/lowestV.ts';
import { eachSharingBank, type SharingCase } from '../support/sharing.ts';
import { bankSubject } from '../support/subjects.ts';
import { symbol } from '../support/workings.ts';

const KIND_WORDS: Readonly<Record<BranchKind, string>> = {
  'module-lead': 'Module leads',
  link: 'Leads between modules',
  'group-lead': 'Leads of the groups',
  bar: 'Bar segments',
  device: 'Devices of modules and groups',
};

const BRANCH_KINDS: readonly BranchKind[] = ['module-lead', 'link', 'group-lead', 'bar', 'device'];

/** What a branch may carry for long; undefined where nothing limits it (a bar without a type). */
function limitOf(
  { site, tableValues }: CompiledStack,
  { areaMm2, ratedA, kind, path }: Branch,
): Known<number> | undefined {
  const profile = field(site.codeProfile, 'site', 'codeProfile');
  if (ratedA !== undefined) {
    // A device is rated above a lasting load by the factor of the code profile; a bar is rated for it.
    const given = all({ ratedA, profile });
    if (kind === 'bar') return ratedA;
    return given.known
      ? known(given.value.ratedA / codeProfile(given.value.profile).continuousFactor)
      : given;
  }
  if (areaMm2 === undefined || areaMm2 === Infinity) return undefined;
  const given = all({
    profile,
    ambientC: field(site.equipmentHighestC, 'site', 'equipmentHighestC'),
  });
  if (!given.known) return given;
  const ampacityA = leadAmpacityA(given.value.profile, areaMm2, given.value.ambientC, tableValues);
  return ampacityA === 'not tabulated'
    ? unknownAt(path)
    : known(ampacityA / codeProfile(given.value.profile).continuousFactor);
}

/** What each branch of a bank may carry, in their order: the same in every mode. */
const limitsOf = remember((compiled: CompiledStack) =>
  remember((circuit: BankCircuit) => circuit.branches.map((branch) => limitOf(compiled, branch))),
);

/** What flows for long in one situation. */
interface Loaded {
  readonly when: string;
  readonly currents: Float64Array;
  /** How much more flows at the lowest voltage than was solved. */
  readonly factor: number;
}

/** Everything that flows for long: each load the bank is solved for, at its lowest voltage, and charging. */
function loadsOf(one: SharingCase, bank: CompiledBank): Loaded[] {
  const discharging = one.solved.flatMap(({ share, askedW }): Loaded[] => {
    if (share.kind !== 'solved' || share.totalA === 0) return [];
    const factor = Math.max(1, askedW / lowestV(one, bank) / share.totalA);
    return [{ when: 'at the lowest voltage', currents: branchCurrents(one.circuit, share), factor }];
  });
  const charge = chargeShareOf(one.compiled);
  if (!charge.known || charge.value === 'none' || charge.value.share.kind !== 'solved') return discharging;
  const currents = branchCurrents(one.circuit, charge.value.share);
  return [...discharging, { when: 'while charging', currents, factor: 1 }];
}

interface Worst {
  readonly branch: Branch;
  readonly when: string;
  readonly solvedA: number;
  readonly factor: number;
  readonly amperes: number;
  readonly limitA: number;
}

/** The branch of a kind that is nearest to its limit in any of the situations, and what is missing to judge others. */
function nearest(
  one: SharingCase,
  kind: BranchKind,
  loads: readonly Loaded[],
): { worst: Worst | undefined; missing: Path[] } {
  const limits = limitsOf(one.compiled)(one.circuit);
  const missing: Path[] = [];
  let worst: Worst | undefined;
  one.circuit.branches.forEach((branch, at) => {
    const limit = limits[at];
    if (branch.kind !== kind || limit === undefined) return;
    if (!limit.known) {
      missing.push(...limit.missing);
      return;
    }
    for (const { when, currents, factor } of loads) {
      const solvedA = Math.abs(currents[at] ?? NaN);
      const amperes = solvedA * factor;
      if (Number.isNaN(amperes)) continue;
      if (worst === undefined || amperes / limit.value > worst.amperes / worst.limitA)
        worst = { branch, when, solvedA, factor, amperes, limitA: limit.value };
    }
  });
  return { worst, missing: uniquePaths(missing) };
}

function worstOfKind(
  one: SharingCase,
  kind: BranchKind,
  loads: readonly Loaded[],
): Measurement<'when' | 'which'> | undefined {
  const subject = bankSubject(one.compiled);
  const named = {
    ...subject,
    kind: 'part' as const,
    id: `${subject.id} ${kind}`,
    label: `${KIND_WORDS[kind]} of ${one.compiled.stack.name}`,
    about: [...(subject.about ?? []), { kind: 'bank' as const, id: subject.id }],
  };
  const { worst: found, missing } = nearest(one, kind, loads);
  if (found === undefined && missing.length === 0) return undefined;
  return {
    subject: named,
    value: found?.amperes,
    limit: found?.limitA,
    unit: 'A',
    missing,
    data: { which: found?.branch.label ?? '', when: found?.when ?? '' },
    working: () => ({
      steps:
        found === undefined
          ? []
          : [
              {
                symbol: 'I',
                meaning: `current of the ${found.branch.label}, ${found.when}`,
                formula: 'I_solved · f',
                symbols: [
                  symbol('I_solved', 'solved on the network of the bank', found.solvedA, 'A'),
                  symbol(
                    'f',
                    'what the whole bank gives at its lowest voltage over what was solved',
                    found.factor,
                    '',
                  ),
                ],
                value: found.amperes,
                unit: 'A',
              },
            ],
      inputs:
        found === undefined
          ? []
          : [
              {
                label: `size of the ${found.branch.label}`,
                path: found.branch.path,
                value: found.branch.areaMm2,
                unit: 'mm²',
              },
            ],
      source:
        'Each branch against its own current. Leads: tabulated capacity in the air around them over the continuous factor; devices: rating over the same factor; bars: rating of their type.',
      notes: [],
    }),
  };
}

/** The listed device of an inverter that is nearest to its rating, discharging at the lowest voltage or charging as set. */
function worstUnitDevice(one: SharingCase, bank: CompiledBank): Measurement<'when' | 'which'> | undefined {
  const { compiled } = one;
  const profile = field(compiled.site.codeProfile, 'site', 'codeProfile');
  const missing: Path[] = [];
  let worst: { amperes: number; limitA: number; when: string; path: Path } | undefined;
  compiled.stack.units.forEach((unit) => {
    const device = compiled.batteryDevices.find(
      ({ role, unitId, fitted }) => role === 'battery-unit' && unitId === unit.id && fitted !== 'none',
    );
    if (device === undefined) return;
    const given = all({ ratedA: device.ratedA, profile });
    if (!given.known) {
      missing.push(...given.missing);
      return;
    }
    const limitA = given.value.ratedA / codeProfile(given.value.profile).continuousFactor;
    const look = (amperes: number, when: string): void => {
      if (worst === undefined || amperes / limitA > worst.amperes / worst.limitA)
        worst = { amperes, limitA, when, path: device.path };
    };
    for (const { share, askedW } of one.solved) {
      if (share.kind !== 'solved' || share.totalA === 0) continue;
      const tap = share.taps.find(({ unitId }) => unitId === unit.id);
      if (tap !== undefined)
        look(tap.currentA * Math.max(1, askedW / lowestV(one, bank) / share.totalA), 'at the lowest voltage');
    }
    const charge = field(compiled.stack.chargeCurrentA, 'stacks', compiled.stack.id, 'chargeCurrentA');
    if (charge.known) look(charge.value, 'while charging');
    else missing.push(...charge.missing);
  });
  if (worst === undefined && missing.length === 0) return undefined;
  const found = worst;
  const subject = bankSubject(compiled);
  return {
    subject: {
      ...subject,
      kind: 'part',
      id: `${subject.id} unit-device`,
      label: `Battery devices of ${compiled.stack.name}`,
      about: [...(subject.about ?? []), { kind: 'bank', id: subject.id }],
    },
    value: found?.amperes,
    limit: found?.limitA,
    unit: 'A',
    missing: uniquePaths(missing),
    data: { which: 'device of an inverter', when: found?.when ?? '' },
    working: () => ({
      steps: [],
      inputs: [],
      source: 'Current of one inverter, solved, against the rating of its device over the continuous factor.',
      notes: [],
    }),
  };
}

/** Every lead, joint, bar segment and device of modules and groups against its own solved current. */
export const bankConductors: Check<'bank.conductors'> = checkOf({
  id: 'bank.conductors',
  title: 'Each conductor of the bank',
  family: 'bank',
  modes: ['island', 'unit-lost'],
  sentences: {
    over: '{{subject}}: the {{which}} carries {{value}} {{when}} and may carry {{limit}}: over by {{margin}}.',
    tight: '{{subject}}: the {{which}} carries {{value}} of {{limit}} {{when}}: {{margin}} left.',
    within: '{{subject}}: the {{which}} carries {{value}} of {{limit}} {{when}}: {{margin}} left.',
    unknown: '{{subject}}: they cannot be judged yet. Missing: {{missing}}.',
  },
  run: (context) =>
    eachSharingBank(bankConductors.id, context, 'A', 'steady', (one) => {
      const bank = bankOf(one.compiled);
      if (bank?.known !== true) return [];
      const loads = loadsOf(one, bank.value);
      return [...BRANCH_KINDS.map((kind) => worstOfKind(one, kind, loads)), worstUnitDevice(one, bank.value)];
    }),
});
