import type { Path } from '../values/problem.ts';

/** What each field is called where people read it. */
const FIELDS: Readonly<Record<string, string>> = {
  supply: 'supply',
  lineVoltageV: 'line voltage',
  frequencyHz: 'frequency',
  serviceRatingA: 'service rating',
  earthing: 'earthing arrangement',
  prospectiveFaultA: 'prospective fault current',
  codeProfile: 'code profile',
  lowestC: 'record low',
  highestC: 'record high',
  equipmentLowestC: 'coldest air at the equipment',
  equipmentHighestC: 'hottest air at the equipment',
  altitudeM: 'altitude',
  latitudeDeg: 'latitude',
  targetAutonomyH: 'hours to last',
  lines: 'line(s)',
  items: 'what hangs on it',
  partitionId: 'partition',
  quantity: 'quantity',
  runningW: 'running power',
  powerFactor: 'power factor',
  startClass: 'start class',
  startDurationS: 'start duration',
  startPowerFactor: 'starting power factor',
  demandFactor: 'demand factor',
  hoursPerDay: 'hours per day',
  longestInterruptionMs: 'longest interruption',
  stackId: 'feeding stack',
  inverterTypeId: 'inverter type',
  arrangement: 'arrangement',
  line: 'line',
  firmware: 'firmware',
  chargeCurrentA: 'charge setting',
  dischargeCurrentA: 'discharge setting',
  workMode: 'work mode',
  windows: 'windows by time',
  generatorFromSoc: 'state of charge at which the generator is called',
  generatorToSoc: 'state of charge at which the generator is let go',
  sensesGrid: 'whether the transfer device watches the grid',
  fromBatteryM: 'lead between the battery and its device',
  modesOff: 'modes of the type that must be off',
  outageStartH: 'hour of the outage',
  gridChargeW: 'charging power from the grid',
  generatorChargeW: 'charging power from the generator',
  generatorPortLines: 'lines that the generator port wants',
  autotransformerTypeId: 'autotransformer type',
  bank: 'battery bank',
  batteryTypeId: 'battery type',
  reserveSoc: 'backup reserve',
  cutoffSoc: 'cut-off',
  breakerA: 'battery breaker',
  joining: 'how the modules are joined',
  lead: 'lead of the modules',
  groupLead: 'lead of the groups',
  groupSize: 'modules in a group',
  barSegment: 'bar between two places',
  inverterLead: 'battery lead of the inverters',
  batteryLead: 'battery lead',
  barPlace: 'place on the bars',
  largestStep: 'largest load step of the type',
  transientReactance: 'transient reactance of the type',
  stepFrequencyDip: 'fall of frequency in a step of the type',
  recoveryS: 'recovery time of the type',
  stateOfCharge: 'state of charge',
  internalMilliohm: 'inner resistance of the type',
  openCircuit: 'resting voltages of the type',
  lengthsFrom: 'route on the wall plan for a lead',
  lengthM: 'length',
  imbalanceLimit: 'imbalance limit of the type',
  outsideMm: 'outside diameter of the cable',
  innerMm: 'inside diameter',
  leastMm: 'thinnest cable it seals on',
  threadMm: 'hole it needs',
  minMm2: 'smallest conductor',
  maxMm2: 'largest conductor',
  enclosure: 'enclosure',
  breakingA: 'breaking capacity of the type',
  residualDevice: 'residual-current type that the inverter wants',
  residualType: 'residual-current type of the device',
  filterLeakageMa: 'filter leakage of the type',
  shortCircuit: 'short-circuit current of the type',
  barTypeId: 'combiner bar',
  breakerTypeId: 'type of the battery breaker',
  timeCurrent: 'time-current curve of the type',
  comms: 'battery communication',
  protocol: 'protocol',
  links: 'cables of the battery bus',
  setPoints: 'voltages of the open loop',
  chargeV: 'charge voltage',
  floatV: 'float voltage',
  cutoffV: 'cut-off voltage',
  terminated: 'terminators',
  address: 'address',
  addressRule: 'address rule of the type',
  terminators: 'terminator rule of the type',
  commsChain: 'comms ports of the type',
  serviceLoopM: 'service loop',
  networkBy: 'how the type joins the network of the building',
  network: 'how it joins the network of the building',
  router: 'the circuit that feeds the router',
  feedsRouter: 'whether it feeds the router',
  supplyVa: 'what the meter takes',
  supplyDeviceA: 'largest device ahead of the meter',
  controlSupply: 'where the controls of the transfer device are fed from',
  controlCurrent: 'kind of current that the controls of the transfer device take',
  controlV: 'voltage that the controls of the transfer device take',
  controlVa: 'what the controls of the transfer device take',
  controlDeviceA: 'largest device ahead of the controls of the transfer device',
  enableInput: 'whether its type has an enable input',
  controlOutV: 'voltage of the control output of the inverter',
  controlOutCurrent: 'kind of current of the control output of the inverter',
  controlOutA: 'most that the control output of the inverter gives',
  level: 'level in its pile',
  pile: 'pile it stands in',
  piles: 'which way the bus runs in the next pile',
  batteryCommsPort: 'battery port of the type',
  batteryRule: 'battery rule of the type',
  batteryProfile: 'battery settings loaded',
  busLinks: 'cables of the parallel bus',
  parallelBus: 'parallel bus of the type',
  hostRule: 'host rule of the type',
  hostUnitId: 'host',
  acLead: 'AC lead',
  transferDeviceTypeId: 'transfer device',
  outputV: 'voltage of the type',
  regulation: 'regulation of the type',
  droop: 'droop of the type',
  inputV: 'input voltage window of the type',
  inputHz: 'input frequency window of the type',
  pvInputs: 'PV inputs of the type',
  shiftsFrequency: 'frequency shift of the type',
  moduleTypeId: 'PV module type',
  modulesPerString: 'modules in a string',
  directionDeg: 'direction',
  tiltDeg: 'tilt',
  places: 'input its strings are on',
  rapidShutdown: 'rapid shutdown',
  curtailedBy: 'how it is held back',
  withGenerator: 'what becomes of it while the generator runs',
  areaMm2: 'size',
  typeId: 'type',
  connection: 'connection',
  ratedAcW: 'rated AC power',
  coupling: 'coupling',
  passThroughA: 'pass-through limit of the type',
  gridPortA: 'grid port limit of the type',
  backupPortA: 'backup port limit of the type',
  generatorPortA: 'generator port limit of the type',
  transferMs: 'transfer time of the type',
  body: 'size and clearances of the type',
  massKg: 'mass',
  widthM: 'width',
  heightM: 'height',
  exposure: 'exposure of the wall',
  surface: 'surface of the wall',
  loadLimitKg: 'what the wall may carry',
  fixingLimitKg: 'what one fixing may carry',
  frontFreeM: 'what is free in front of the wall',
  largestTiltDeg: 'largest tilt of the type',
  fromId: 'start of the route',
  toId: 'end of the route',
  outputId: 'backup output',
  horsepower: 'horsepower',
  bypassNeutral: 'neutral of the bypass',
  bypassInterlocked: 'interlock of the bypass',
  utilityEarth: 'whether the earth of the utility is kept',
  localElectrode: 'local electrode',
  electrodeOhm: 'measured resistance of the electrode',
  surviveUnitLoss: 'whether the loss of an inverter must be survived',
  earthPoints: 'earthing point',
  devices: 'devices in the lines',
  fitted: 'whether it is fitted',
  ratedA: 'rating',
  transferNeutral: 'neutral of the transfer relay of the type',
  neutralEarthRelay: 'neutral–earth relay',
  relayWithGenerator: 'what the neutral–earth relay of the type does with a generator',
  relayKit: 'relay kit',
  neutralBond: 'bond of its neutral',
  neutral: 'neutral of the type',
  inletAt: 'board of the inlet',
  at: 'where it looks',
  readBy: 'which set reads it',
  meterId: 'meter that its leads go to',
  arrow: 'which way its arrow points',
  ratio: 'ratio in the settings',
  curve: 'curve',
  shedBelowSoc: 'level at which the stage is shed',
};

export const fieldLabel = (key: string): string => FIELDS[key] ?? wordsOf(key);

/** A key in words where nobody has given it any: its unit at the end means nothing to a reader. */
const wordsOf = (key: string): string =>
  key
    .replace(/(?:M|Mm2|Mm|Ma|V|A|W|Wh|Hz|C|S|Ms|H|Va|Deg|Ohm|Soc)$/u, '')
    .replaceAll(/([a-z0-9])([A-Z])/gu, '$1 $2')
    .toLowerCase();

interface Named {
  readonly id: string;
  readonly name?: string;
}

const isNamed = (value: unknown): value is Named =>
  typeof value === 'object' && value !== null && 'id' in value;

const listOf = (value: unknown, key: string): readonly unknown[] => {
  const found: unknown =
    typeof value === 'object' && value !== null ? new Map(Object.entries(value)).get(key) : undefined;
  return Array.isArray(found) ? found : [];
};

/** The circuit of a cable, by the cable's id or by what it is of: of most cables nobody has stated anything, and they are in no list. */
function circuitOfCable(stated: object, [root, list, id]: Path): string | undefined {
  if (root !== 'wiring' || list !== 'cables') return undefined;
  const wiring: unknown = new Map(Object.entries(stated)).get('wiring');
  const cable = listOf(wiring, 'cables').find((one) => isNamed(one) && one.id === id);
  const lineId = cable !== undefined && isNamed(cable) && 'lineId' in cable ? cable.lineId : id;
  const circuit = listOf(stated, 'circuits').find((one) => isNamed(one) && `circuit ${one.id}` === lineId);
  return isNamed(circuit) ? circuit.name : undefined;
}

/**
 * A place in words: "running power of Vaccine fridge". Names are looked up in the document; what has none goes by its number, as
 * "unit 2 of Stack". A thing itself is called by its name.
 */
export function describePlace(stated: object, path: Path): string {
  const { owner: named, value } = ownerOf(stated, path.slice(0, -1));
  if (Array.isArray(value) && value.some((one) => isNamed(one) && one.id === path.at(-1)))
    return ownerOf(stated, path).owner;
  const owner = circuitOfCable(stated, path) ?? named;
  const label = fieldLabel(String(path.at(-1) ?? ''));
  // A figure inside of a field that has a name of its own: the size of which lead.
  const inner = path.length > 2 && !Array.isArray(value) ? FIELDS[String(path.at(-2))] : undefined;
  const whole = inner === undefined || inner === 'battery bank' ? label : `${label} of the ${inner}`;
  return owner === '' ? whole : `${whole} of ${owner}`;
}

/** What the last thing of a list on the way is called, and where the way ends. */
function ownerOf(stated: object, path: Path): { readonly owner: string; readonly value: unknown } {
  let value: unknown = stated;
  let owner = '';
  for (const part of path) {
    if (Array.isArray(value)) {
      const list: unknown[] = value;
      const index = list.findIndex((one) => isNamed(one) && one.id === part);
      value = list[index];
      if (isNamed(value)) {
        const kind = String(path[path.indexOf(part) - 1]).replace(/s$/, '');
        const whole = owner === '' ? '' : ` of ${owner}`;
        owner = typeof value.name === 'string' ? value.name : `${kind} ${index + 1}${whole}`;
      }
    } else if (typeof value === 'object' && value !== null) {
      value = new Map<string | number, unknown>(Object.entries(value)).get(part);
    }
  }
  return { owner, value };
}

/** Up to three places in words, and how many more there are. */
export function describePlaces(stated: object, paths: readonly Path[]): string {
  const shown = paths.slice(0, 3).map((path) => describePlace(stated, path));
  const more = paths.length - shown.length;
  return shown.join('; ') + (more > 0 ? `; and ${more} more` : '');
}
