import type { CompiledArray, CompiledController } from '../installation.ts';
import type { Network } from '../network.ts';
import { layArray } from './arrays.ts';
import { layBattery } from './battery.ts';
import { layBoards, layInStep } from './boards.ts';
import { layEarthing } from './earthing.ts';
import { layEnableSwitches } from './enableSwitch.ts';
import { layGenerator } from './generators.ts';
import type { Given } from './given.ts';
import { layGridSide } from './gridSide.ts';
import { layInstruments } from './instruments.ts';
import { layControlSupplies } from './controlSupply.ts';
import { layBuses, layControls } from './links.ts';
import { layBuildingNetwork } from './buildingNetwork.ts';
import { Laying } from './laying.ts';
import { layOutputs } from './outputs.ts';
import { problemsOf } from './problems.ts';
import { GRID, layService } from './service.ts';

/** Lays the network of a whole site, source side first. Cost grows linearly with circuits, units and modules. */
export function layNetwork(
  given: Given,
  arrays: readonly CompiledArray[],
  controllers: readonly CompiledController[],
): Network {
  const laying = new Laying(given.design.wiring?.terminals);
  const service = layService(laying, given);
  const sets = given.stacks.map((compiled) => layOutputs(laying, given, compiled, service));
  const switches = new Map(sets.flatMap((set) => [...layGridSide(laying, given, set, service)]));
  for (const one of given.generators)
    layGenerator(laying, given, one, {
      service,
      set: sets.find(({ compiled }) => compiled.stack.id === one.generator.stackId),
      alternate: switches.get(one.generator.id),
    });
  layBoards(laying, given, service, sets);
  layInStep(laying, given, sets, GRID);
  for (const set of sets) layBattery(laying, given, set);
  for (const array of arrays) layArray(laying, given, array);
  layInstruments(laying, given, sets, controllers, service);
  layBuses(laying, sets);
  layControls(laying, given, arrays, controllers);
  layControlSupplies(laying, given);
  layEnableSwitches(laying, given);
  layBuildingNetwork(laying, given, controllers);
  layEarthing(laying, given, service);
  laying.problems.push(...problemsOf(laying));
  return laying.network();
}
