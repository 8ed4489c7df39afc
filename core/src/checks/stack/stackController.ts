import { all, field } from '../../values/known.ts';
import { type Check, judge, NO_WORKING, unknownFinding } from '../check.ts';
import type { Finding, Subject } from '../finding.ts';

/** Several AC-coupled sets under one controller: number of sets, the meters it needs, and an address of its own for each meter. */
export const stackController: Check<'stack.controller'> = {
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
        },
        working: () => ({
          ...NO_WORKING,
          source: 'Sets that work on one grid connection need one that directs them.',
        }),
      }),
    );
    return [
      ...alone,
      ...installation.controllers.map(({ controller, type }): Finding => {
        const subject: Subject = { kind: 'controller', id: controller.id, label: controller.name };
        const path = ['controllers', controller.id];
        const given = all({
          type,
          addresses: all(
            Object.fromEntries(
              controller.meters.map((meter) => [
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
        const addresses = Object.values(given.value.addresses);
        const twins = [...new Set(addresses.filter((one, at) => addresses.indexOf(one) !== at))];
        if (twins.length > 0) reasons.push(`address ${twins.join(', ')} is set on more than one meter`);
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
};
