import { balanceLines } from './balanceLines.ts';
import { balanceNeutral } from './balanceNeutral.ts';
import { bankAddresses } from './bankAddresses.ts';
import { bankAutonomy } from './bankAutonomy.ts';
import { bankBarCurrent } from './bankBarCurrent.ts';
import { bankBreakerSurge } from './bankBreakerSurge.ts';
import { bankBusEnds } from './bankBusEnds.ts';
import { bankCharge } from './bankCharge.ts';
import { bankColdCharge } from './bankColdCharge.ts';
import { bankComms } from './bankComms.ts';
import { bankCurrentMinimum } from './bankCurrentMinimum.ts';
import { bankCurrentNominal } from './bankCurrentNominal.ts';
import { bankInverterLeads } from './bankInverterLeads.ts';
import { bankJoin } from './bankJoin.ts';
import { bankLeadCurrent } from './bankLeadCurrent.ts';
import { bankLoop } from './bankLoop.ts';
import { bankManagement } from './bankManagement.ts';
import { bankMixedTypes } from './bankMixedTypes.ts';
import { bankModuleCurrent } from './bankModuleCurrent.ts';
import { bankModuleSurge } from './bankModuleSurge.ts';
import { bankModules } from './bankModules.ts';
import { bankReserve } from './bankReserve.ts';
import { bankRule } from './bankRule.ts';
import { bankSag } from './bankSag.ts';
import { bankSeries } from './bankSeries.ts';
import { bankSharing } from './bankSharing.ts';
import { bankSurgeCurrent } from './bankSurgeCurrent.ts';
import { bankWindow } from './bankWindow.ts';
import { generatorLeastLoading } from './generatorLeastLoading.ts';
import { generatorLines } from './generatorLines.ts';
import { generatorLoading } from './generatorLoading.ts';
import { generatorPort } from './generatorPort.ts';
import { generatorPv } from './generatorPv.ts';
import { generatorStep } from './generatorStep.ts';
import { generatorWindow } from './generatorWindow.ts';
import { gridPassThrough } from './gridPassThrough.ts';
import { gridPort } from './gridPort.ts';
import { gridService } from './gridService.ts';
import { gridTransferDevice } from './gridTransferDevice.ts';
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
import { pvInputs } from './pvInputs.ts';
import { pvRapidShutdown } from './pvRapidShutdown.ts';
import { pvStorage } from './pvStorage.ts';
import { pvStringCurrent } from './pvStringCurrent.ts';
import { pvStringVoltage } from './pvStringVoltage.ts';
import { pvStringWindow } from './pvStringWindow.ts';
import { stackAcLeads } from './stackAcLeads.ts';
import { stackArrangement } from './stackArrangement.ts';
import { stackBatteryProfile } from './stackBatteryProfile.ts';
import { stackBusEnds } from './stackBusEnds.ts';
import { stackController } from './stackController.ts';
import { stackCount } from './stackCount.ts';
import { stackEqualLines } from './stackEqualLines.ts';
import { stackFirmware } from './stackFirmware.ts';
import { stackHost } from './stackHost.ts';
import { stackOutlet } from './stackOutlet.ts';
import { stackParallelBus } from './stackParallelBus.ts';
import { stackUnitShare } from './stackUnitShare.ts';
import { surgeChosen } from './surgeChosen.ts';
import { surgeColdPickup } from './surgeColdPickup.ts';
import { surgeLargestStart } from './surgeLargestStart.ts';
import { surgeStaggered } from './surgeStaggered.ts';
import { surgeStall } from './surgeStall.ts';
import type { Check } from './check.ts';

/** Every check, sorted by id. */
export const CHECKS: readonly Check[] = [
  balanceLines,
  balanceNeutral,
  bankAddresses,
  bankAutonomy,
  bankBarCurrent,
  bankBreakerSurge,
  bankBusEnds,
  bankCharge,
  bankColdCharge,
  bankComms,
  bankCurrentMinimum,
  bankCurrentNominal,
  bankInverterLeads,
  bankJoin,
  bankLeadCurrent,
  bankLoop,
  bankManagement,
  bankMixedTypes,
  bankModuleCurrent,
  bankModuleSurge,
  bankModules,
  bankReserve,
  bankRule,
  bankSag,
  bankSeries,
  bankSharing,
  bankSurgeCurrent,
  bankWindow,
  generatorLeastLoading,
  generatorLines,
  generatorLoading,
  generatorPort,
  generatorPv,
  generatorStep,
  generatorWindow,
  gridPassThrough,
  gridPort,
  gridService,
  gridTransferDevice,
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
  pvInputs,
  pvRapidShutdown,
  pvStorage,
  pvStringCurrent,
  pvStringVoltage,
  pvStringWindow,
  stackAcLeads,
  stackArrangement,
  stackBatteryProfile,
  stackBusEnds,
  stackController,
  stackCount,
  stackEqualLines,
  stackFirmware,
  stackHost,
  stackOutlet,
  stackParallelBus,
  stackUnitShare,
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
