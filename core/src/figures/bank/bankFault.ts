import type { CompiledStack } from '../../installation/installation.ts';
import { all, field, type Known, mapKnown } from '../../values/known.ts';
import type { CompiledBank } from './bank.ts';
import { bankTypesOf } from './ofSet.ts';

/** What a bank drives into a bolted fault at its own terminals. */
export interface BankFault {
  readonly amperes: number;
  /** Inner resistance of the bank. */
  readonly ohm: number;
}

/** I_sc = U_max / R of the bank, without leads: the most a bolted fault can draw. */
export function bankFault(compiled: CompiledStack, bank: CompiledBank): Known<BankFault> {
  const types = bankTypesOf(compiled);
  if (!types.known) return types;
  const milliohms = all(
    Object.fromEntries(
      types.value.map(({ id, internalMilliohm }) => [
        id,
        field(internalMilliohm, 'types', id, 'internalMilliohm'),
      ]),
    ),
  );
  return mapKnown(milliohms, (found) => {
    const ohm = ((Math.min(...Object.values(found)) / 1000) * bank.seriesCount) / bank.parallelCount;
    return { amperes: bank.maxV / ohm, ohm };
  });
}
