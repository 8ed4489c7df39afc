import { balanceLines } from './balance/balanceLines.ts';
import { balanceNeutral } from './balance/balanceNeutral.ts';
import { bankAddresses } from './bank/bankAddresses.ts';
import { bankAutonomy } from './bank/bankAutonomy.ts';
import { bankBarCurrent } from './bank/bankBarCurrent.ts';
import { bankBarPlaces } from './bank/bankBarPlaces.ts';
import { bankBreakerSurge } from './bank/bankBreakerSurge.ts';
import { bankBusEnds } from './bank/bankBusEnds.ts';
import { bankCharge } from './bank/bankCharge.ts';
import { bankColdCharge } from './bank/bankColdCharge.ts';
import { bankComms } from './bank/bankComms.ts';
import { bankConductors } from './bank/bankConductors.ts';
import { bankCurrentMinimum } from './bank/bankCurrentMinimum.ts';
import { bankCurrentNominal } from './bank/bankCurrentNominal.ts';
import { bankDeliverable } from './bank/bankDeliverable.ts';
import { bankInverterLeads } from './bank/bankInverterLeads.ts';
import { bankInverterSurge } from './bank/bankInverterSurge.ts';
import { bankJoin } from './bank/bankJoin.ts';
import { bankLeadCurrent } from './bank/bankLeadCurrent.ts';
import { bankLoop } from './bank/bankLoop.ts';
import { bankManagement } from './bank/bankManagement.ts';
import { bankMixedTypes } from './bank/bankMixedTypes.ts';
import { bankModuleCharge } from './bank/bankModuleCharge.ts';
import { bankModuleCurrent } from './bank/bankModuleCurrent.ts';
import { bankModuleSurge } from './bank/bankModuleSurge.ts';
import { bankModules } from './bank/bankModules.ts';
import { bankReserve } from './bank/bankReserve.ts';
import { bankRule } from './bank/bankRule.ts';
import { bankSag } from './bank/bankSag.ts';
import { bankSeries } from './bank/bankSeries.ts';
import { bankSharing } from './bank/bankSharing.ts';
import { bankSurgeCurrent } from './bank/bankSurgeCurrent.ts';
import { bankWindow } from './bank/bankWindow.ts';
import { bondingBackFeed } from './bonding/bondingBackFeed.ts';
import { bondingEarthPoint } from './bonding/bondingEarthPoint.ts';
import { bondingElectrode } from './bonding/bondingElectrode.ts';
import { bondingGenerator } from './bonding/bondingGenerator.ts';
import { bondingInterlock } from './bonding/bondingInterlock.ts';
import { bondingJoinedSources } from './bonding/bondingJoinedSources.ts';
import { bondingLiveBoards } from './bonding/bondingLiveBoards.ts';
import { bondingNeutralEarth } from './bonding/bondingNeutralEarth.ts';
import { generatorDip } from './generator/generatorDip.ts';
import { generatorLeastLoading } from './generator/generatorLeastLoading.ts';
import { generatorLines } from './generator/generatorLines.ts';
import { generatorLoading } from './generator/generatorLoading.ts';
import { generatorPort } from './generator/generatorPort.ts';
import { generatorPv } from './generator/generatorPv.ts';
import { generatorStep } from './generator/generatorStep.ts';
import { generatorWindow } from './generator/generatorWindow.ts';
import { gridControlSupply } from './grid/gridControlSupply.ts';
import { gridPassThrough } from './grid/gridPassThrough.ts';
import { gridPort } from './grid/gridPort.ts';
import { gridService } from './grid/gridService.ts';
import { gridTransferControl } from './grid/gridTransferControl.ts';
import { gridTransferDevice } from './grid/gridTransferDevice.ts';
import { loadAssigned } from './load/loadAssigned.ts';
import { loadContinuous } from './load/loadContinuous.ts';
import { loadDarkLine } from './load/loadDarkLine.ts';
import { loadInterruption } from './load/loadInterruption.ts';
import { loadMustRun } from './load/loadMustRun.ts';
import { loadOutput } from './load/loadOutput.ts';
import { loadPower } from './load/loadPower.ts';
import { loadRehearsed } from './load/loadRehearsed.ts';
import { loadShedLevels } from './load/loadShedLevels.ts';
import { loadTotal } from './load/loadTotal.ts';
import { placeClearance } from './place/placeClearance.ts';
import { placeDelivery } from './place/placeDelivery.ts';
import { placeExposure } from './place/placeExposure.ts';
import { placeFixing } from './place/placeFixing.ts';
import { placeFront } from './place/placeFront.ts';
import { placeHeight } from './place/placeHeight.ts';
import { placeLoad } from './place/placeLoad.ts';
import { placeOverlap } from './place/placeOverlap.ts';
import { placeTilt } from './place/placeTilt.ts';
import { pvAcCoupled } from './pv/pvAcCoupled.ts';
import { pvInputs } from './pv/pvInputs.ts';
import { pvRapidShutdown } from './pv/pvRapidShutdown.ts';
import { pvStorage } from './pv/pvStorage.ts';
import { pvStringCurrent } from './pv/pvStringCurrent.ts';
import { pvStringVoltage } from './pv/pvStringVoltage.ts';
import { pvStringWindow } from './pv/pvStringWindow.ts';
import { stackAcLeads } from './stack/stackAcLeads.ts';
import { stackArrangement } from './stack/stackArrangement.ts';
import { stackBatteryProfile } from './stack/stackBatteryProfile.ts';
import { stackBusEnds } from './stack/stackBusEnds.ts';
import { stackController } from './stack/stackController.ts';
import { stackCount } from './stack/stackCount.ts';
import { stackEnable } from './stack/stackEnable.ts';
import { stackEqualLines } from './stack/stackEqualLines.ts';
import { stackFirmware } from './stack/stackFirmware.ts';
import { stackHost } from './stack/stackHost.ts';
import { stackInstruments } from './stack/stackInstruments.ts';
import { stackOutlet } from './stack/stackOutlet.ts';
import { stackParallelBus } from './stack/stackParallelBus.ts';
import { stackSettings } from './stack/stackSettings.ts';
import { stackUnitLoss } from './stack/stackUnitLoss.ts';
import { stackUnitShare } from './stack/stackUnitShare.ts';
import { stackUnitTypes } from './stack/stackUnitTypes.ts';
import { surgeChosen } from './surge/surgeChosen.ts';
import { surgeColdPickup } from './surge/surgeColdPickup.ts';
import { surgeLargestStart } from './surge/surgeLargestStart.ts';
import { surgeOutput } from './surge/surgeOutput.ts';
import { surgeStaggered } from './surge/surgeStaggered.ts';
import { surgeStall } from './surge/surgeStall.ts';
import { wiringBatteryDevice } from './wiring/wiringBatteryDevice.ts';
import { wiringBatteryLead } from './wiring/wiringBatteryLead.ts';
import { wiringBreaking } from './wiring/wiringBreaking.ts';
import { wiringBusCable } from './wiring/wiringBusCable.ts';
import { wiringBusPairs } from './wiring/wiringBusPairs.ts';
import { wiringBusShape } from './wiring/wiringBusShape.ts';
import { wiringConductor } from './wiring/wiringConductor.ts';
import { wiringDevice } from './wiring/wiringDevice.ts';
import { wiringDrop } from './wiring/wiringDrop.ts';
import { wiringEarthing } from './wiring/wiringEarthing.ts';
import { wiringFill } from './wiring/wiringFill.ts';
import { wiringIsolation } from './wiring/wiringIsolation.ts';
import { wiringLeakage } from './wiring/wiringLeakage.ts';
import { wiringNetwork } from './wiring/wiringNetwork.ts';
import { wiringOrder } from './wiring/wiringOrder.ts';
import { wiringPorts } from './wiring/wiringPorts.ts';
import { wiringProtection } from './wiring/wiringProtection.ts';
import { wiringRating } from './wiring/wiringRating.ts';
import { wiringResidual } from './wiring/wiringResidual.ts';
import { wiringSplices } from './wiring/wiringSplices.ts';
import { wiringTerminals } from './wiring/wiringTerminals.ts';
import type { Check } from './check.ts';
import type { Finding } from './finding.ts';

/** Every check, sorted by id. */
export const CHECKS = [
  balanceLines,
  balanceNeutral,
  bankAddresses,
  bankAutonomy,
  bankBarCurrent,
  bankBarPlaces,
  bankBreakerSurge,
  bankBusEnds,
  bankCharge,
  bankColdCharge,
  bankComms,
  bankConductors,
  bankCurrentMinimum,
  bankCurrentNominal,
  bankDeliverable,
  bankInverterLeads,
  bankInverterSurge,
  bankJoin,
  bankLeadCurrent,
  bankLoop,
  bankManagement,
  bankMixedTypes,
  bankModuleCharge,
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
  bondingBackFeed,
  bondingEarthPoint,
  bondingElectrode,
  bondingGenerator,
  bondingInterlock,
  bondingJoinedSources,
  bondingLiveBoards,
  bondingNeutralEarth,
  generatorDip,
  generatorLeastLoading,
  generatorLines,
  generatorLoading,
  generatorPort,
  generatorPv,
  generatorStep,
  generatorWindow,
  gridControlSupply,
  gridPassThrough,
  gridPort,
  gridService,
  gridTransferControl,
  gridTransferDevice,
  loadAssigned,
  loadContinuous,
  loadDarkLine,
  loadInterruption,
  loadMustRun,
  loadOutput,
  loadPower,
  loadRehearsed,
  loadShedLevels,
  loadTotal,
  placeClearance,
  placeDelivery,
  placeExposure,
  placeFixing,
  placeFront,
  placeHeight,
  placeLoad,
  placeOverlap,
  placeTilt,
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
  stackEnable,
  stackEqualLines,
  stackFirmware,
  stackHost,
  stackInstruments,
  stackOutlet,
  stackParallelBus,
  stackSettings,
  stackUnitLoss,
  stackUnitShare,
  stackUnitTypes,
  surgeChosen,
  surgeColdPickup,
  surgeLargestStart,
  surgeOutput,
  surgeStaggered,
  surgeStall,
  wiringBatteryDevice,
  wiringBatteryLead,
  wiringBreaking,
  wiringBusCable,
  wiringBusPairs,
  wiringBusShape,
  wiringConductor,
  wiringDevice,
  wiringDrop,
  wiringEarthing,
  wiringFill,
  wiringIsolation,
  wiringLeakage,
  wiringNetwork,
  wiringOrder,
  wiringPorts,
  wiringProtection,
  wiringRating,
  wiringResidual,
  wiringSplices,
  wiringTerminals,
] as const satisfies readonly Check[];

/** The id of a check that there is. Whoever names one that is gone does not compile. */
export type CheckId = (typeof CHECKS)[number]['id'];

/** A finding of one of these checks. */
export type RegisteredFinding = Finding<CheckId>;

const BY_ID: ReadonlyMap<string, Check<CheckId>> = new Map(CHECKS.map((check) => [check.id, check]));

/** The check of an id. */
export function checkById(id: CheckId): Check<CheckId> {
  const check = BY_ID.get(id);
  if (check === undefined) throw new Error(`No check is registered as "${id}".`);
  return check;
}

/** Whether a finding is of a check that is registered, under the id it was found by. */
export const isRegistered = (finding: Finding): finding is RegisteredFinding => BY_ID.has(finding.check);
