import type { BatteryType } from '../catalogue/batteryType.ts';
import type { EquipmentType, TypeOf } from '../catalogue/schema.ts';
import type { InverterType } from '../catalogue/inverterType.ts';
import type {
  CombinerBarType,
  ControllerType,
  MeterType,
  ProtectiveDeviceType,
} from '../catalogue/partTypes.ts';
import type {
  AutotransformerType,
  GeneratorType,
  PvModuleType,
  TransferDeviceType,
} from '../catalogue/sourceTypes.ts';
import type { DefaultKey, ResolvedDefault } from '../codes/defaults.ts';
import type { Mounted, Place } from '../design/place.ts';
import type {
  Circuit,
  Design,
  Generator,
  Partition,
  PvArray,
  Site,
  SiteController,
  Stack,
  StartCase,
} from '../design/schema.ts';
import type { DeviceRole } from '../design/networkSchema.ts';
import type { Wiring } from '../design/wiringSchema.ts';
import type { Known } from '../values/known.ts';
import type { Path } from '../values/problem.ts';
import type { DeviceFigures, Network } from './network.ts';
import type { RouteLength } from './place/routes.ts';
import type { OnWall } from './place/wall.ts';
import type { Supply } from './supply.ts';

type Meters = Design['meters'];
export type Defaults = Record<DefaultKey, ResolvedDefault>;

/** A device that the design lists on a bank, with what is known of it. */
export interface BatteryDevice {
  readonly role: DeviceRole;
  readonly unitId: string | undefined;
  readonly moduleId: string | undefined;
  readonly group: number | undefined;
  readonly fitted: 'yes' | 'none' | undefined;
  readonly ratedA: Known<number>;
  readonly milliohm: number | undefined;
  readonly timeCurrent: Known<NonNullable<ProtectiveDeviceType['timeCurrent']>>;
  /** What its type says of where it may stand, and that type. */
  readonly device?: DeviceFigures;
  readonly deviceTypeId?: string;
  readonly path: Path;
}

/**
 * A set of inverters with what hangs on its backup outputs and its battery bank: plain data, and enough of it that the figures of
 * the set follow from it alone. They are kept beside it (`figures/`), never in it.
 */
export interface CompiledStack {
  /** Devices listed on the DC side of this set. */
  readonly batteryDevices: readonly BatteryDevice[];
  readonly stack: Stack;
  readonly site: Site;
  readonly tableValues: Design['tableValues'];
  readonly defaults: Defaults;
  readonly type: Known<InverterType>;
  readonly supply: Known<Supply>;
  /** The partitions it carries in island, shed stages included until they are dropped. */
  readonly partitions: readonly Partition[];
  /** Everything that draws through it on grid: also what is locked out or shed in island. */
  readonly behind: readonly Partition[];
  /** What is live while a generator runs. */
  readonly withGenerator: readonly Partition[];
  /** The circuits of all partitions that name this set. */
  readonly circuits: readonly Circuit[];
  readonly meters: Meters;
  /** The types that its modules name, by id. */
  readonly batteryTypes: Readonly<Record<string, BatteryType>>;
  readonly autotransformer: Known<AutotransformerType | 'none'>;
  readonly transferDevice: Known<TransferDeviceType | 'none'>;
  /** The device of the battery, where one is named; its rating may be typed without one. */
  readonly breaker: Known<ProtectiveDeviceType>;
  readonly breakerA: Known<number>;
  readonly bar: Known<CombinerBarType | 'none'>;
  readonly mounted: readonly Mounted[];
  readonly routes: readonly RouteLength[];
}

export interface DeliveryTrouble {
  readonly id: string;
  readonly what: string;
  readonly state: 'damaged' | 'missing';
  readonly note: string | undefined;
}

export interface CompiledGenerator {
  readonly generator: Generator;
  readonly site: Site;
  readonly defaults: Defaults;
  readonly type: Known<GeneratorType>;
}

export interface CompiledArray {
  readonly array: PvArray;
  readonly moduleType: Known<PvModuleType>;
}

export interface CompiledInstrument {
  readonly instrument: Design['instruments'][number];
  readonly type: Known<TypeOf<'meter' | 'sensor'>>;
}

export interface CompiledController {
  readonly controller: SiteController;
  readonly type: Known<ControllerType>;
  /** Types of its meters, by the id of the meter. */
  readonly meterTypes: Readonly<Record<string, Known<MeterType>>>;
}

/**
 * What follows from a design: explicit, plain (it survives `structuredClone` and JSON), and the only thing that checks, procedures
 * and drawings read.
 */
export interface Installation {
  readonly site: Site;
  readonly place: Place | undefined;
  /** How cables are laid, and what is at hand for them. */
  readonly wiring: Wiring | undefined;
  readonly circuits: readonly Circuit[];
  readonly partitions: readonly Partition[];
  readonly startCases: readonly StartCase[];
  /** Types the document has copied in, for their names. */
  readonly types: readonly EquipmentType[];
  readonly meters: Meters;
  readonly earthPoints: Design['earthPoints'];
  /** Meters and sensors that sets read by themselves. */
  readonly instruments: readonly CompiledInstrument[];
  readonly supply: Known<Supply>;
  readonly lineVoltageV: Known<number>;
  readonly defaults: Defaults;
  readonly stacks: readonly CompiledStack[];
  readonly generators: readonly CompiledGenerator[];
  readonly arrays: readonly CompiledArray[];
  readonly controllers: readonly CompiledController[];
  /** The device types that circuits name, by id. */
  readonly circuitDeviceTypes: Readonly<Record<string, ProtectiveDeviceType>>;
  readonly undecidedCircuits: readonly Circuit[];
  /** Every part with its ports, what joins them and what switches; not known while the supply is not. */
  readonly network: Known<Network>;
  /** What was found damaged or missing on the delivery list. */
  readonly delivered: readonly DeliveryTrouble[];
  /** Findings that somebody takes responsibility for. */
  readonly tableValues: Design['tableValues'];
  readonly accepted: Design['accepted'];
  /** Fields that the program filled to begin with and nobody has looked at yet. */
  readonly firstValues: readonly Path[];
  /** What hangs on the wall, with sizes and clearances. */
  readonly wall: readonly OnWall[];
  readonly routes: readonly RouteLength[];
}
