import { islandBoard } from '../loads/boards.ts';
import { bankCircuitOf } from './ofSet.ts';
import { type Known, known, unknownAt } from '../../values/known.ts';
import { dischargeLimitA } from './bank.ts';
import type { BankCircuit } from './bankCircuit.ts';
import { bankLoadsW } from './bankDraw.ts';
import { type BankShare, shareBank } from './bankShare.ts';
import { nearEmpty } from './nearEmpty.ts';
import type { CompiledStack } from '../../installation/installation.ts';

/** A load to look at a bank with. A typed one is the real power of all lines together, spread over them as the continuous load is. */
export type BankLoad =
  | { readonly kind: 'continuous' }
  | { readonly kind: 'largest-start' }
  | { readonly kind: 'typed'; readonly watts: number };

/** A bank solved at a load. */
export interface BankAtLoad {
  readonly circuit: BankCircuit;
  /** DC power of each inverter on it, W. */
  readonly powersW: readonly number[];
  readonly share: BankShare;
  /** AC power of all lines together, W. */
  readonly loadW: number;
  /** Infinite for a load that stays. */
  readonly durationS: number;
  /** What starts, where something does. */
  readonly label: string | undefined;
  /** The inverter whose bank this is, where each has its own: the one whose modules are nearest to their limit. */
  readonly ofUnitId: string | undefined;
}

interface Moment {
  readonly linesW: readonly number[];
  readonly durationS: number;
  readonly label: string | undefined;
}

const totalOf = (linesW: readonly number[]): number => linesW.reduce((sum, watts) => sum + watts, 0);

function momentsOf(compiled: CompiledStack, load: BankLoad): Known<readonly Moment[]> {
  const board = islandBoard(compiled);
  if (!board.known) return board;
  const { continuous, starts, batteryStarts } = board.value;
  const linesW = continuous.knownPart.map((line) => line.re);
  const always = { durationS: Infinity, label: undefined };
  switch (load.kind) {
    case 'continuous':
      return continuous.missing.length > 0
        ? unknownAt(...continuous.missing)
        : known([{ linesW, ...always }]);
    case 'typed': {
      const nowW = totalOf(linesW);
      const scaled = linesW.map((watts) =>
        nowW > 0 ? (watts * load.watts) / nowW : load.watts / linesW.length,
      );
      return known([{ linesW: scaled, ...always }]);
    }
    case 'largest-start': {
      const missing = [...continuous.missing, ...starts.missing];
      if (missing.length > 0) return unknownAt(...missing);
      return known(batteryStarts.length > 0 ? batteryStarts : [{ linesW, ...always }]);
    }
  }
}

/** How near the hardest-working module is to what it may give; past everything where the bank cannot give the power at all. */
function strain(share: BankShare, durationS: number): number {
  if (share.kind !== 'solved') return Infinity;
  return Math.max(
    0,
    ...share.modules.map(({ module, currentA }) => currentA / dischargeLimitA(module.type, durationS)),
  );
}

/** What of a stack is looked at. */
export interface BankView {
  /** An inverter that is away. */
  readonly lostUnitId?: string | undefined;
  /** Where each inverter has its own bank: whose. */
  readonly ofUnitId?: string | undefined;
}

/**
 * Solves the bank of a stack at a load; of several starts, or of banks that serve one inverter each, the hardest case. 'none' where
 * there are no modules that share.
 */
export function bankAtLoad(
  compiled: CompiledStack,
  load: BankLoad,
  { lostUnitId, ofUnitId: wantedId }: BankView = {},
): Known<BankAtLoad | 'none'> {
  const circuit = bankCircuitOf(compiled);
  if (circuit.known && typeof circuit.value === 'string') return known('none');
  const { type, supply, stack } = compiled;
  const moments = momentsOf(compiled, load);
  const missing = [circuit, type, supply, moments].flatMap((one) => (one.known ? [] : one.missing));
  if (!circuit.known || typeof circuit.value === 'string' || !type.known || !supply.known || !moments.known)
    return unknownAt(...missing);
  const met = load.kind === 'largest-start' ? nearEmpty(circuit.value, stack) : known(circuit.value);
  if (!met.known) return met;
  const network = met.value;
  const draw = { compiled, supply: supply.value, type: type.value, lostUnitId };
  let hardest: BankAtLoad | undefined;
  for (const { linesW, durationS, label } of moments.value)
    for (const { powersW, ofUnitId } of bankLoadsW(draw, linesW)) {
      if (wantedId !== undefined && ofUnitId !== undefined && ofUnitId !== wantedId) continue;
      const share = shareBank(network, powersW);
      const found = { circuit: network, powersW, share, loadW: totalOf(linesW), durationS, label, ofUnitId };
      if (hardest === undefined || strain(share, durationS) > strain(hardest.share, hardest.durationS))
        hardest = found;
    }
  return hardest === undefined ? unknownAt(['stacks', stack.id, 'units']) : known(hardest);
}
