import type { Installation } from '../../installation/installation.ts';
import type { DeviceFigures, Part } from '../../installation/network.ts';
import { bankOfSet } from '../../figures/bank/ofSet.ts';
import { poleVoltageV, stringVoltageV } from '../../figures/wiring/deviceVoltage.ts';
import { known, type Known } from '../../values/known.ts';
import { type Check, judge, NO_WORKING, unknownFinding, checkOf } from '../check.ts';
import type { Found } from '../finding.ts';
import { formatQuantity } from '../../words/quantity.ts';
import { onNetwork, partSubject, troubleOrOne, WHOLE } from '../support/network.ts';

const isForDc = ({ device }: DeviceFigures): boolean =>
  device === 'dc-breaker' || device === 'dc-fuse' || device === 'dc-isolator';

const isDcPlace = ({ role }: Part): boolean =>
  role === 'battery-unit' || role === 'battery-group' || role === 'battery-module' || role === 'dc-switch';

/** The voltage a device must be able to open; undefined where there is none to open, as in a set without a bank. */
function voltageAt(
  installation: Installation,
  part: Part,
  { poles }: DeviceFigures,
): Known<number> | undefined {
  if (part.role === 'dc-switch') return stringVoltageV(installation, part);
  if (isDcPlace(part)) {
    const compiled = installation.stacks.find(({ stack }) => stack.id === part.stackId);
    const bank = compiled && bankOfSet(compiled);
    if (bank?.known !== true) return bank;
    return bank.value === 'none' ? undefined : known(bank.value.maxV);
  }
  return poleVoltageV(installation, poles);
}

/** Devices of a type in their places: of the right kind, and for the voltage there. What has no type is not asked for here. */
export const wiringDevice: Check<'wiring.device'> = checkOf({
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
        network.parts.flatMap((part): Found<'reason'>[] => {
          const { device } = part;
          if (device === undefined) return [];
          const name = part.typeName ?? 'its type';
          const subject = partSubject(network, part);
          if (isDcPlace(part) !== isForDc(device))
            return [
              judge(wiringDevice.id, context, {
                subject,
                value: 1,
                limit: 0,
                unit: '',
                graded: false,
                data: {
                  reason: isDcPlace(part)
                    ? `${name} is not rated for direct current and may never open it`
                    : `${name} is made for direct current and stands in an alternating line`,
                },
                working: () => ({ ...NO_WORKING, source: 'Kind of the device type.' }),
              }),
            ];
          const needV = voltageAt(context.installation, part, device);
          if (needV === undefined) return [];
          if (!needV.known) return [unknownFinding(wiringDevice.id, context, subject, 'V', needV.missing)];
          return [
            judge(wiringDevice.id, context, {
              subject,
              value: needV.value,
              limit: device.ratedV,
              unit: 'V',
              graded: false,
              data: {
                reason: `${name} is rated ${formatQuantity(device.ratedV, 'V')} and stands at ${formatQuantity(needV.value, 'V')}`,
              },
              working: () => ({
                ...NO_WORKING,
                source:
                  'Rated voltage of the device type; highest voltage of the bank, of the string in the cold, or the voltage between the lines it opens.',
              }),
            }),
          ];
        }),
        { ...WHOLE, label: 'Every device of a stated type' },
      ),
    ),
});
