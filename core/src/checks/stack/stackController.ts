import type { MeterType } from '../../catalogue/partTypes.ts';
import { all, field } from '../../values/known.ts';
import { type Check, judge, NO_WORKING, unknownFinding, checkOf } from '../check.ts';
import type { Found, Subject } from '../finding.ts';

/** Several AC-coupled sets under one controller: number of sets, the meters it needs, and an address of its own for each meter. */
export const stackController: Check<'stack.controller'> = checkOf({
  id: 'stack.controller',
  title: 'Site controller and its meters',
  family: 'stack',
  modes: 'once',
  sentences: {
    over: '{{subject}}: {{reason}}.',
    tight: '{{subject}}: {{reason}}.',
    within: '{{subject}} looks after {{sets}} with the meters it needs.',
    unknown: '{{subject}}: sets and meters cannot be judged yet. Missing: {{missing}}.',
  },
  run: (context) => {
    const { installation } = context;
    const stacks = installation.stacks.map(({ stack }) => stack);
    const led = new Set(installation.controllers.flatMap(({ controller }) => controller.stackIds));
    const loose = stacks.filter((stack) => stack.arrangement === 'ac-coupled-storage' && !led.has(stack.id));
    const unled =
      stacks.filter((stack) => stack.arrangement === 'ac-coupled-storage').length > 1 ? loose : [];
    const alone = unled.map((stack) =>
      judge(stackController.id, context, {
        subject: { kind: 'stack', id: stack.id, label: stack.name },
        value: 1,
        limit: 0,
        unit: '',
        graded: false,
        data: {
          reason:
            'one of several AC-coupled sets, and no controller looks after it: they would charge each other',
          sets: 'no set',
        },
        working: () => ({
          ...NO_WORKING,
          source: 'Sets that work on one grid connection need one that directs them.',
        }),
      }),
    );
    return [
      ...alone,
      ...installation.controllers.map(({ controller, type, meterTypes }): Found<'reason' | 'sets'> => {
        const subject: Subject = { kind: 'controller', id: controller.id, label: controller.name };
        const path = ['controllers', controller.id];
        const typeOf = (meter: { readonly id: string }): MeterType | undefined => {
          const found = meterTypes[meter.id];
          return found?.known === true ? found.value : undefined;
        };
        // A meter whose address is fixed by its type has none to be set.
        const settable = controller.meters.filter((meter) => typeOf(meter)?.addressRule !== 'fixed');
        const given = all({
          type,
          addresses: all(
            Object.fromEntries(
              settable.map((meter) => [
                meter.id,
                field(meter.address, ...path, 'meters', meter.id, 'address'),
              ]),
            ),
          ),
        });
        if (!given.known) return unknownFinding(stackController.id, context, subject, '', given.missing);
        const reasons: string[] = [];
        if (controller.stackIds.length > given.value.type.mostSets)
          reasons.push(`${controller.stackIds.length} sets, where ${given.value.type.mostSets} are allowed`);
        for (const role of given.value.type.meterRoles) {
          const count = controller.meters.filter((meter) => meter.role === role).length;
          const isNeeded = role !== 'generation' || installation.arrays.length > 0;
          if (count === 0 && isNeeded) reasons.push(`it needs a ${role} meter`);
          if (role === 'grid' && count > 1) reasons.push('it has more than one grid meter');
        }
        for (const meter of controller.meters) {
          const its = typeOf(meter);
          if (its === undefined) continue;
          if (!its.roles.includes(meter.role))
            reasons.push(`${its.name} is not made for the ${meter.role} side`);
          if (its.protocol !== given.value.type.meterProtocol)
            reasons.push(
              `${its.name} speaks ${its.protocol}, the controller ${given.value.type.meterProtocol}`,
            );
        }
        // Addresses need to differ only on the same port.
        const placed = settable.map(({ id, port = '' }) => ({ port, address: given.value.addresses[id] }));
        const twins = new Set(
          placed.flatMap(({ port, address }, at) =>
            placed.findIndex((other) => other.port === port && other.address === address) !== at
              ? [
                  `address ${String(address)} is set on more than one meter${port === '' ? '' : ` of port ${port}`}`,
                ]
              : [],
          ),
        );
        reasons.push(...twins);
        return judge(stackController.id, context, {
          subject,
          value: reasons.length,
          limit: 0,
          unit: '',
          graded: false,
          data: { reason: reasons.join('; '), sets: `${controller.stackIds.length} sets` },
          working: () => ({
            ...NO_WORKING,
            source: 'Meters the controller type needs, one address each on their bus.',
            notes: [
              ...reasons,
              given.value.type.commissioned === 'last'
                ? 'Commission the inverters first, the controller last.'
                : 'Commission the controller first.',
            ],
          }),
        });
      }),
    ];
  },
});
