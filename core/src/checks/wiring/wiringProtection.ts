import { circuitAmpacityA, largestDeviceA } from '../../codes/deviceFor.ts';
import { leadAmpacityA } from '../../codes/leadAmpacity.ts';
import { leadSizeWords } from '../../codes/leadSizes.ts';
import type { CodeProfileName } from '../../codes/profile.ts';
import type { Circuit, Site } from '../../installation/facts.ts';
import type { Network, Part, Run } from '../../installation/network.ts';
import type { Path } from '../../values/problem.ts';
import { uniquePaths } from '../../values/known.ts';
import { type Check, type CheckContext, judge, NO_WORKING, unknownFinding } from '../check.ts';
import type { Finding, Subject } from '../finding.ts';
import { onNetwork, partSubject, troubleOrOne, WHOLE } from '../support/network.ts';

interface Protected {
  readonly subject: Subject;
  readonly ratedA: number;
  readonly areaMm2: number;
  readonly ampacityA: number;
  readonly areaPath: Path;
  readonly what: string;
}

/** Devices with what is known of their conductors, and the places that do not say the rest. */
interface Found {
  readonly known: readonly Protected[];
  readonly missing: readonly Path[];
}

const NOTHING: Found = { known: [], missing: [] };
const lacking = (...missing: Path[]): Found => ({ known: [], missing });
const together = (found: readonly Found[]): Found => ({
  known: found.flatMap((one) => one.known),
  missing: found.flatMap((one) => one.missing),
});

function held(context: CheckContext, profile: CodeProfileName, one: Protected): Finding {
  const limit = largestDeviceA(profile, one.ampacityA, one.areaMm2);
  return judge(wiringProtection.id, context, {
    subject: one.subject,
    value: one.ratedA,
    limit,
    unit: 'A',
    // A device at exactly what its conductor carries is what a designer aims for.
    graded: false,
    data: { size: leadSizeWords(one.areaMm2), carries: `${Math.round(one.ampacityA)} A`, what: one.what },
    working: () => ({
      ...NO_WORKING,
      source:
        profile === 'metric'
          ? 'I_n ≤ I_z: tabulated capacity, PVC, clipped direct.'
          : 'At most the next standard rating at or above the tabulated capacity, to 800 A; 14, 12 and 10 AWG not above 15, 20 and 30 A.',
      inputs: [{ label: 'Size', path: one.areaPath, value: one.areaMm2, unit: 'mm²' }],
    }),
  });
}

const isBatteryDevice = ({ kind, role }: Part): boolean =>
  kind === 'device' && role?.startsWith('battery-') === true;

/** One lead at a battery device. A size that no table holds tells nothing of what it carries. */
function leadOf(network: Network, site: Site, profile: CodeProfileName, part: Part, run: Run): Found {
  if (part.ratedA?.known !== true) return lacking(...(part.ratedA?.missing ?? []));
  if (!run.areaMm2.known) return lacking(...run.areaMm2.missing);
  if (site.equipmentHighestC === undefined) return lacking(['site', 'equipmentHighestC']);
  const areaMm2 = run.areaMm2.value;
  const areaPath = [...run.from, 'areaMm2'];
  const ampacityA = leadAmpacityA(profile, areaMm2, site.equipmentHighestC);
  if (ampacityA === 'not tabulated') return lacking(areaPath);
  const subject = partSubject(network, part);
  const ratedA = part.ratedA.value;
  return { known: [{ subject, ratedA, areaMm2, ampacityA, areaPath, what: 'its leads' }], missing: [] };
}

/** Battery devices that are there, each with the lead of its line that carries least. */
function leadsOf(network: Network, site: Site, profile: CodeProfileName): Found {
  const ports = new Map(network.ports.map((port) => [port.id, port.partId]));
  return together(
    network.parts.map((part): Found => {
      if (!isBatteryDevice(part) || (part.fitted?.known === true && part.fitted.value === 'none'))
        return NOTHING;
      const runs = network.runs.filter(
        ({ use, a, b }) => use === 'battery' && [a, b].some((end) => ports.get(end) === part.id),
      );
      const { known, missing } = together(runs.map((run) => leadOf(network, site, profile, part, run)));
      const [weakest] = [...known].sort((a, b) => a.ampacityA - b.ampacityA);
      return { known: weakest === undefined ? [] : [weakest], missing };
    }),
  );
}

/** The cable of a circuit behind its device, where both are stated. */
function circuitOf(circuit: Circuit, ratedA: number | undefined, profile: CodeProfileName): Found {
  const areaMm2 = circuit.cable?.areaMm2;
  if (ratedA === undefined || areaMm2 === undefined) return NOTHING;
  const areaPath = ['circuits', circuit.id, 'cable', 'areaMm2'];
  if (circuit.lines === undefined) return lacking(['circuits', circuit.id, 'lines']);
  const ampacityA = circuitAmpacityA(profile, areaMm2, circuit.lines.length === 3 ? 3 : 2);
  if (ampacityA === 'not tabulated') return lacking(areaPath);
  const subject: Subject = { kind: 'part', id: `circuit ${circuit.id}`, label: circuit.name };
  return { known: [{ subject, ratedA, areaMm2, ampacityA, areaPath, what: 'its cable' }], missing: [] };
}

/** A breaker or fuse must not be larger than what the conductor behind it carries. What nobody stated is not asked for here. */
export const wiringProtection: Check<'wiring.protection'> = {
  id: 'wiring.protection',
  title: 'Devices protect their conductors',
  family: 'wiring',
  modes: 'once',
  sentences: {
    over: '{{subject}} is rated {{value}}; {{what}} of {{size}} carry {{carries}}, which allows {{limit}} at most.',
    tight: '{{subject}} is rated {{value}}; {{what}} of {{size}} allow {{limit}}.',
    within: '{{subject}} is not larger than its conductor allows.',
    unknown: '{{subject}}: whether its conductor is protected is not known. Missing: {{missing}}.',
  },
  run: (context) => {
    const { site, circuits, circuitDeviceTypes } = context.installation;
    const profile = site.codeProfile;
    const all = { ...WHOLE, label: 'Every device whose conductor is stated' };
    return onNetwork(wiringProtection.id, context, ({ network }) => {
      if (profile === undefined)
        return network.parts.some(isBatteryDevice)
          ? [unknownFinding(wiringProtection.id, context, all, 'A', [['site', 'codeProfile']])]
          : [];
      const found = together([
        leadsOf(network, site, profile),
        ...circuits.map((circuit) => {
          const typeId = circuit.device?.typeId;
          const type = typeId === undefined ? undefined : circuitDeviceTypes[typeId];
          return circuitOf(circuit, circuit.device?.ratedA ?? type?.ratedA, profile);
        }),
      ]);
      const findings = troubleOrOne(
        found.known.map((one) => held(context, profile, one)),
        all,
      );
      // What is sound as far as it is known is not known to be sound.
      const isSound = findings.every(({ state }) => state === 'within');
      return isSound && found.missing.length > 0
        ? [unknownFinding(wiringProtection.id, context, all, 'A', uniquePaths(found.missing))]
        : findings;
    });
  },
};
