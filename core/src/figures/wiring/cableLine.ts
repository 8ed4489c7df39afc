import type { TerminalRow } from '../../catalogue/common.ts';
import type { Cable, Circuit } from '../../installation/facts.ts';
import type { DeviceFigures, Network, Part, Port, Run, TerminalName } from '../../installation/network.ts';
import type { Known } from '../../values/known.ts';
import type { Path } from '../../values/problem.ts';

/** Where a cable ends. A battery lead between two modules ends at parts whose ports the drawing does not tell apart. */
export interface End {
  readonly partId: string;
  readonly label: string;
  readonly port: Port | undefined;
}

/** A breaker, fuse or switch in a cable, as far as it is stated. */
export interface LineDevice {
  /** The part that it is in the network. */
  readonly partId: string | undefined;
  readonly label: string;
  readonly ratedA: Known<number>;
  readonly isFuse: boolean;
  readonly curve: string | undefined;
  readonly role: Part['role'];
  /** What its type says of it, and that type. */
  readonly figures: DeviceFigures | undefined;
  readonly typeId: string | undefined;
  /** What its terminals take, on both sides alike. */
  readonly takes: Known<TerminalRow>;
  /** The ports that the cable is cut at for it; none for the device of a circuit. */
  readonly ports: readonly Port[];
  readonly path: Path;
}

/** One cable from end to end with the devices in it: what somebody pulls, cuts and lands. */
export interface CableLine {
  /** Unique, and the same as long as its ends are. */
  readonly id: string;
  readonly label: string;
  readonly ends: readonly [End, End];
  /** The devices in it; of a circuit its own. */
  readonly devices: readonly LineDevice[];
  /** The devices that it ends at, because another cable divides there: they guard it as well. */
  readonly endDevices: readonly LineDevice[];
  readonly names: readonly TerminalName[];
  readonly use: Run['use'];
  readonly lengthM: Known<number>;
  readonly areaMm2: Known<number>;
  /** Where its length and size are typed. */
  readonly lengthPath: Path;
  readonly areaPath: Path;
  /** What somebody has said of it. */
  readonly cable: Cable | undefined;
  /** The circuit that it is the cable of. */
  readonly circuit: Circuit | undefined;
  /** The place of the design that made it. */
  readonly from: Path;
  /** For a lead of a battery bank: its resistance in the bank. */
  readonly branch: { readonly stackId: string; readonly id: string } | undefined;
}

/** The network with its parts, ports and runs at hand. */
export interface Joined {
  readonly network: Network;
  readonly ports: ReadonlyMap<string, Port>;
  readonly parts: ReadonlyMap<string, Part>;
  readonly runsAt: ReadonlyMap<string, readonly Run[]>;
  readonly portsOf: ReadonlyMap<string, readonly Port[]>;
}

/** A fuse for alternating current: what a DC fuse lets pass for long is its maker's to say. */
export const isFuseKind = (device: string | undefined): boolean => device === 'fuse';

/** A switch that opens its load by hand: it guards nothing, and is held against its load alone. */
export const isIsolator = (figures: DeviceFigures | undefined): boolean =>
  figures?.device === 'isolator' || figures?.device === 'dc-isolator';
