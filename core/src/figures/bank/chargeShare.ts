import type { CompiledStack } from '../../installation/installation.ts';
import { isOwnBank } from '../../installation/ownBank.ts';
import { all, field, type Known, mapKnown } from '../../values/known.ts';
import { remember } from '../../values/remember.ts';
import type { BankCircuit } from './bankCircuit.ts';
import { type BankShare, shareBank } from './bankShare.ts';
import { bankCircuitOf, bankOfSet } from './ofSet.ts';

/** A bank while every inverter on it charges at its setting. */
export interface ChargeShare {
  readonly circuit: BankCircuit;
  readonly share: BankShare;
  /** Charging current asked for in all, A. */
  readonly askedA: number;
}

/**
 * The bank solved while it is charged: each inverter gives its charge setting at the nominal voltage, as power, so that the modules
 * share the current as leads and bars let them. 'none' where nothing shares.
 */
export const chargeShareOf = remember((compiled: CompiledStack): Known<ChargeShare | 'none'> => {
  const { stack } = compiled;
  const given = all({
    circuit: bankCircuitOf(compiled),
    bank: bankOfSet(compiled),
    setA: field(stack.chargeCurrentA, 'stacks', stack.id, 'chargeCurrentA'),
  });
  return mapKnown(given, ({ circuit, bank, setA }) => {
    if (typeof circuit === 'string' || bank === 'none') return 'none';
    const charging = isOwnBank(stack) ? 1 : stack.units.length;
    const powersW = stack.units.map((_, index) => (index < charging ? -setA * bank.nominalV : 0));
    return { circuit, share: shareBank(circuit, powersW), askedA: charging * setA };
  });
});
