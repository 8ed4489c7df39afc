import type { Analysis } from '../checks/analyse.ts';
import { counted } from '../words/quantity.ts';
import type { ProcedureStep } from './schema.ts';
import { confirmation } from './specs.ts';

/** Controllers over several sets: before or after the inverters, as their type says. */
export function controllerSteps({ installation }: Analysis, when: 'first' | 'last'): ProcedureStep[] {
  return installation.controllers.flatMap(({ controller, type }): ProcedureStep[] => {
    const own = type.known ? type.value.commissioned : 'last';
    if (own !== when) return [];
    return [
      {
        id: `controller-${controller.id}`,
        section: 'power-up',
        title: `${controller.name}: commission the controller`,
        instructions: [
          when === 'last'
            ? 'The controller comes last: it looks for its sets and meters once.'
            : 'The controller comes first: the sets ask it for their place.',
          `It has to find ${counted(controller.stackIds.length, 'set')} and ${counted(controller.meters.length, 'meter')}.`,
        ],
        cautions: [],
        readings: [
          {
            id: 'sets-found',
            label: 'Sets found',
            unit: '',
            kind: 'number',
            instrument: 'display of the controller',
            nominal: controller.stackIds.length,
            expected: { low: controller.stackIds.length, high: controller.stackIds.length },
            missing: [],
          },
          ...controller.meters.map(({ id, role, address }) =>
            confirmation(
              `meter-${id}`,
              `${role} meter answers${address === undefined ? '' : ` on address ${address}`}`,
            ),
          ),
        ],
      },
    ];
  });
}
