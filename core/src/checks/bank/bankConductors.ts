import { leadAmpacityA } from '../../codes/leadAmpacity.ts';
import { codeProfile } from '../../codes/profile.ts';
import type { Branch, BranchKind } from '../../figures/bank/bankLay.ts';
import { type BranchCurrent, branchCurrents } from '../../figures/bank/branchCurrents.ts';
import { chargeShareOf } from '../../figures/bank/chargeShare.ts';
import type { CompiledBank } from '../../figures/bank/bank.ts';
import { all, field, type Known, known, unknownAt } from '../../values/known.ts';
import type { Check, CheckContext, Measurement } from '../check.ts';
import { bankOf } from '../support/bank.ts';
import { lowestV } from '../support/bankDemand.ts';
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
function limitOf(context: CheckContext, { areaMm2, ratedA, kind, path }: Branch): Known<number> | undefined {
  const { site } = context.installation;
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
  const ampacityA = leadAmpacityA(given.value.profile, areaMm2, given.value.ambientC);
  return ampacityA === 'not tabulated'
    ? unknownAt(path)
    : known(ampacityA / codeProfile(given.value.profile).continuousFactor);
}

interface Loaded extends BranchCurrent {
  readonly when: string;
  /** How much more flows at the lowest voltage than was solved. */
  readonly factor: number;
}

/** Everything that flows for long: each load the bank is solved for, at its lowest voltage, and charging. */
function loadsOf(one: SharingCase, bank: CompiledBank): Loaded[] {
  const discharging = one.solved.flatMap(({ share, askedW }): Loaded[] => {
    if (share.kind !== 'solved' || share.totalA === 0) return [];
    const factor = Math.max(1, askedW / lowestV(one, bank) / share.totalA);
    return branchCurrents(one.circuit, share).map((found) => ({
      ...found,
      when: 'at the lowest voltage',
      factor,
    }));
  });
  const charge = chargeShareOf(one.compiled);
  const charging =
    charge.known && charge.value !== 'none' && charge.value.share.kind === 'solved'
      ? branchCurrents(charge.value.circuit, charge.value.share).map((found) => ({
          ...found,
          when: 'while charging',
          factor: 1,
        }))
      : [];
  return [...discharging, ...charging];
}

function worstOfKind(
  context: CheckContext,
  one: SharingCase,
  kind: BranchKind,
  loads: readonly Loaded[],
): Measurement | undefined {
  const subject = bankSubject(one.compiled);
  const named = {
    ...subject,
    kind: 'part' as const,
    id: `${subject.id} ${kind}`,
    label: `${KIND_WORDS[kind]} of ${one.compiled.stack.name}`,
    about: [...(subject.about ?? []), { kind: 'bank' as const, id: subject.id }],
  };
  let worst: { readonly load: Loaded; readonly amperes: number; readonly limitA: number } | undefined;
  const missing = new Map<string, readonly (string | number)[]>();
  for (const load of loads) {
    if (load.branch.kind !== kind) continue;
    const limit = limitOf(context, load.branch);
    if (limit === undefined) continue;
    if (!limit.known) {
      for (const path of limit.missing) missing.set(path.join('\n'), path);
      continue;
    }
    const amperes = Math.abs(load.currentA) * load.factor;
    if (worst === undefined || amperes / limit.value > worst.amperes / worst.limitA)
      worst = { load, amperes, limitA: limit.value };
  }
  if (worst === undefined && missing.size === 0) return undefined;
  const found = worst;
  return {
    subject: named,
    value: found?.amperes,
    limit: found?.limitA,
    unit: 'A',
    missing: [...missing.values()],
    data: { which: found?.load.branch.label ?? '', when: found?.load.when ?? '' },
    working: () => ({
      steps:
        found === undefined
          ? []
          : [
              {
                symbol: 'I',
                meaning: `current of the ${found.load.branch.label}, ${found.load.when}`,
                formula: 'I_solved · f',
                symbols: [
                  symbol('I_solved', 'solved on the network of the bank', Math.abs(found.load.currentA), 'A'),
                  symbol(
                    'f',
                    'what the whole bank gives at its lowest voltage over what was solved',
                    found.load.factor,
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
                label: `size of the ${found.load.branch.label}`,
                path: found.load.branch.path,
                value: found.load.branch.areaMm2,
                unit: 'mm²',
              },
            ],
      source:
        'Each branch against its own current. Leads: tabulated capacity in the air around them over the continuous factor; devices: rating over the same factor; bars: rating of their type.',
      notes: [],
    }),
  };
}

/** Every lead, joint, bar segment and device of modules and groups against its own solved current. */
export const bankConductors: Check<'bank.conductors'> = {
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
      return BRANCH_KINDS.map((kind) => worstOfKind(context, one, kind, loads));
    }),
};
