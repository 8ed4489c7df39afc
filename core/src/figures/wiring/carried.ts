import type { Path } from '../../values/problem.ts';
import type { DefaultKey } from '../../codes/defaults.ts';
import type { Installation } from '../../installation/installation.ts';
import type { Supply } from '../../installation/supply.ts';
import type { TerminalName } from '../../installation/network.ts';
import { add, complex, type Complex, magnitude } from '../../network/complex.ts';
import { all, type Known, known, unknownAt } from '../../values/known.ts';
import type { Board } from '../loads/board.ts';

/** How current goes out and comes back in a cable. */
export type System = 'one-line' | 'two-line' | 'three-line' | 'dc';

/** A motor or the like that starts at the far end. */
export interface CarriedStart {
  readonly label: string;
  readonly currentA: number;
  readonly powerFactor: number;
}

/** What a cable has to carry for long, and how. */
export interface Carried {
  readonly system: System;
  /** Line to neutral for one line, line to line for two and three, V. */
  readonly volts: number;
  readonly loadedConductors: 2 | 3;
  /** On its hardest-worked line. */
  readonly currentA: number;
  readonly powerFactor: number;
  readonly start: CarriedStart | undefined;
  /** The planning value of what it may lose. */
  readonly dropKey: DefaultKey;
  readonly isBattery: boolean;
  /** Where the current comes from, in words with its numbers. */
  readonly because: string;
}

export const isLine = (name: TerminalName): boolean => name === 'L1' || name === 'L2' || name === 'L3';

/** Between two lines: 180° apart of two, 120° of three, V. */
export const betweenLinesV = ({ lines }: Supply, lineVoltageV: number): number =>
  lineVoltageV * (lines.length === 2 ? 2 : Math.sqrt(3));

/** Lines of a cable: the figures that follow from how many they are. */
export function systemOf(
  { supply, lineVoltageV }: Installation,
  names: readonly TerminalName[],
): Known<Pick<Carried, 'system' | 'volts' | 'loadedConductors'>> {
  const given = all({ supply, lineVoltageV });
  if (!given.known) return given;
  const volts = given.value.lineVoltageV;
  const lines = names.filter(isLine).length;
  if (lines === 3) return known({ system: 'three-line', volts: volts * Math.sqrt(3), loadedConductors: 3 });
  if (lines === 2) {
    return known({
      system: 'two-line',
      volts: betweenLinesV(given.value.supply, volts),
      loadedConductors: names.includes('N') ? 3 : 2,
    });
  }
  return known({ system: 'one-line', volts, loadedConductors: 2 });
}

/** The hardest-worked of some lines: its current and its power factor. */
export interface Hardest {
  readonly currentA: number;
  readonly powerFactor: number;
  readonly index: number;
}

/** I = |S| / V on each line; the largest counts. A load of nought has a power factor of one. */
export function hardestOf(powers: readonly Complex[], lineVoltageV: number): Hardest {
  let hardest: Hardest = { currentA: 0, powerFactor: 1, index: 0 };
  powers.forEach((power, index) => {
    const va = magnitude(power);
    if (va / lineVoltageV > hardest.currentA)
      hardest = { currentA: va / lineVoltageV, powerFactor: Math.abs(power.re) / va, index };
  });
  return hardest;
}

/** The continuous load of a board on each line, with something in phase on top. */
export function continuousOf(
  board: Known<Board>,
  moreW: (line: number) => Known<number> = () => known(0),
): Known<readonly Complex[]> {
  if (!board.known) return board;
  const { knownPart, missing } = board.value.continuous;
  if (missing.length > 0) return unknownAt(...missing);
  const lacking: Path[] = [];
  const sums = knownPart.map((power, line) => {
    const more = moreW(line);
    if (!more.known) lacking.push(...more.missing);
    return add(power, complex(more.known ? more.value : 0, 0));
  });
  return lacking.length > 0 ? unknownAt(...lacking) : known(sums);
}
