import type { CompiledStack } from '../../installation/installation.ts';
import type { FedAlone, Network, Part } from '../../installation/network.ts';
import { typeOfUnit } from '../../figures/wiring/acCarried.ts';
import type { InverterType } from '../../catalogue/inverterType.ts';
import { type Check, type CheckContext, judge, NO_WORKING, unknownFinding, checkOf } from '../check.ts';
import type { Path } from '../../values/problem.ts';
import type { Found } from '../finding.ts';
import { devicesOf, isGuard } from '../support/devices.ts';
import { onNetwork, partOf, partSubject, troubleOrOne, WHOLE } from '../support/network.ts';

/** Which limit of a type a device at one of its ports is held against. */
interface PortLimit {
  readonly label: string;
  readonly key: 'gridPortA' | 'backupPortA';
  readonly limitA: number | undefined;
}

/** Of several outputs nobody says which one a device stands on: it is held against the largest, which it must not be above in any case. */
function limitOf(role: Part['role'], type: InverterType): PortLimit {
  if (role === 'unit-grid') return { label: 'grid port', key: 'gridPortA', limitA: type.gridPortA };
  const outputs = type.outputs?.map(({ limitA }) => limitA) ?? [];
  const limitA = outputs.length === 0 ? type.backupPortA : Math.max(...outputs);
  return { label: 'backup output', key: 'backupPortA', limitA };
}

function ofUnit(context: CheckContext, network: Network, part: Part, type: InverterType): Found<'what'>[] {
  if (!isGuard(part) || part.ratedA?.known !== true) return [];
  const subject = partSubject(network, part);
  const { label, key, limitA } = limitOf(part.role, type);
  if (limitA === undefined)
    return [unknownFinding(wiringPorts.id, context, subject, 'A', [['types', type.id, key]])];
  return [held(context, network, part, limitA, `the ${label} of the unit`, ['types', type.id, key])];
}

function held(
  context: CheckContext,
  network: Network,
  part: Part,
  limitA: number,
  what: string,
  path: Path,
): Found<'what'> {
  const ratedA = part.ratedA?.known === true ? part.ratedA.value : undefined;
  return judge(wiringPorts.id, context, {
    subject: partSubject(network, part),
    value: ratedA,
    limit: limitA,
    unit: 'A',
    graded: false,
    data: { what },
    working: () => ({
      ...NO_WORKING,
      inputs: [
        { label: 'Rating', path: [...part.from, 'ratedA'], value: ratedA, unit: 'A' },
        { label: 'Limit', path: [...path], value: limitA, unit: 'A' },
      ],
      source: 'A device protects what stands behind it only up to its own rating.',
    }),
  });
}

/** The main of the service against the transfer device that it feeds. */
function ofTransfer(context: CheckContext, network: Network, compiled: CompiledStack): Found<'what'>[] {
  const { transferDevice, stack } = compiled;
  const cabinet = partOf(network, `transfer ${stack.id}`);
  const [main] = devicesOf(network, 'service-main');
  if (cabinet === undefined || !transferDevice.known || transferDevice.value === 'none') return [];
  if (main?.ratedA?.known !== true) return [];
  const { ratedA, id } = transferDevice.value;
  return [held(context, network, main, ratedA, 'the transfer device behind it', ['types', id, 'ratedA'])];
}

const FED_WORDS: Readonly<Record<FedAlone['what'], string>> = {
  meter: 'its meter',
  controls: 'the controls of its transfer device',
};

/** The device ahead of the small cable of a meter or of controls against the largest one that the type allows. */
function ofFed(context: CheckContext, network: Network, part: Part): Found<'what'>[] {
  if (!isGuard(part) || part.ratedA?.known !== true) return [];
  const { fed } = part;
  if (fed === undefined) return [];
  const { mostDeviceA, mostDevicePath, what } = fed;
  return mostDeviceA === undefined
    ? [unknownFinding(wiringPorts.id, context, partSubject(network, part), 'A', [mostDevicePath])]
    : [held(context, network, part, mostDeviceA, FED_WORDS[what], mostDevicePath)];
}

/** Devices at the ports of units, and ahead of a transfer device, against what stands behind them. */
export const wiringPorts: Check<'wiring.ports'> = checkOf({
  id: 'wiring.ports',
  title: 'Devices protect the ports behind them',
  family: 'wiring',
  modes: 'once',
  sentences: {
    over: '{{subject}} is rated {{value}} and {{what}} {{limit}}: it does not protect it.',
    tight: '{{subject}} is rated {{value}} for {{what}} of {{limit}}.',
    within: '{{subject}}: each is rated at or below the port behind it.',
    unknown: '{{subject}}: what the port behind it bears is not known. Missing: {{missing}}.',
  },
  run: (context) =>
    onNetwork(wiringPorts.id, context, ({ network }) => {
      const ports = [...devicesOf(network, 'unit-output'), ...devicesOf(network, 'unit-grid')];
      const findings = context.installation.stacks.flatMap((compiled) => [
        ...ports
          .filter(({ stackId }) => stackId === compiled.stack.id)
          .flatMap((part): Found<'what'>[] => {
            if (!compiled.type.known) return [];
            const unit = compiled.stack.units.find(({ id }) => id === part.unitId);
            const type =
              unit === undefined ? compiled.type : typeOfUnit(context.installation, compiled, unit);
            return type.known
              ? ofUnit(context, network, part, type.value)
              : [unknownFinding(wiringPorts.id, context, partSubject(network, part), 'A', type.missing)];
          }),
        ...ofTransfer(context, network, compiled),
      ]);
      const alone = [...devicesOf(network, 'meter-device'), ...devicesOf(network, 'control-device')];
      return troubleOrOne([...findings, ...alone.flatMap((part) => ofFed(context, network, part))], {
        ...WHOLE,
        label: 'Every device of a stated rating at a port',
      });
    }),
});
