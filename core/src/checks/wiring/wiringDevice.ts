import type { Installation } from '../../installation/installation.ts';
import type { DeviceFigures, Part } from '../../installation/network.ts';
import { bankOfSet } from '../../figures/bank/ofSet.ts';
import { type Check, judge, NO_WORKING } from '../check.ts';
import type { Finding } from '../finding.ts';
import { formatQuantity } from '../../words/quantity.ts';
import { onNetwork, refsOf, troubleOrOne, WHOLE } from '../support/network.ts';

const isForDc = ({ device }: DeviceFigures): boolean => device === 'dc-breaker' || device === 'dc-fuse';

const isDcPlace = ({ role }: Part): boolean =>
  role === 'battery-unit' || role === 'battery-group' || role === 'battery-module' || role === 'dc-switch';

/** The voltage a device must be able to open; undefined while that is not known. */
function voltageAt(installation: Installation, part: Part, { poles }: DeviceFigures): number | undefined {
  if (isDcPlace(part)) {
    const compiled = installation.stacks.find(({ stack }) => stack.id === part.stackId);
    const bank = compiled && bankOfSet(compiled);
    return bank?.known === true && bank.value !== 'none' ? bank.value.maxV : undefined;
  }
  const { lineVoltageV, supply } = installation;
  if (!lineVoltageV.known || !supply.known) return undefined;
  const lines = supply.value.lines.length;
  if (poles === 1 || lines === 1) return lineVoltageV.value;
  return lineVoltageV.value * (lines === 2 ? 2 : Math.sqrt(3));
}

/** Devices of a type in their places: of the right kind, and for the voltage there. What has no type is not asked for here. */
export const wiringDevice: Check<'wiring.device'> = {
  id: 'wiring.device',
  title: 'Devices fit their places',
  family: 'wiring',
  modes: 'once',
  sentences: {
    over: '{{subject}}: {{reason}}.',
    tight: '{{subject}} is rated {{limit}} for {{value}}.',
    within: '{{subject}} fits its place.',
    unknown: '{{subject}}: whether it fits is not known. Missing: {{missing}}.',
  },
  run: (context) =>
    onNetwork(wiringDevice.id, context, ({ network }) =>
      troubleOrOne(
        network.parts.flatMap((part): Finding[] => {
          const { device } = part;
          if (device === undefined) return [];
          const needV = voltageAt(context.installation, part, device);
          const isWrongKind = isDcPlace(part) !== isForDc(device);
          if (needV === undefined && !isWrongKind) return [];
          const reason = isWrongKind
            ? isDcPlace(part)
              ? `${part.typeName ?? 'its type'} is not rated for direct current and may never open it`
              : `${part.typeName ?? 'its type'} is made for direct current and stands in an alternating line`
            : `${part.typeName ?? 'its type'} is rated ${formatQuantity(device.ratedV, 'V')} and stands at ${formatQuantity(needV ?? 0, 'V')}`;
          return [
            judge(wiringDevice.id, context, {
              subject: {
                kind: 'part',
                id: part.id,
                label: part.label.charAt(0).toUpperCase() + part.label.slice(1),
                about: refsOf(network, [part.id]),
              },
              value: needV ?? 0,
              limit: isWrongKind ? -1 : device.ratedV,
              unit: 'V',
              graded: false,
              data: { reason },
              working: () => ({
                ...NO_WORKING,
                source:
                  'Kind and rated voltage of the device type; highest voltage of the bank, or the voltage between the lines it opens.',
              }),
            }),
          ];
        }),
        { ...WHOLE, label: 'Every device of a stated type' },
      ),
    ),
};
