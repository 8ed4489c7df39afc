import type { Analysis } from '../checks/analyse.ts';
import type { CompiledStack } from '../installation/installation.ts';
import { fedLinesOf } from './darkLines.ts';
import type { ProcedureStep } from './schema.ts';
import { confirmation, voltageSpec } from './specs.ts';

/** The loss of a unit, where the job says that it must be survived: what remains has to carry on. */
export function unitLossStep(analysis: Analysis, compiled: CompiledStack): ProcedureStep[] {
  const { installation } = analysis;
  const { stack, type } = compiled;
  if (installation.site.surviveUnitLoss !== 'yes' || stack.units.length < 2) return [];
  const stops = type.known && type.value.lostUnit === 'set-stops';
  return [
    {
      id: `loss-${stack.id}`,
      section: 'endurance',
      title: `${stack.name}: loss of a unit`,
      instructions: [
        'In island on the loads that must be carried: switch one unit off by its own switch, the one that leads last of all. A fuse is no switch.',
        stops
          ? 'The type stops the whole set when a unit is lost: expect the boards to go dark, and see that everything comes back once it is on again.'
          : 'The rest goes on. Switch it on again and see that it joins by itself, then take the next.',
      ],
      cautions: ['A load that depends on its supply stays on another one during this step.'],
      readings: [
        ...fedLinesOf(analysis, compiled).map((line) => voltageSpec(installation, line)),
        ...stack.units.map(({ id }, index) =>
          confirmation(
            `lost-${id}`,
            stops
              ? `Unit ${index + 1} lost: the set stopped and came back`
              : `Unit ${index + 1} lost: the others carried on`,
          ),
        ),
      ],
      abortText: 'Switch it on again if a line leaves its band or a unit reports an overload.',
    },
  ];
}
