import type { CheckId } from '../../checks/registry.ts';
import {
  boardsOntoGrid,
  fewerStrings,
  freeInputs,
  largerBars,
  nearerDevice,
  noEnableSwitch,
  offWithGenerator,
  oneBatteryType,
  oneEarthPoint,
  oneProfile,
  otherArrangements,
  ontoLitLine,
  otherService,
  rapidShutdown,
} from './choices.ts';
import { fittingPassages, fittingSplice } from './fittings.ts';
import { joinedAsTaken, landedAgain, oneLine, suppliedCable } from './links.ts';
import { arrangedWall } from './arrangeWall.ts';
import {
  evenSharing,
  fewerModules,
  gentlerCharging,
  higherReserve,
  moreModules,
  otherBatteries,
  otherDevices,
  thickerLeads,
} from './bankSide.ts';
import { fittingDevices, fittingSizes, thickerEarths, thinnerSizes } from './cables.ts';
import type { Candidate, Trouble } from './candidate.ts';
import { isolators, otherDeviceTypes, smallerDevices } from './devices.ts';
import { leaveOff, loadSide, moreUnits, ontoBackup, otherInverters, routerOntoBackup } from './loadSide.ts';
import {
  batteryBus,
  equalAcLeads,
  equalBatteryLeads,
  fittingSettings,
  fullDischarge,
  lessCharging,
  parallelBus,
  sameFirmware,
  unitSettings,
} from './settings.ts';
import { orderedLevels, shedStage } from './shedStage.ts';
import { bondings, elsewhere } from './site.ts';
import {
  aheadOfGridPort,
  generatorsOfAllLines,
  generatorCharging,
  otherGenerators,
  otherTransferDevices,
  pvOntoGrid,
  shorterStrings,
} from './sources.ts';

type Finder = (trouble: Trouble) => readonly Candidate[];

const strongerBank: Finder = (trouble) => [
  ...fullDischarge(trouble),
  ...leaveOff(trouble),
  ...moreModules(trouble),
  ...otherBatteries(trouble),
];
const bankConductors: Finder = (trouble) => [
  ...thickerLeads(trouble, ['inverterLead', 'lead', 'groupLead']),
  ...leaveOff(trouble),
];

/** Where a mend of a check may be found; a check that is not here is for whoever stands on site, or for the customer. */
const FINDERS: Readonly<Partial<Record<CheckId, Finder>>> = {
  'balance.lines': loadSide,
  'balance.neutral': loadSide,
  'bank.addresses': batteryBus,
  'bank.autonomy': (trouble) => [
    ...higherReserve(trouble),
    ...shedStage(trouble),
    ...leaveOff(trouble),
    ...moreModules(trouble),
    ...otherBatteries(trouble),
  ],
  'bank.bar-current': leaveOff,
  'bank.bar-places': largerBars,
  'bank.breaker-surge': otherDevices,
  'bank.bus-ends': batteryBus,
  'bank.charge': gentlerCharging,
  'bank.comms': batteryBus,
  'bank.conductors': bankConductors,
  'bank.current-minimum': (trouble) => [
    ...otherDevices(trouble),
    ...strongerBank(trouble),
    ...moreUnits(trouble),
  ],
  'bank.current-nominal': (trouble) => [
    ...otherDevices(trouble),
    ...strongerBank(trouble),
    ...moreUnits(trouble),
  ],
  'bank.deliverable': strongerBank,
  'bank.inverter-leads': equalBatteryLeads,
  'bank.inverter-surge': (trouble) => [
    ...moreUnits(trouble),
    ...otherInverters(trouble, 'larger'),
    ...leaveOff(trouble),
  ],
  'bank.lead-current': bankConductors,
  'bank.loop': batteryBus,
  'bank.management': strongerBank,
  'bank.mixed-types': oneBatteryType,
  'bank.module-charge': (trouble) => [...gentlerCharging(trouble), ...evenSharing(trouble)],
  'bank.module-current': (trouble) => [...evenSharing(trouble), ...strongerBank(trouble)],
  'bank.module-surge': (trouble) => [...evenSharing(trouble), ...strongerBank(trouble)],
  'bank.modules': (trouble) => [...fewerModules(trouble), ...otherBatteries(trouble)],
  'bank.reserve': higherReserve,
  'bank.rule': otherService,
  'bank.sag': (trouble) => [...thickerLeads(trouble, ['inverterLead', 'lead']), ...strongerBank(trouble)],
  'bank.series': (trouble) => [...moreModules(trouble), ...fewerModules(trouble)],
  'bank.sharing': evenSharing,
  'bank.surge-current': strongerBank,
  'bank.window': (trouble) => [
    ...moreModules(trouble),
    ...fewerModules(trouble),
    ...otherBatteries(trouble),
    ...otherInverters(trouble, 'any'),
  ],
  'bonding.back-feed': bondings,
  'bonding.earth-point': oneEarthPoint,
  'bonding.interlock': bondings,
  'bonding.joined-sources': bondings,
  'bonding.live-boards': bondings,
  'bonding.neutral-earth': bondings,
  'generator.dip': (trouble) => [...leaveOff(trouble), ...otherGenerators(trouble)],
  'generator.least-loading': generatorCharging,
  'generator.lines': generatorsOfAllLines,
  'generator.loading': (trouble) => [
    ...generatorCharging(trouble),
    ...leaveOff(trouble),
    ...otherGenerators(trouble),
  ],
  // A port that is not there takes nothing, however little is asked of it.
  'generator.port': (trouble) =>
    trouble.compiled?.type.known === true && trouble.compiled.type.value.generatorPortA === 'none'
      ? aheadOfGridPort(trouble)
      : [...lessCharging(trouble, 'generatorChargeW'), ...leaveOff(trouble)],
  'generator.pv': offWithGenerator,
  'generator.step': (trouble) => [...leaveOff(trouble), ...otherGenerators(trouble)],
  'generator.window': otherGenerators,
  'grid.control-supply': otherTransferDevices,
  'grid.pass-through': (trouble) => [...leaveOff(trouble), ...otherInverters(trouble, 'larger')],
  'grid.port': (trouble) => [...lessCharging(trouble, 'gridChargeW'), ...leaveOff(trouble)],
  'grid.service': (trouble) => lessCharging(trouble, 'gridChargeW'),
  'grid.transfer-control': otherTransferDevices,
  'grid.transfer-device': otherTransferDevices,
  'load.continuous': loadSide,
  'load.dark-line': ontoLitLine,
  'load.interruption': (trouble) => otherInverters(trouble, 'any'),
  'load.must-run': ontoBackup,
  'load.output': loadSide,
  'load.power': loadSide,
  'load.rehearsed': loadSide,
  'load.shed-levels': orderedLevels,
  'load.total': loadSide,
  'place.clearance': (trouble) => [...arrangedWall(trouble), ...elsewhere(trouble)],
  'place.exposure': elsewhere,
  'place.height': elsewhere,
  'place.overlap': (trouble) => [...arrangedWall(trouble), ...elsewhere(trouble)],
  'pv.ac-coupled': (trouble) => [
    ...pvOntoGrid(trouble),
    ...moreUnits(trouble),
    ...otherInverters(trouble, 'larger'),
  ],
  'pv.inputs': freeInputs,
  'pv.rapid-shutdown': rapidShutdown,
  'pv.storage': (trouble) => [...pvOntoGrid(trouble), ...moreModules(trouble)],
  'pv.string-current': fewerStrings,
  'pv.string-voltage': shorterStrings,
  'pv.string-window': shorterStrings,
  'stack.ac-leads': equalAcLeads,
  'stack.arrangement': otherArrangements,
  'stack.battery-profile': oneProfile,
  'stack.bus-ends': parallelBus,
  'stack.count': (trouble) => otherInverters(trouble, 'any'),
  'stack.enable': noEnableSwitch,
  'stack.equal-lines': moreUnits,
  'stack.firmware': sameFirmware,
  'stack.outlet': boardsOntoGrid,
  'stack.parallel-bus': parallelBus,
  'stack.settings': fittingSettings,
  'stack.unit-types': unitSettings,
  'stack.unit-loss': (trouble) => [...moreUnits(trouble), ...otherInverters(trouble, 'any')],
  'stack.unit-share': (trouble) => [...equalAcLeads(trouble), ...loadSide(trouble)],
  'surge.chosen': loadSide,
  'surge.cold-pickup': loadSide,
  'surge.largest-start': loadSide,
  'surge.output': loadSide,
  'surge.staggered': loadSide,
  'surge.stall': loadSide,
  'wiring.battery-device': nearerDevice,
  'wiring.battery-lead': (trouble) => [
    ...fittingSizes(trouble),
    ...thickerLeads(trouble, ['inverterLead', 'lead', 'groupLead']),
    ...gentlerCharging(trouble),
  ],
  'wiring.breaking': (trouble) => [...otherDeviceTypes(trouble), ...otherDevices(trouble)],
  'wiring.bus-cable': suppliedCable,
  'wiring.bus-pairs': landedAgain,
  'wiring.bus-shape': oneLine,
  'wiring.conductor': fittingSizes,
  'wiring.device': otherDevices,
  'wiring.drop': fittingSizes,
  'wiring.earthing': thickerEarths,
  'wiring.fill': fittingPassages,
  'wiring.isolation': isolators,
  'wiring.leakage': otherDeviceTypes,
  'wiring.network': (trouble) => [...joinedAsTaken(trouble), ...routerOntoBackup(trouble)],
  'wiring.order': smallerDevices,
  'wiring.ports': smallerDevices,
  'wiring.protection': (trouble) => [
    ...thickerLeads(trouble, ['inverterLead', 'lead', 'groupLead']),
    ...otherDevices(trouble),
    ...fittingSizes(trouble),
    ...fittingDevices(trouble),
  ],
  'wiring.rating': fittingDevices,
  'wiring.residual': otherDeviceTypes,
  'wiring.splices': fittingSplice,
  'wiring.terminals': (trouble) => [
    ...thinnerSizes(trouble),
    ...thickerLeads(trouble, ['inverterLead', 'lead', 'groupLead']),
    ...fittingSizes(trouble),
  ],
};

/** The checks that an edit of the design may clear. */
export const MENDED: ReadonlySet<string> = new Set(Object.keys(FINDERS));

/** Ways that may clear a cause, in the order in which they are worth trying. */
export const candidatesFor = (trouble: Trouble): readonly Candidate[] =>
  FINDERS[trouble.cause.worst.check]?.(trouble) ?? [];
