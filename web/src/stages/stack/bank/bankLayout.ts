import type { Bank, BankCircuit } from '@bastion/core';

/** How wide modules are drawn: the more there are, the narrower, so that a usual bank is seen at a glance. */
export type ModuleWidth = 'wide' | 'middle' | 'narrow';

/** Where the parts of a bank stand in its picture. */
export interface BankLayout {
  readonly kind: ModuleWidth;
  readonly moduleWide: number;
  readonly width: number;
  /** Middle of a module, by its place in the circuit. */
  readonly centre: (index: number) => number;
}

export const UNIT_TOP = 4;
export const UNIT_HIGH = 46;
export const BAR_TOP = 106;
export const MODULE_TOP = 136;
export const MODULE_HIGH = 78;
export const MODULE_BOTTOM = MODULE_TOP + MODULE_HIGH;
export const BAR_BOTTOM = MODULE_BOTTOM + 30;
export const PICTURE_HIGH = BAR_BOTTOM + 24;

const EDGE = 10;
/** Least room for an inverter with its current and voltage. */
const UNIT_WIDE = 62;

const WIDTHS: Record<
  ModuleWidth,
  { readonly module: number; readonly pitch: number; readonly most: number }
> = {
  wide: { module: 78, pitch: 102, most: 5 },
  middle: { module: 56, pitch: 61, most: 8 },
  narrow: { module: 26, pitch: 30, most: Infinity },
};

export function layOut(count: number, units: number): BankLayout {
  const kind = count <= WIDTHS.wide.most ? 'wide' : count <= WIDTHS.middle.most ? 'middle' : 'narrow';
  const { module, pitch } = WIDTHS[kind];
  return {
    kind,
    moduleWide: module,
    width: 2 * EDGE + Math.max(count * pitch, units * UNIT_WIDE),
    centre: (index) => EDGE + index * pitch + pitch / 2,
  };
}

/** Middle and width of each inverter, side by side over the picture. */
export function unitPlaces(
  layout: BankLayout,
  units: number,
): { readonly wide: number; readonly left: (index: number) => number } {
  const step = Math.min(112, (layout.width - 2 * EDGE) / Math.max(1, units));
  return { wide: step - 6, left: (index) => EDGE + index * step };
}

export const isChain = ({ joining }: Bank, { modules }: BankCircuit): boolean =>
  joining?.startsWith('chain') === true || modules.length === 1;

/** First and last module of each group on a combiner bar. */
export function groupsOf(
  { groupSize = 1 }: Bank,
  count: number,
): { readonly first: number; readonly last: number }[] {
  return Array.from({ length: Math.ceil(count / groupSize) }, (_, at) => ({
    first: at * groupSize,
    last: Math.min(count, (at + 1) * groupSize) - 1,
  }));
}

/** Middles of the modules between which an inverter takes its plus and its minus, counted along the picture. */
export function tapPlace(
  bank: Bank,
  barPlace: number | undefined,
  count: number,
): { plus: number; minus: number } {
  if (count === 1 || bank.joining === 'chain-same-end') return { plus: 0, minus: 0 };
  if (bank.joining === 'chain-diagonal') return { plus: 0, minus: count - 1 };
  const size = bank.joining === 'groups-on-bar' ? (bank.groupSize ?? 1) : 1;
  const at = Math.min(count - 1, Math.max(0, ((barPlace ?? 1) - 1) * size + (size - 1) / 2));
  return { plus: at, minus: at };
}
