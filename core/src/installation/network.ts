import type { ProtectiveDeviceType } from '../catalogue/partTypes.ts';
import type { CommsPin, TerminalRow } from '../catalogue/common.ts';
import type { Line } from '../values/quantities.ts';
import type { Known } from '../values/known.ts';
import type { Path } from '../values/problem.ts';
import type { DeviceRole } from './facts.ts';
import type { ModeKind } from './modeKinds.ts';

/** A conductor of a port. Pins of comms ports carry names of their own and have links instead of conductors. */
export type TerminalName = Line | 'N' | 'PE' | 'DC+' | 'DC−';

export type PartKind =
  | 'grid'
  | 'board'
  | 'ac-bus'
  | 'inverter'
  | 'device'
  | 'transfer-device'
  | 'bypass'
  | 'inlet'
  | 'contactor'
  | 'relay-kit'
  | 'autotransformer'
  | 'generator'
  | 'array'
  | 'module'
  | 'bar'
  | 'circuit'
  | 'meter'
  | 'sensor'
  | 'controller'
  | 'router'
  | 'earth-point'
  | 'electrode';

/** What the type of a protective device says of where it may stand. */
export type DeviceFigures = Pick<
  ProtectiveDeviceType,
  'device' | 'ratedV' | 'poles' | 'breakingA' | 'curve' | 'residualMa' | 'residualType'
>;

/** A thing of the installation. Its id is unique and never taken apart. */
export interface Part {
  readonly id: string;
  readonly kind: PartKind;
  readonly label: string;
  /** The place of the design that made it. */
  readonly from: Path;
  readonly typeName?: string;
  /** Its place on the wall plan. */
  readonly mountedId?: string;
  readonly stackId?: string;
  readonly unitId?: string;
  readonly partitionId?: string;
  readonly circuitId?: string;
  readonly generatorId?: string;
  readonly moduleId?: string;
  readonly arrayId?: string;
  readonly controllerId?: string;
  readonly meterId?: string;
  /** For a battery device: lead between the battery and it, m. */
  readonly fromBatteryM?: number;
  /** For a device: where in its line it stands, and whether somebody said that it is there. */
  readonly role?: DeviceRole | 'circuit';
  readonly fitted?: Known<'yes' | 'none'>;
  readonly ratedA?: Known<number>;
  readonly device?: DeviceFigures;
  /** The type those figures come from. */
  readonly deviceTypeId?: string;
  /** For the device ahead of what is fed through a small cable of its own: what that is. */
  readonly fed?: FedAlone;
  /** A short rating for the drawing, as "5 kVA". */
  readonly rating?: string;
}

/** A meter, or the controls of a transfer device: what it takes, and what may stand ahead of it. */
export interface FedAlone {
  readonly what: 'meter' | 'controls';
  readonly takesVa: Known<number>;
  /** At which voltage; undefined for that of the lines. */
  readonly volts: Known<number> | undefined;
  /** The largest device that protects it, and where its type says so. */
  readonly mostDeviceA: number | undefined;
  readonly mostDevicePath: Path;
}

export interface Terminal {
  readonly id: string;
  readonly name: TerminalName;
}

export type PortRole =
  | 'supply'
  | 'bus'
  | 'in'
  | 'out'
  | 'grid'
  | 'backup'
  | 'generator'
  | 'battery'
  | 'pv'
  | 'normal'
  | 'alternate'
  | 'common'
  | 'control'
  | 'earth';

export interface Port {
  readonly id: string;
  readonly partId: string;
  readonly role: PortRole;
  readonly label: string;
  readonly terminals: readonly Terminal[];
  /** What its terminals take; not known without terminal data of the type. */
  readonly takes: Known<TerminalRow>;
  /** What is fed here through a small cable of its own. */
  readonly fed?: FedAlone;
}

/** What a run carries. */
export type Use = 'ac' | 'battery' | 'pv' | 'control' | 'earth';

/** One cable between two ports: its conductors lie together, on one route, behind the same device. */
export interface Run {
  readonly id: string;
  readonly a: string;
  readonly b: string;
  readonly use: Use;
  readonly lengthM: Known<number>;
  readonly areaMm2: Known<number>;
  readonly routeId?: string;
  readonly from: Path;
}

export interface Conductor {
  readonly id: string;
  readonly runId: string;
  readonly a: string;
  readonly b: string;
  readonly name: TerminalName;
}

/** In which modes something is closed: 'closed', or the places where that would have to be said. Absent: open. */
export type ClosedIn = Readonly<Partial<Record<ModeKind, 'closed' | readonly Path[]>>>;

/** One pole of a switching part. A solid neutral is a contact that is closed in every mode. */
export interface Contact {
  readonly id: string;
  readonly partId: string;
  readonly a: string;
  readonly b: string;
  readonly pole: 'line' | 'neutral';
  readonly closedIn: ClosedIn;
  /** The unit whose loss opens it. */
  readonly unit?: { readonly stackId: string; readonly unitId: string };
}

/** A link of a neutral to earth. */
export interface Bond {
  readonly id: string;
  readonly partId: string;
  readonly label: string;
  readonly neutral: string;
  readonly closedIn: ClosedIn;
  readonly from: Path;
}

/** What can bring voltage onto its terminals. */
export interface NetworkSource {
  readonly id: string;
  readonly partId: string;
  readonly kind: 'grid' | 'inverter' | 'generator';
  readonly terminals: readonly string[];
  readonly runsIn: readonly ModeKind[];
  readonly unit?: { readonly stackId: string; readonly unitId: string };
}

/** Sources that run in step with each other in some modes: joining them is meant. */
export interface InStep {
  readonly sources: readonly string[];
  readonly modes: readonly ModeKind[];
}

/** Two positions that must never be closed together. */
export interface Interlock {
  readonly id: string;
  readonly partId: string;
  readonly what: string;
  readonly held: Known<boolean>;
  readonly from: Path;
}

/** A cable of a bus between two sockets. */
export interface CommsLink {
  readonly id: string;
  readonly kind: LinkKind;
  readonly a: LinkEnd;
  readonly b: LinkEnd;
  readonly from: Path;
  /** It has no cable. */
  readonly by?: 'radio';
}

/** The part that stands for the network of the building. */
export const ROUTER = 'router';

/** The port of an inverter for the bus of a combiner or transfer box. */
export const BOX_PORT = 'box';

export type LinkKind =
  | 'parallel-bus'
  | 'battery-bus'
  | 'meter-bus'
  | 'controller-bus'
  | 'sensor-pair'
  | 'dry-contact'
  | 'box-bus'
  | 'control-supply'
  | 'shutdown-link'
  | 'network';

export interface LinkEnd {
  readonly partId: string;
  readonly socket: string;
  /** What the type says of the pins of that socket, where it does. */
  readonly pins?: CommsPin;
}

/** Something about the network that cannot be as it is written: a sentence with its place. What can still be walked is walked. */
export interface NetworkProblem {
  readonly path: Path;
  readonly message: string;
}

/** The explicit installation: every part with its ports, what joins them, and what switches. Plain data. */
export interface Network {
  readonly parts: readonly Part[];
  readonly ports: readonly Port[];
  readonly runs: readonly Run[];
  readonly conductors: readonly Conductor[];
  readonly contacts: readonly Contact[];
  readonly bonds: readonly Bond[];
  readonly sources: readonly NetworkSource[];
  readonly inStep: readonly InStep[];
  readonly interlocks: readonly Interlock[];
  readonly links: readonly CommsLink[];
  readonly problems: readonly NetworkProblem[];
  /** What is not known and leaves a piece of the network unlaid: what is not met may then still be there. */
  readonly gaps: readonly Path[];
}
