import { analyse, type Analysis } from '../checks/analyse.ts';
import type { EquipmentType } from '../catalogue/schema.ts';
import type { Design } from '../design/schema.ts';
import { feedsNothing } from '../figures/capability/capability.ts';
import type { CompiledStack } from '../installation/installation.ts';
import { analysisCauses } from '../checks/causes.ts';
import { verdictOf } from '../checks/verdict.ts';
import { acceptedLines } from './acceptedLines.ts';
import { darkStep } from './darkLines.ts';
import { equipmentLines } from './equipment.ts';
import { gateSteps } from './gates.ts';
import { islandStep } from './islandNoLoad.ts';
import { liveSteps } from './liveOnGrid.ts';
import { bondStep, generatorSteps, heldBackSteps, lastSteps, shedSteps } from './moreIsland.ts';
import { controllerSteps } from './controllers.ts';
import { powerUpSteps } from './powerUp.ts';
import { loadSteps } from './loadSteps.ts';
import { pickupSteps } from './pickup.ts';
import { returnStep } from './gridReturn.ts';
import { imbalanceSteps } from './imbalance.ts';
import { leftOutSteps } from './leftOut.ts';
import type { Procedure, ProcedureStep } from './schema.ts';
import { noIslandStep } from './noIsland.ts';
import { withMessages } from './typeMessages.ts';
import { startSteps } from './largestStart.ts';

const makesIsland = ({ stack, type }: CompiledStack): boolean =>
  stack.arrangement === undefined || !type.known || !feedsNothing(stack.arrangement, type.value);

/** Every step that this design asks for, in the order of the work. */
function stepsOf(analysis: Analysis): ProcedureStep[] {
  const { stacks } = analysis.installation;
  return [
    ...gateSteps(analysis),
    ...controllerSteps(analysis, 'first'),
    ...stacks.flatMap((compiled) => powerUpSteps(analysis, compiled)),
    ...controllerSteps(analysis, 'last'),
    ...liveSteps(analysis),
    ...stacks.flatMap((compiled) =>
      makesIsland(compiled)
        ? [
            islandStep(analysis, compiled),
            // Once for the whole installation, as soon as there is an island to prove it in, and before anything is loaded.
            ...(compiled === stacks.find(makesIsland) ? bondStep(analysis) : []),
            ...darkStep(analysis, compiled),
            ...heldBackSteps(analysis, compiled),
            ...loadSteps(analysis, compiled),
            ...imbalanceSteps(analysis, compiled),
            ...shedSteps(analysis, compiled),
            ...startSteps(analysis, compiled),
            ...pickupSteps(analysis, compiled),
            ...generatorSteps(analysis, compiled),
            ...(analysis.installation.site.grid === 'none' ? [] : [returnStep(analysis, compiled)]),
            ...lastSteps(analysis, compiled),
          ]
        : [noIslandStep(compiled)],
    ),
  ];
}

/** The islanding test of an analysed design: gates first, then island without load, load steps, starts, grid return. */
export function generateProcedure(analysis: Analysis): Procedure {
  const steps = withMessages(stepsOf(analysis), analysis.installation.stacks);
  return {
    format: 1,
    verdict: verdictOf(analysis.installation, analysisCauses(analysis)),
    accepted: acceptedLines(analysis),
    equipment: equipmentLines(analysis.installation),
    leftOut: leftOutSteps(analysis.installation, steps),
    steps,
  };
}

/** The same, straight from a design. */
export function procedureFor(design: Design, catalogue: readonly EquipmentType[]): Procedure {
  return generateProcedure(analyse(design, catalogue));
}
