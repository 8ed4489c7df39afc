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
import { onNetwork, refsOf, troubleOrOne, WHOLE } from '../support/network.ts';

interface Protected {
  readonly subject: Subject;
  readonly ratedA: number;
  readonly areaMm2: number;
  readonly ampacityA: number;
  readonly areaPath: Path;
  readonly what: string;
}

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

/** Battery devices that must be there and whose rating nobody has stated. */
const unrated = ({ parts }: Network): Path[] =>
  parts.flatMap((part) =>
    isBatteryDevice(part) &&
    part.ratedA?.known === false &&
    !(part.fitted?.known === true && part.fitted.value === 'none')
      ? part.ratedA.missing
      : [],
  );

/** Battery devices with the leads behind them. */
function leadsOf(network: Network, site: Site, profile: CodeProfileName): Protected[] {
  const ambientC = site.equipmentHighestC;
  if (ambientC === undefined) return [];
  const ports = new Map(network.ports.map((port) => [port.id, port.partId]));
  const byPart = new Map<string, Run[]>();
  for (const run of network.runs)
    for (const end of [run.a, run.b]) {
      const partId = ports.get(end);
      if (run.use === 'battery' && partId !== undefined)
        byPart.set(partId, [...(byPart.get(partId) ?? []), run]);
    }
  return network.parts.flatMap((part): Protected[] => {
    if (!isBatteryDevice(part) || part.ratedA?.known !== true) return [];
    const [run] = (byPart.get(part.id) ?? []).filter((one) => one.areaMm2.known);
    if (run?.areaMm2.known !== true) return [];
    const areaMm2 = run.areaMm2.value;
    const ampacityA = leadAmpacityA(profile, areaMm2, ambientC);
    if (ampacityA === 'not tabulated') return [];
    return [
      {
        subject: {
          kind: 'part',
          id: part.id,
          label: part.label.charAt(0).toUpperCase() + part.label.slice(1),
          about: refsOf(network, [part.id]),
        },
        ratedA: part.ratedA.value,
        areaMm2,
        ampacityA,
        areaPath: [...run.from, 'areaMm2'],
        what: 'its leads',
      },
    ];
  });
}

function circuitOf(circuit: Circuit, ratedA: number | undefined, profile: CodeProfileName): Protected[] {
  const areaMm2 = circuit.cable?.areaMm2;
  if (ratedA === undefined || areaMm2 === undefined) return [];
  const ampacityA = circuitAmpacityA(profile, areaMm2, circuit.lines?.length === 3 ? 3 : 2);
  if (ampacityA === 'not tabulated') return [];
  return [
    {
      subject: { kind: 'part', id: `circuit ${circuit.id}`, label: circuit.name },
      ratedA,
      areaMm2,
      ampacityA,
      areaPath: ['circuits', circuit.id, 'cable', 'areaMm2'],
      what: 'its cable',
    },
  ];
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
    if (profile === undefined) return [];
    const all = { ...WHOLE, label: 'Every device whose conductor is stated' };
    return onNetwork(wiringProtection.id, context, ({ network }) => {
      const missing = unrated(network);
      const found = troubleOrOne(
        [
          ...leadsOf(network, site, profile),
          ...circuits.flatMap((circuit) => {
            const typeId = circuit.device?.typeId;
            const type = typeId === undefined ? undefined : circuitDeviceTypes[typeId];
            return circuitOf(circuit, circuit.device?.ratedA ?? type?.ratedA, profile);
          }),
        ].map((one) => held(context, profile, one)),
        all,
      );
      const isSound = found.every(({ state }) => state === 'within');
      return isSound && missing.length > 0
        ? [unknownFinding(wiringProtection.id, context, all, 'A', uniquePaths(missing))]
        : found;
    });
  },
};
