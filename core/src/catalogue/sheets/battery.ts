import type { SheetGroup } from '../sheet.ts';
import { BODY, choice, figure, group, NAMING, names, needed, PINS, rows, TERMINALS, text } from './fields.ts';

/** Data sheet of a battery module or string. */
export const BATTERY_SHEET: readonly SheetGroup[] = [
  NAMING,
  group(
    'Cells',
    'first table of the data sheet',
    needed(choice('chemistry', 'Chemistry', 'lithium-iron-phosphate', 'lithium-nickel', 'lead-acid')),
    needed(figure('nominalV', 'Nominal voltage', 'V')),
    needed(figure('capacityAh', 'Capacity', 'Ah')),
    needed(figure('minV', 'Lowest voltage', 'V')),
    needed(figure('maxV', 'Highest voltage', 'V')),
    needed(figure('usableFraction', 'Usable share, 0 to 1', '')),
    figure('internalMilliohm', 'Inner resistance', 'mΩ'),
    rows(
      'openCircuit',
      'Resting voltage: share of charge : V',
      { key: 'soc', label: 'share of charge' },
      { key: 'voltageV', label: 'V' },
    ),
  ),
  group(
    'Currents',
    'charge and discharge table',
    needed(figure('continuousDischargeA', 'Continuous discharge', 'A')),
    needed(figure('peakDischargeA', 'Peak discharge', 'A')),
    needed(figure('peakS', 'Peak lasts', 's')),
    needed(figure('chargeA', 'Charge', 'A')),
    needed(figure('chargeMinC', 'Charges from', '°C')),
    figure('groupLimitA', 'Limit of the management for a group', 'A'),
    figure('shortCircuitA', 'Short-circuit current', 'A'),
  ),
  group(
    'Joining and communication',
    'expansion and communication chapters of the manual',
    needed(choice('joining', 'Modules are joined', 'parallel', 'series')),
    figure('minModules', 'Fewest in series', ''),
    needed(figure('maxModules', 'Most together', '')),
    text('makeGroup', 'Make group: types that understand each other'),
    names('commsProtocols', 'Protocols, comma between'),
    text('commsChain.hostPort', 'First module: port to the inverter'),
    text('commsChain.fromPort', 'Bus leaves by port'),
    text('commsChain.toPort', 'Bus enters by port'),
    choice('commsChain.piles', 'In the next pile the bus runs', 'same-way', 'mirrored'),
    choice('addressRule', 'Addresses', 'automatic', 'from-0', 'from-1'),
    choice('terminators', 'Terminators', 'internal', 'switch', 'plug', 'none'),
    choice('serviceDisconnect', 'Service disconnect', 'yes', 'none'),
  ),
  PINS,
  TERMINALS,
  BODY,
];
