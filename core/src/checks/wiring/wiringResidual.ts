import type { InverterType } from '../../catalogue/inverterType.ts';
import type { ProtectiveDeviceType } from '../../catalogue/partTypes.ts';
import { typeOfUnit } from '../../figures/wiring/acCarried.ts';
import { guardedLines } from '../../figures/wiring/cableLines.ts';
import type { CompiledStack, Installation } from '../../installation/installation.ts';
import { type Check, type CheckContext, judge, NO_WORKING, unknownFinding, checkOf } from '../check.ts';
import type { Found, Subject } from '../finding.ts';
import { cableSubject } from '../support/cables.ts';
import { isResidual } from '../support/devices.ts';
import { onNetwork, partSubject, troubleOrOne, WHOLE } from '../support/network.ts';

/** What each type sees: A also pulsating direct current, F also mixed frequencies, B also smooth direct current. */
const ORDER = ['AC', 'A', 'F', 'B'] as const;
type ResidualType = NonNullable<ProtectiveDeviceType['residualType']>;

/** The types of all units of a set, as far as they are stated: a fault behind it may come from any of them. */
function typesOfSet(installation: Installation, set: CompiledStack): readonly InverterType[] {
  const all = [
    set.type,
    ...set.stack.units
      .filter(({ inverterTypeId }) => inverterTypeId !== undefined)
      .map((unit) => typeOfUnit(installation, set, unit)),
  ].flatMap((type) => (type.known ? [type.value] : []));
  return [...new Map(all.map((type) => [type.id, type])).values()];
}

function judgeType(
  context: CheckContext,
  subject: Subject,
  given: { readonly typeId: string; readonly has: ResidualType | undefined; readonly set: CompiledStack },
): Found<'has' | 'wants'>[] {
  const { typeId, has, set } = given;
  const types = typesOfSet(context.installation, set);
  if (types.length === 0) return [];
  const unstated = types.filter(({ residualDevice }) => residualDevice === undefined);
  const wants = ORDER.findLast((one) => types.some(({ residualDevice }) => residualDevice === one));
  // One unit that wants more than the device has is enough to say so, whatever the others want.
  const isOver = has !== undefined && wants !== undefined && ORDER.indexOf(has) < ORDER.indexOf(wants);
  if (has === undefined || wants === undefined || (unstated.length > 0 && !isOver))
    return [
      unknownFinding(wiringResidual.id, context, subject, '', [
        ...(has === undefined ? [['types', typeId, 'residualType']] : []),
        ...unstated.map(({ id }) => ['types', id, 'residualDevice']),
      ]),
    ];
  return [
    judge(wiringResidual.id, context, {
      subject,
      value: ORDER.indexOf(has) + 1,
      limit: ORDER.indexOf(wants) + 1,
      unit: '',
      bound: 'at-least',
      graded: false,
      data: { has, wants },
      working: () => ({
        ...NO_WORKING,
        source: `The inverter type wants a residual-current device of type ${wants}: AC sees alternating current alone, A also pulsating direct current, F also mixed frequencies, B also smooth direct current.`,
      }),
    }),
  ];
}

/** Type of every residual-current device behind or ahead of a set against the one that its inverter type wants. */
export const wiringResidual: Check<'wiring.residual'> = checkOf({
  id: 'wiring.residual',
  title: 'Types of residual-current devices',
  family: 'wiring',
  modes: 'once',
  sentences: {
    over: '{{subject}}: its residual-current device is of type {{has}} and the inverter wants type {{wants}}: it may not see the fault.',
    tight: '{{subject}}: type {{has}} for type {{wants}}.',
    within: '{{subject}} is of the type that the inverter wants.',
    unknown:
      '{{subject}}: whether its residual-current device sees every fault is not known. Missing: {{missing}}.',
  },
  run: (context) =>
    onNetwork(wiringResidual.id, context, ({ network }) => {
      const { installation } = context;
      const setOf = (stackId: string | undefined): CompiledStack | undefined =>
        installation.stacks.find(({ stack }) => stack.id === stackId);
      const partitions = new Map(installation.partitions.map((one) => [one.id, one]));
      const lines = guardedLines(installation);
      const ofCircuits = (lines.known ? lines.value : []).flatMap((line): Found<'has' | 'wants'>[] => {
        const typeId = line.circuit?.device?.typeId;
        const type = typeId === undefined ? undefined : installation.circuitDeviceTypes[typeId];
        const partition = partitions.get(line.circuit?.partitionId ?? '');
        const set = partition?.kind === 'grid' ? undefined : setOf(partition?.stackId);
        if (type === undefined || set === undefined || !isResidual(type)) return [];
        return judgeType(context, cableSubject(installation, line), {
          typeId: type.id,
          has: type.residualType,
          set,
        });
      });
      const ofParts = network.parts.flatMap((part): Found<'has' | 'wants'>[] => {
        const set = setOf(part.stackId ?? partitions.get(part.partitionId ?? '')?.stackId);
        if (part.device === undefined || set === undefined || !isResidual(part.device)) return [];
        return judgeType(context, partSubject(network, part), {
          typeId: part.deviceTypeId ?? '',
          has: part.device.residualType,
          set,
        });
      });
      return troubleOrOne([...ofCircuits, ...ofParts], {
        ...WHOLE,
        label: 'Every residual-current device at the inverters',
      });
    }),
});
