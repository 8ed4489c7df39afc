import { balanceLines } from './balanceLines.ts';
import { balanceNeutral } from './balanceNeutral.ts';
import { bankAutonomy } from './bankAutonomy.ts';
import { bankCharge } from './bankCharge.ts';
import { bankColdCharge } from './bankColdCharge.ts';
import { bankCurrentMinimum } from './bankCurrentMinimum.ts';
import { bankCurrentNominal } from './bankCurrentNominal.ts';
import { bankModules } from './bankModules.ts';
import { bankReserve } from './bankReserve.ts';
import { bankSurgeCurrent } from './bankSurgeCurrent.ts';
import { bankInverterLeads } from './bankInverterLeads.ts';
import { bankJoin } from './bankJoin.ts';
import { bankMixedTypes } from './bankMixedTypes.ts';
import { bankModuleCurrent } from './bankModuleCurrent.ts';
import { bankModuleSurge } from './bankModuleSurge.ts';
import { bankSag } from './bankSag.ts';
import { bankSharing } from './bankSharing.ts';
import { bankWindow } from './bankWindow.ts';
import type { Check } from './check.ts';
import { generatorLeastLoading } from './generatorLeastLoading.ts';
import { generatorLoading } from './generatorLoading.ts';
import { generatorPort } from './generatorPort.ts';
import { generatorStep } from './generatorStep.ts';
import { gridPassThrough } from './gridPassThrough.ts';
import { gridPort } from './gridPort.ts';
import { gridService } from './gridService.ts';
import { loadAssigned } from './loadAssigned.ts';
import { loadContinuous } from './loadContinuous.ts';
import { loadInterruption } from './loadInterruption.ts';
import { loadOutput } from './loadOutput.ts';
import { loadPower } from './loadPower.ts';
import { loadTotal } from './loadTotal.ts';
import { placeClearance } from './placeClearance.ts';
import { placeExposure } from './placeExposure.ts';
import { placeFixing } from './placeFixing.ts';
import { placeHeight } from './placeHeight.ts';
import { placeLoad } from './placeLoad.ts';
import { placeOverlap } from './placeOverlap.ts';
import { pvAcCoupled } from './pvAcCoupled.ts';
import { stackArrangement } from './stackArrangement.ts';
import { stackCount } from './stackCount.ts';
import { stackEqualLines } from './stackEqualLines.ts';
import { stackFirmware } from './stackFirmware.ts';
import { surgeChosen } from './surgeChosen.ts';
import { surgeColdPickup } from './surgeColdPickup.ts';
import { surgeLargestStart } from './surgeLargestStart.ts';
import { surgeStaggered } from './surgeStaggered.ts';
import { surgeStall } from './surgeStall.ts';

/** Every check, sorted by id. */
export const CHECKS: readonly Check[] = [
  balanceLines,
  balanceNeutral,
  bankAutonomy,
  bankCharge,
  bankColdCharge,
  bankCurrentMinimum,
  bankCurrentNominal,
  bankInverterLeads,
  bankJoin,
  bankMixedTypes,
  bankModuleCurrent,
  bankModuleSurge,
  bankModules,
  bankReserve,
  bankSag,
  bankSharing,
  bankSurgeCurrent,
  bankWindow,
  generatorLeastLoading,
  generatorLoading,
  generatorPort,
  generatorStep,
  gridPassThrough,
  gridPort,
  gridService,
  loadAssigned,
  loadContinuous,
  loadInterruption,
  loadOutput,
  loadPower,
  loadTotal,
  placeClearance,
  placeExposure,
  placeFixing,
  placeHeight,
  placeLoad,
  placeOverlap,
  pvAcCoupled,
  stackArrangement,
  stackCount,
  stackEqualLines,
  stackFirmware,
  surgeChosen,
  surgeColdPickup,
  surgeLargestStart,
  surgeStaggered,
  surgeStall,
];

const BY_ID = new Map(CHECKS.map((check) => [check.id, check]));

/** The check of an id. An id that is not in the registry is a mistake of ours. */
export function checkById(id: string): Check {
  const check = BY_ID.get(id);
  if (check === undefined) throw new Error(`No check is registered as "${id}".`);
  return check;
}
