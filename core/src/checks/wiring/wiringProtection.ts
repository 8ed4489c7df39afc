import { leadSizeWords } from '../../codes/leadSizes.ts';
import type { CodeProfileName } from '../../codes/profile.ts';
import type { CableLine } from '../../figures/wiring/cableLine.ts';
import { cableLines, guardedLines } from '../../figures/wiring/cableLines.ts';
import type { Installation } from '../../installation/installation.ts';
import { governing } from '../../sizing/askLine.ts';
import { carriesA, deviceAnswers } from '../../sizing/judgeSize.ts';
import { inConduits } from '../../figures/wiring/conduits.ts';
import { laidAsOf } from '../../sizing/laidAs.ts';
import type { SizeAnswer } from '../../sizing/question.ts';
import { worstOf } from '../../sizing/smallestSize.ts';
import type { Path } from '../../values/problem.ts';
import { uniquePaths } from '../../values/known.ts';
import { type Check, type CheckContext, judge, NO_WORKING, unknownFinding, checkOf } from '../check.ts';
import type { Found } from '../finding.ts';
import { cableSubject } from '../support/cables.ts';
import { onNetwork, troubleOrOne, WHOLE } from '../support/network.ts';

interface Protected {
  readonly line: CableLine;
  readonly areaMm2: number;
  readonly carriesA: number;
  readonly worst: SizeAnswer;
}

/** A device with its conductor, or the places that do not say of what kind they are. */
type Look = { readonly held: Protected } | { readonly missing: readonly Path[] };

/** What was found at a cable, and all that it was found from beside the cable itself. */
interface Looked {
  readonly around: readonly unknown[];
  readonly found: Look;
}

/** What was found last at each cable of a circuit: most edits leave most of them as they were. */
const lookedAt = new WeakMap<CableLine, Looked>();

function foundAt(installation: Installation, profile: CodeProfileName, line: CableLine): Look {
  if (line.circuit === undefined) return protectedOf(installation, profile, line);
  const { site, wiring, tableValues } = installation;
  const { carrying, name } = inConduits(installation).get(line.id) ?? {};
  const around = [site, wiring?.laying, tableValues, carrying, name];
  const before = lookedAt.get(line);
  if (before?.around.every((one, at) => one === around[at]) === true) return before.found;
  const found = protectedOf(installation, profile, line);
  lookedAt.set(line, { around, found });
  return found;
}

/** A conductor with the device ahead of it. What nobody stated is asked for where a battery is behind it, and nowhere else. */
function protectedOf(installation: Installation, profile: CodeProfileName, line: CableLine): Look {
  const device = governing(line);
  const isAsked = line.use === 'battery' && line.devices.length > 0;
  if (device?.ratedA.known !== true || !line.areaMm2.known) {
    const lacking = [
      ...(device === undefined
        ? line.devices.flatMap(({ ratedA }) => (ratedA.known ? [] : ratedA.missing))
        : []),
      ...(line.areaMm2.known ? [] : line.areaMm2.missing),
    ];
    return { missing: isAsked ? lacking : [] };
  }
  const laidAs = laidAsOf(installation, line, profile);
  if (!laidAs.known) return { missing: laidAs.missing };
  const areaMm2 = line.areaMm2.value;
  const lying = { profile, ...laidAs.value, isFuse: device.isFuse };
  const answers = deviceAnswers(lying, device.ratedA.value, areaMm2);
  const [first] = answers;
  const amperes = carriesA(lying, areaMm2);
  if (first === undefined || amperes === undefined) return { missing: [line.areaPath] };
  return { held: { line, areaMm2, carriesA: amperes, worst: worstOf(answers) ?? first } };
}

function held(
  context: CheckContext,
  profile: CodeProfileName,
  one: Protected,
): Found<'carries' | 'size' | 'what'> {
  const { line, worst, areaMm2 } = one;
  return judge(wiringProtection.id, context, {
    subject: cableSubject(context.installation, line),
    value: worst.value,
    limit: worst.limit,
    unit: 'A',
    // A device at exactly what its conductor carries is what a designer aims for.
    graded: false,
    data: {
      size: leadSizeWords(areaMm2),
      carries: `${Math.round(one.carriesA)} A`,
      what: line.use === 'battery' ? 'its leads' : 'its cable',
    },
    working: () => ({
      ...NO_WORKING,
      source:
        profile === 'metric'
          ? `I_n ≤ I_z, and I_2 ≤ 1.45 · I_z for a fuse. ${worst.working()}.`
          : `At most the next standard rating at or above the smaller of both capacities, to 800 A; 14, 12 and 10 AWG not above 15, 20 and 30 A. ${worst.working()}.`,
      inputs: [{ label: 'Size', path: line.areaPath, value: areaMm2, unit: 'mm²' }],
    }),
  });
}

/** A breaker or fuse must not be larger than what the conductor behind it carries. */
export const wiringProtection: Check<'wiring.protection'> = checkOf({
  id: 'wiring.protection',
  title: 'Devices protect their conductors',
  family: 'wiring',
  modes: 'once',
  sentences: {
    over: '{{subject}}: its device is rated {{value}}; {{what}} of {{size}} may carry {{carries}}, which allows {{limit}} at most.',
    tight: '{{subject}}: its device is rated {{value}}; {{what}} of {{size}} allow {{limit}}.',
    within: '{{subject}}: no device is larger than its conductor allows.',
    unknown: '{{subject}}: whether its conductor is protected is not known. Missing: {{missing}}.',
  },
  run: (context) => {
    const { installation } = context;
    const profile = installation.site.codeProfile;
    const everything = { ...WHOLE, label: 'Every device whose conductor is stated' };
    return onNetwork(wiringProtection.id, context, () => {
      const lines = cableLines(installation);
      const guarded = guardedLines(installation);
      if (!lines.known || !guarded.known) return [];
      if (profile === undefined)
        return lines.value.some(({ use }) => use === 'battery')
          ? [unknownFinding(wiringProtection.id, context, everything, 'A', [['site', 'codeProfile']])]
          : [];
      const found = guarded.value.map((line) => foundAt(installation, profile, line));
      const missing = found.flatMap((one) => ('missing' in one ? one.missing : []));
      const findings = troubleOrOne(
        found.flatMap((one) => ('held' in one ? [held(context, profile, one.held)] : [])),
        everything,
      );
      // What is sound as far as it is known is not known to be sound.
      const isSound = findings.every(({ state }) => state === 'within');
      return isSound && missing.length > 0
        ? [unknownFinding(wiringProtection.id, context, everything, 'A', uniquePaths(missing))]
        : findings;
    });
  },
});
