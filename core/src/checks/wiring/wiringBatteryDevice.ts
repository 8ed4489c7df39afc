import type { Network, Part } from '../../installation/network.ts';
import type { Path } from '../../values/problem.ts';
import { type Check, type CheckContext, judge, NO_WORKING, unknownFinding, checkOf } from '../check.ts';
import type { Found } from '../finding.ts';
import { devicesOf } from '../support/devices.ts';
import { onNetwork, partSubject, troubleOrOne, WHOLE } from '../support/network.ts';

const isFitted = ({ fitted }: Part): boolean => fitted?.known === true && fitted.value === 'yes';

/** The devices of a set that come first on the way from its modules: of modules, else of groups, else of inverters. */
function firstOf(network: Network, stackId: string): readonly Part[] {
  const own = (role: Part['role']): readonly Part[] =>
    devicesOf(network, role).filter((part) => part.stackId === stackId && isFitted(part));
  const modules = network.parts.filter(
    (part) =>
      part.kind === 'module' &&
      part.stackId === stackId &&
      !(part.fitted?.known === true && part.fitted.value === 'none'),
  );
  const ofModules = own('battery-module');
  if (modules.length > 0 && ofModules.length >= modules.length) return ofModules;
  const ofGroups = own('battery-group');
  return ofGroups.length > 0 ? ofGroups : [...ofModules, ...own('battery-unit')];
}

/** How long the lead is in which a device stands, m; undefined while that is not known. */
function leadM(network: Network, part: Part): number | undefined {
  const ports = new Set(network.ports.filter(({ partId }) => partId === part.id).map(({ id }) => id));
  const lengths = network.runs
    .filter(({ a, b, use }) => use === 'battery' && (ports.has(a) || ports.has(b)))
    .map(({ lengthM }) => lengthM);
  return lengths.some(({ known }) => !known)
    ? undefined
    : Math.max(...lengths.map((length) => (length.known ? length.value : 0)));
}

function judged(context: CheckContext, network: Network, part: Part): Found {
  const limitM = context.installation.defaults.batteryDeviceM.value;
  const subject = partSubject(network, part);
  const path: Path = [...(part.from[0] === 'devices' ? part.from : ['devices']), 'fromBatteryM'];
  const wholeM = leadM(network, part);
  // A lead that is short enough as a whole leaves no place that is too far away.
  const isShort = wholeM !== undefined && wholeM <= limitM;
  const valueM = part.fromBatteryM ?? (isShort ? wholeM : undefined);
  if (valueM === undefined) return unknownFinding(wiringBatteryDevice.id, context, subject, 'm', [path]);
  return judge(wiringBatteryDevice.id, context, {
    subject,
    value: valueM,
    limit: limitM,
    unit: 'm',
    graded: false,
    working: () => ({
      ...NO_WORKING,
      inputs: [
        part.fromBatteryM === undefined
          ? { label: 'Whole lead', path: [...part.from], value: wholeM, unit: 'm' }
          : { label: 'Ahead of the device', path: [...path], value: part.fromBatteryM, unit: 'm' },
      ],
      source:
        'Up to its first device nothing opens on a fault of a battery lead; how long it may be is a planning limit.',
    }),
  });
}

/** How far from the battery the first device in a lead stands. */
export const wiringBatteryDevice: Check<'wiring.battery-device'> = checkOf({
  id: 'wiring.battery-device',
  title: 'Battery leads ahead of their first device',
  family: 'wiring',
  modes: 'once',
  sentences: {
    over: '{{subject}} stands {{value}} from the battery: nothing protects its lead up to there, and it may be {{limit}}.',
    tight: '{{subject}} stands {{value}} from the battery, and it may be {{limit}}.',
    within: '{{subject}}: {{value}} of lead at most ahead of it, and it may be {{limit}}.',
    unknown: '{{subject}}: how far from the battery it stands is not known. Missing: {{missing}}.',
  },
  run: (context) =>
    onNetwork(wiringBatteryDevice.id, context, ({ network }) =>
      troubleOrOne(
        context.installation.stacks.flatMap(({ stack }) =>
          firstOf(network, stack.id).map((part) => judged(context, network, part)),
        ),
        { ...WHOLE, label: 'Every battery device' },
      ),
    ),
});
