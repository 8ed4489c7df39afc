import { analyse, type Analysis } from '../checks/analyse.ts';
import type { EquipmentType } from '../catalogue/schema.ts';
import type { Design } from '../design/schema.ts';
import { gateSteps } from './gates.ts';
import { islandStep } from './islandNoLoad.ts';
import { loadSteps } from './loadSteps.ts';
import { pickupSteps } from './pickup.ts';
import { returnStep } from './gridReturn.ts';
import type { Procedure } from './schema.ts';
import { startSteps } from './largestStart.ts';

/** The islanding test of an analysed design: gates first, then island without load, load steps, starts, grid return. */
export function generateProcedure(analysis: Analysis): Procedure {
  const { stacks } = analysis.installation;
  return {
    format: 1,
    steps: [
      ...gateSteps(analysis),
      ...stacks.flatMap((compiled) => [
        islandStep(analysis, compiled),
        ...loadSteps(analysis, compiled),
        ...startSteps(analysis, compiled),
        ...pickupSteps(analysis, compiled),
        returnStep(analysis, compiled),
      ]),
    ],
  };
}

/** The same, straight from a design. */
export function procedureFor(design: Design, catalogue: readonly EquipmentType[]): Procedure {
  return generateProcedure(analyse(design, catalogue));
}
