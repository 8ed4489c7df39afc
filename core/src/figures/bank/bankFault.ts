import type { CompiledStack } from '../../installation/installation.ts';
import { all, field, type Known, known, mapKnown } from '../../values/known.ts';
import type { CompiledBank } from './bank.ts';
import { bankTypesOf } from './ofSet.ts';

/** What a bank drives into a bolted fault at its own terminals. */
export interface BankFault {
  readonly amperes: number;
  /** Inner resistance of the bank. */
  readonly ohm: number;
}

/**
 * I_sc = n · max(U_max / (m · R), I_stated) of n strings of m modules, without leads: the most a bolted fault can draw. What the data sheet
 * states for one module counts where it is more than its resistance makes, or where that is not stated.
 */
export function bankFault(compiled: CompiledStack, bank: CompiledBank): Known<BankFault> {
  const types = bankTypesOf(compiled);
  if (!types.known) return types;
  const each = all(
    Object.fromEntries(
      types.value.map(({ id, internalMilliohm, shortCircuitA }): [string, Known<number>] => [
        id,
        internalMilliohm === undefined && shortCircuitA !== undefined
          ? known(shortCircuitA)
          : mapKnown(field(internalMilliohm, 'types', id, 'internalMilliohm'), (milliohm) =>
              Math.max(bank.maxV / ((milliohm / 1000) * bank.seriesCount), shortCircuitA ?? 0),
            ),
      ]),
    ),
  );
  return mapKnown(each, (found) => {
    const amperes = Math.max(...Object.values(found)) * bank.parallelCount;
    return { amperes, ohm: bank.maxV / amperes };
  });
}
