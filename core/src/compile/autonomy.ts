import { all, field, type Known } from '../design/known.ts';
import type { Bank } from '../design/schema.ts';
import { add, ZERO } from '../network/complex.ts';
import type { CompiledStack } from './installation.ts';

/** How long a bank lasts, from a stated level down to where discharge stops. */
export interface Autonomy {
  readonly startSoc: number;
  readonly floorSoc: number;
  readonly energyWh: number;
  readonly capacityAh: number;
  readonly nominalV: number;
  readonly efficiency: number;
  readonly idleW: number;
  readonly loadW: number;
  readonly hours: number;
}

export type AutonomyFrom = 'reserve' | 'full';
export type AutonomyLoad = 'average' | 'expected-peak';

/**
 * Autonomy t = E / (P/η + P_idle), with E = Ah · V · (SoC_start − SoC_floor). The floor is the cut-off, or what the module
 * type leaves unusable where that is higher. Idle power of all inverters is drawn on the DC side.
 */
export function autonomy(
  compiled: CompiledStack,
  from: AutonomyFrom,
  load: AutonomyLoad,
): Known<Autonomy> | undefined {
  if (compiled.bank.known && compiled.bank.value === 'none') return undefined;
  const stated: Bank | undefined = typeof compiled.stack.bank === 'object' ? compiled.stack.bank : undefined;
  const path = ['stacks', compiled.stack.id, 'bank'];
  const given = all({
    bank: compiled.bank,
    type: compiled.type,
    board: compiled.board,
    startSoc:
      from === 'full' ? { known: true as const, value: 1 } : field(stated?.reserveSoc, ...path, 'reserveSoc'),
    cutoffSoc: field(stated?.cutoffSoc, ...path, 'cutoffSoc'),
  });
  if (!given.known) return given;
  const { bank, type, board, startSoc, cutoffSoc } = given.value;
  if (bank === 'none') return undefined;
  const sum = load === 'average' ? board.averageW : board.expected;
  if (sum.missing.length > 0) return { known: false, missing: sum.missing };
  const loadW = load === 'average' ? board.averageW.knownPart : board.expected.knownPart.reduce(add, ZERO).re;
  const idleW = type.idleW * compiled.stack.units.length;
  const floorSoc = Math.max(cutoffSoc, 1 - bank.type.usableFraction);
  const energyWh = bank.capacityAh * bank.nominalV * Math.max(0, startSoc - floorSoc);
  const drawW = loadW / type.efficiency + idleW;
  return {
    known: true,
    value: {
      startSoc,
      floorSoc,
      energyWh,
      capacityAh: bank.capacityAh,
      nominalV: bank.nominalV,
      efficiency: type.efficiency,
      idleW,
      loadW,
      hours: drawW > 0 ? energyWh / drawW : Infinity,
    },
  };
}
